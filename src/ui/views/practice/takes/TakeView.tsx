import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import { GRADES, type TakeSentence, toGlyphs } from '../../../../core/index.ts'
import { LineBand } from '../../../figures/LineBand.tsx'
import { Button } from '../../../parts/Button.tsx'
import { Select } from '../../../parts/Select.tsx'
import { go } from '../../../state/address/address.ts'
import { renameRow } from '../../../state/kept/kept.ts'
import type { TakeRow } from '../../../state/kept/row-types.ts'
import { FIRST } from '../../../state/page/first.ts'
import {
  $heardTake,
  $howHeard,
  heardTick,
  hearOtherwise,
  listenBack,
  stopListening,
} from '../../../state/sound/listening-back.ts'
import { recordOrStop } from '../../../state/sound/recording.ts'
import { $takeSaved, cancelTakeWav, saveTake } from '../../../state/sound/saving.ts'
import { gradeTake, keepIdeaOf, keepPart, proposedGrade } from '../../../state/takes/keeping.ts'
import { $takes, removeSound, removeTake } from '../../../state/takes/takes.ts'
import type { OpenChart } from '../../../state/tune/open-chart.ts'
import { useTake, useTakeRead } from '../../overlay/use-take.ts'
import { Sentences } from './Sentences.tsx'
import { Spot } from './Spot.tsx'
import { TakeFade } from './TakeFade.tsx'
import { takeFacts } from './TakeList.tsx'
import { TakeSteps } from './TakeSteps.tsx'
import styles from './Takes.module.css'
import { TakeTime } from './TakeTime.tsx'

const RATES = ['1', '0.75', '0.5'] as const

/** How a take is heard, and what stops it. */
const HearBar = ({ row }: { readonly row: TakeRow }) => {
  const heard = useStore($heardTake, FIRST)
  const how = useStore($howHeard, FIRST)
  const isHeard = heard?.id === row.id
  return (
    <div className={styles.hear}>
      <Button tone="strong" pressed={isHeard} onClick={() => (isHeard ? stopListening() : void listenBack(row, null))}>
        {isHeard ? 'Stop' : 'Listen to all of it'}
      </Button>
      <Select
        label="Tempo"
        labelHidden
        value={String(how.rate)}
        options={RATES.map((r) => ({ value: r, label: r === '1' ? 'as played' : `${Number(r) * 100} %` }))}
        onPick={(v) => hearOtherwise(row, { rate: Number(v) })}
      />
      <Button pressed={how.band} onClick={() => hearOtherwise(row, { band: !how.band })}>
        with the band
      </Button>
      {row.sound && (
        <Button pressed={how.sound} onClick={() => hearOtherwise(row, { sound: !how.sound })}>
          its own sound
        </Button>
      )}
    </div>
  )
}

/** Files of a take, and what takes it away. */
const TakeFiles = ({ row }: { readonly row: TakeRow }) => {
  const saved = useStore($takeSaved, FIRST)
  return (
    <details className={styles.fold}>
      <summary>Save or remove it</summary>
      <div className={styles.details}>
        <a href={`/api/v1/takes/${row.id}/export?as=midi`} download>
          MIDI, as it was played
        </a>
        <a href={`/api/v1/takes/${row.id}/export?as=musicxml`} download>
          MusicXML, on the grid
        </a>
        {saved === null ? (
          <Button onClick={() => void saveTake(row)}>WAV</Button>
        ) : (
          <Button onClick={cancelTakeWav}>Stop ({Math.round(saved * 100)} %)</Button>
        )}
        {row.sound && (
          <Button onClick={() => void removeSound(row)}>
            Remove the sound ({(row.sound.bytes / 1_048_576).toFixed(1)} MB)
          </Button>
        )}
        <Button onClick={() => void removeTake(row)}>Remove the take</Button>
      </div>
    </details>
  )
}

const Name = ({ row }: { readonly row: TakeRow }) => {
  const [name, setName] = useState(row.name)
  useEffect(() => setName(row.name), [row.name])
  return (
    <input
      className={styles.name}
      aria-label="Name of the take"
      value={name}
      maxLength={200}
      onChange={(e) => setName(e.target.value)}
      onBlur={() => void renameRow('takes', row, name)}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  )
}

/** Another take of the same chart to be read beside this one. */
const BesidePick = ({ row, beside }: { readonly row: TakeRow; readonly beside: string | null }) => {
  const others = useStore($takes, FIRST).filter(
    (t) => t.id !== row.id && (row.chartId === null || t.chartId === row.chartId),
  )
  if (others.length === 0) return null
  return (
    <Select
      label="Beside it"
      value={beside ?? ''}
      options={[
        { value: '', label: 'no other take' },
        ...others.map((t) => ({ value: t.id, label: toGlyphs(t.name) })),
      ]}
      onPick={(v) => go({ otherTake: v === '' ? null : v })}
    />
  )
}

/** A take read: its sentences first, then the notes above the home line, the fade, the time, the plan. */
const OneTake = ({
  row,
  openChart,
  isBeside,
}: {
  readonly row: TakeRow
  readonly openChart: OpenChart
  readonly isBeside: boolean
}) => {
  const { read, failed } = useTakeRead(row, openChart)
  const [chosen, setChosen] = useState<TakeSentence | null>(null)
  const [note, setNote] = useState(0)
  const takes = useStore($takes, FIRST)
  const isHeard = useStore($heardTake, FIRST)?.id === row.id
  useEffect(() => () => stopListening(), [])
  const grade = read && row.itemId !== null ? proposedGrade(read.reading) : null
  const marked =
    chosen && read
      ? read.reading.audit.notes.filter((n) => n.at >= chosen.from && n.at < chosen.to).map((n) => n.n)
      : []
  return (
    <article className={styles.take} aria-label={row.name}>
      <Name row={row} />
      <p className={styles.soft}>{takeFacts(row)}</p>
      <HearBar row={row} />
      {failed && <p role="alert">Its chart does not read any more, so it cannot be read. Its notes are kept.</p>}
      {!read && !failed && <p role="status">Reading it …</p>}
      {read && (
        <>
          <Sentences row={row} sentences={read.reading.sentences} chosen={chosen} onChoose={setChosen} />
          {grade && (
            <div className={styles.hear}>
              <span>As a round it would be:</span>
              {GRADES.map((g) => (
                <Button key={g} tone={g === grade ? 'strong' : 'plain'} onClick={() => gradeTake(row, g)}>
                  {g}
                </Button>
              ))}
            </div>
          )}
          {chosen && (
            <div className={styles.hear}>
              <Button onClick={() => void keepPart(row, read, chosen)}>Keep these bars as a line</Button>
              <Button onClick={() => void keepIdeaOf(row, read, chosen)}>Keep the idea</Button>
            </div>
          )}
          {read.reading.audit.notes.length > 0 && !isBeside && (
            <div className={styles.band}>
              <LineBand
                chart={read.chart}
                keyHere={read.chart.key}
                audit={read.reading.audit}
                current={marked[0] ?? note}
                marked={marked}
                clef={openChart.settings.clef}
                tab={null}
                zoom={1}
                low
                music={isHeard ? heardTick : null}
                onGo={(n) => {
                  setChosen(null)
                  setNote(n)
                }}
                onStaff={null}
              />
            </div>
          )}
          <TakeFade read={read} />
          <TakeTime read={read} tempo={row.tempo} />
          {chosen && !isBeside && <Spot sentence={chosen} row={row} takes={takes} openChart={openChart} />}
          <TakeSteps steps={read.reading.steps} />
        </>
      )}
      <TakeFiles row={row} />
    </article>
  )
}

/** One take, or two beside each other. */
export const TakeView = ({
  id,
  beside,
  openChart,
}: {
  readonly id: string
  readonly beside: string | null
  readonly openChart: OpenChart
}) => {
  const { row, missing } = useTake(id)
  const other = useTake(beside)
  return (
    <div className={styles.takeView}>
      <div className={styles.hear}>
        <Button onClick={() => go({ take: null, otherTake: null })}>All takes</Button>
        <Button onClick={recordOrStop}>Record another</Button>
        {row && <BesidePick row={row} beside={beside} />}
      </div>
      {missing && <p role="alert">This take is gone.</p>}
      {!row && !missing && <p role="status">Fetching the take …</p>}
      <div className={other.row ? styles.two : undefined}>
        {row && <OneTake key={row.id} row={row} openChart={openChart} isBeside={other.row !== null} />}
        {other.row && <OneTake key={other.row.id} row={other.row} openChart={openChart} isBeside />}
      </div>
    </div>
  )
}
