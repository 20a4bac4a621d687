import { useStore } from '@nanostores/react'
import { useEffect, useRef, useState } from 'react'
import { barsAt, type Chart, GRIDS, type Grid, toGlyphs } from '../../../core/index.ts'
import { howMany } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Dialog } from '../../parts/Dialog.tsx'
import { Select } from '../../parts/Select.tsx'
import { AT_START, go } from '../../state/address/address.ts'
import type { Kept } from '../../state/kept/kept.ts'
import { $lineFile, keepLine, type LookedInto, lookInto } from '../../state/line/lines.ts'
import { FIRST } from '../../state/page/first.ts'
import { GRID_WORDS } from './grid-words.ts'
import styles from './LineView.module.css'
import { VoiceChoice } from './VoiceChoice.tsx'

const CHORUSES = ['1', '2', '3', '4', '5', '6', '7', '8']

/** Where a bar of the chart begins in one of its choruses, in ticks. */
const startOf = (chart: Chart, bar: number, chorus: number): number => {
  const bars = barsAt(chart)
  return (bars.find((b) => b.number === bar)?.from ?? 0) + (chorus - 1) * (bars.at(-1)?.to ?? 0)
}

/** A line from elsewhere: MIDI, a tune in ABC or a score in MusicXML. It is looked into first; then one keeps it. */
export const BringLine = ({ chart, kept }: { readonly chart: Chart; readonly kept: Kept }) => {
  const [open, setOpen] = useState(false)
  const [name, setName] = useState('A line')
  const [text, setText] = useState('')
  const [file, setFile] = useState<File | null>(null)
  const [grid, setGrid] = useState<Grid>('nearest')
  const [bar, setBar] = useState(String(chart.bars[0]?.number ?? 1))
  const [chorus, setChorus] = useState('1')
  const [found, setFound] = useState<LookedInto | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const picker = useRef<HTMLInputElement>(null)
  const look = async (source: File | null, voice: number | null, by: Grid) => {
    const answer = await lookInto(source ?? new File([text], 'line.txt'), voice, by)
    setFound(answer.ok ? answer.value : null)
    setWrong(answer.ok ? null : answer.detail)
  }
  const choose = (chosen: File) => {
    setFile(chosen)
    setName(chosen.name.replace(/\.\w+$/, ''))
    void look(chosen, null, grid)
  }
  const dropped = useStore($lineFile, FIRST)
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each file that is dropped
  useEffect(() => {
    if (!dropped) return
    $lineFile.set(null)
    setOpen(true)
    choose(dropped)
  }, [dropped])
  const keep = async () => {
    const from = startOf(chart, Number(bar), Number(chorus))
    const played = found?.played.length ? found.played : null
    if (!found || !(await keepLine(name.trim() || 'A line', found.notes, from, played))) return
    setOpen(false)
    setFound(null)
    setText('')
    setFile(null)
  }
  return (
    <>
      <Button onClick={() => setOpen(true)}>Bring a line</Button>
      <Dialog title="Bring a line" open={open} onClose={() => setOpen(false)}>
        <div className={styles.bring}>
          <label>
            Name
            <input value={name} maxLength={200} onChange={(e) => setName(e.target.value)} />
          </label>
          <label>
            ABC or MusicXML
            <textarea
              rows={6}
              value={text}
              spellCheck={false}
              onChange={(e) => {
                setText(e.target.value)
                setFile(null)
                setFound(null)
              }}
            />
          </label>
          <div>
            <Button onClick={() => picker.current?.click()}>{file ? file.name : 'Or choose a file'}</Button> MIDI, ABC,
            MusicXML
            <input
              ref={picker}
              type="file"
              hidden
              aria-label="Line file"
              accept=".mid,.midi,.abc,.xml,.musicxml,.mxl,.txt"
              onChange={(e) => {
                const chosen = e.target.files?.[0] ?? null
                if (chosen) choose(chosen)
                else setFile(null)
              }}
            />
          </div>
          {found === null && (
            <Button disabled={text.trim() === '' && file === null} onClick={() => void look(file, null, grid)}>
              Look into it
            </Button>
          )}
          {wrong !== null && <p role="alert">{wrong}</p>}
          {found && (
            <>
              <p role="status">
                {howMany(found.notes.length, 'note')}.{' '}
                {found.leftOut.length > 0 &&
                  `Left out: ${found.leftOut.map((l) => `${toGlyphs(l.what)} (${l.why})`).join('; ')}.`}
              </p>
              {found.voices.length > 1 && (
                <VoiceChoice
                  voices={found.voices}
                  chosen={found.chosen}
                  onPick={(voice) => void look(file, voice, grid)}
                />
              )}
              {found.played.length > 0 && (
                <Select
                  label="Brought to"
                  value={grid}
                  options={GRIDS.map((g) => ({ value: g, label: GRID_WORDS[g] }))}
                  onPick={(g) => {
                    setGrid(g)
                    void look(file, found.chosen, g)
                  }}
                />
              )}
              <Select
                label="It lies over"
                value={kept.chart?.id ?? ''}
                options={kept.charts.map((c) => ({ value: c.id, label: c.title }))}
                onPick={(id) => {
                  setBar('1')
                  go({ chart: id, ...AT_START })
                }}
              />
              <Select
                label="It begins with"
                value={bar}
                options={chart.bars.map((b) => ({ value: String(b.number), label: `bar ${b.number}` }))}
                onPick={setBar}
              />
              <Select
                label="of chorus"
                value={chorus}
                options={CHORUSES.map((c) => ({ value: c, label: c }))}
                onPick={setChorus}
              />
              <Button tone="strong" onClick={() => void keep()}>
                Keep it
              </Button>
            </>
          )}
        </div>
      </Dialog>
    </>
  )
}
