import { useMemo, useState } from 'react'
import {
  bestLanding,
  type Chart,
  type LaidBar,
  type LaidChart,
  layInAllKeys,
  nearestFade,
  readChart,
  toGlyphs,
  transposeChart,
} from '../../../core/index.ts'
import { hueClass } from '../../figures/hue.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { Slider } from '../../parts/Slider.tsx'
import { type Address, go } from '../../state/address/address.ts'
import type { Kept } from '../../state/kept/kept.ts'
import { copyTable } from '../../state/page/copying.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { useChart } from '../overlay/use-chart.ts'
import styles from './Harmony.module.css'

const shiftWord = (shift: number): string =>
  shift === 0 ? 'as it is' : `${Math.abs(shift)} semitone${Math.abs(shift) > 1 ? 's' : ''} ${shift > 0 ? 'up' : 'down'}`

const chordsIn = (bar: LaidBar, which: 'under' | 'over'): string =>
  bar.chords.map((c) => (which === 'under' ? c.spot.spot.chord.symbol : c.laid.symbol)).join(' ')

const textOf = (title: string, laid: LaidChart) => ({
  title: `${title}, ${shiftWord(laid.shift)}`,
  heads: ['Bar', 'Chord', 'Laid over it', 'Fade', 'Landing'],
  rows: laid.bars.map((b) => [
    String(b.bar.number),
    chordsIn(b, 'under'),
    chordsIn(b, 'over'),
    String(b.fade),
    b.landing === null ? '' : String(b.landing),
  ]),
})

const Bars = ({ laid }: { readonly laid: LaidChart }) => (
  <div className={styles.scroll}>
    <table className={styles.table}>
      <thead>
        <tr>
          <th scope="col">Bar</th>
          <th scope="col">Chord</th>
          <th scope="col">Over it</th>
          <th scope="col">Fade</th>
          <th scope="col">Lands</th>
        </tr>
      </thead>
      <tbody>
        {laid.bars.map((b) => (
          <tr key={b.bar.number}>
            <td>{b.bar.number}</td>
            <td>{toGlyphs(chordsIn(b, 'under'))}</td>
            <td>
              <strong>{toGlyphs(chordsIn(b, 'over'))}</strong>
            </td>
            <td>
              <span className={styles.height}>
                <svg viewBox="0 0 14 20" className={hueClass(b.fade)} aria-hidden="true">
                  <rect x="0" y={20 - b.fade / 5} width="14" height={b.fade / 5} />
                </svg>
                {b.fade}
              </span>
            </td>
            <td>{b.landing ?? '–'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </div>
)

/** Another chart over this one: bar by bar how far out it stands and how it lands, in a transposition of choice. */
export const Over = ({
  address,
  openChart,
  kept,
}: {
  readonly address: Address
  readonly openChart: OpenChart
  readonly kept: Kept
}) => {
  const { row: other, failed } = useChart(address.other)
  const [wished, setWished] = useState(40)
  const text = other?.text ?? null
  const { chart, spots, instrument, settings } = openChart
  const over = useMemo((): Chart | null => {
    const read = text === null ? null : readChart(text)
    return read?.ok ? transposeChart(read.value, instrument.written) : null
  }, [text, instrument])
  const all = useMemo(
    () => (chart && over ? layInAllKeys(chart, spots, over, settings.school, settings.weights) : []),
    [chart, spots, over, settings],
  )
  const laid = all.find((l) => l.shift === address.shift) ?? all[0]
  const title = kept.charts.find((c) => c.id === address.other)?.title ?? ''
  return (
    <>
      <Select
        label="The chart to lay over"
        value={address.other ?? ''}
        options={[{ value: '', label: 'Choose one' }, ...kept.charts.map((c) => ({ value: c.id, label: c.title }))]}
        onPick={(id) => go({ other: id || null, shift: 0 })}
      />
      {address.other === null && (
        <p className={styles.soft}>Its chords become what is played over the chords of this one.</p>
      )}
      {address.other !== null && !other && failed === null && <p role="status">Opening it …</p>}
      {failed !== null && <p role="alert">{failed}</p>}
      {laid && (
        <>
          <Select
            label="Moved"
            value={String(laid.shift)}
            options={[...all]
              .sort((a, b) => a.shift - b.shift)
              .map((l) => ({
                value: String(l.shift),
                label: `${shiftWord(l.shift)}: fade ${l.fade}, lands ${l.landing ?? '–'}`,
              }))}
            onPick={(s) => go({ shift: Number(s) })}
          />
          <Slider label="Wished fade" value={wished} onChange={setWished} />
          <div className={styles.buttons}>
            <Button onClick={() => go({ shift: bestLanding(all)?.shift ?? 0 })}>Best landing</Button>
            <Button onClick={() => go({ shift: nearestFade(all, wished)?.shift ?? 0 })}>Nearest to the wish</Button>
            <Button onClick={() => void copyTable(textOf(title, laid))}>Copy as text</Button>
          </div>
          <p>
            On the whole: fade <strong>{laid.fade}</strong>, lands <strong>{laid.landing ?? '–'}</strong>.
          </p>
          <Bars laid={laid} />
        </>
      )}
    </>
  )
}
