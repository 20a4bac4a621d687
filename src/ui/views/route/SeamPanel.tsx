import { useMemo } from 'react'
import { type Joint, jointBetween, midi, type Note, toGlyphs, turnsOf, upwards, type Way } from '../../../core/index.ts'
import { CLEF_LOW } from '../../figures/register.ts'
import { SeamKeys } from '../../figures/SeamKeys.tsx'
import { Staff, type StaffEntry } from '../../figures/Staff.tsx'
import type { Clef } from '../../state/kept/settings.ts'
import type { ShownStep } from '../../state/route/route-model.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const names = (notes: readonly Note[]): string => notes.map((n) => toGlyphs(n.name)).join(', ')

const WHITHER = {
  1: 'The whole set climbs.',
  0: 'The set neither climbs nor falls on the whole.',
  [-1]: 'The whole set falls.',
} as const

/** Held notes one by one, then each pair that slides, low enough for the clef. */
const entriesOf = ({ held, slides }: Joint, clef: Clef): readonly StaffEntry[] => {
  const low = midi(CLEF_LOW[clef])
  const alone = held.flatMap((n) => upwards([n], low)).map((p): StaffEntry => ({ pitches: [p], label: '=' }))
  const sliding = slides.flatMap(([a, b]): readonly StaffEntry[] => {
    const up = (b.pc - a.pc + 12) % 12 === 1
    const [lower, upper] = upwards(up ? [a, b] : [b, a], low)
    const [from, to] = up ? [lower, upper] : [upper, lower]
    return from && to
      ? [
          { pitches: [from], label: '' },
          { pitches: [to], label: up ? '↑½' : '↓½' },
        ]
      : []
  })
  return [...alone, ...sliding]
}

const WayRow = ({ head, way, chord }: { head: string; way: Way | null; chord: string }) => (
  <tr>
    <th scope="row">{head}</th>
    {way ? (
      <td>
        <strong>
          {toGlyphs(way.from.name)} → {toGlyphs(way.to.name)}
        </strong>
        , {way.how}, the {toGlyphs(way.degree)} of {toGlyphs(chord)}
        {way.guide ? ', a guide tone' : ''}
      </td>
    ) : (
      <td>no step</td>
    )}
  </tr>
)

/** The joint after each step, as far as there is one. */
const jointsOf = (steps: readonly ShownStep[]): readonly (Joint | null)[] =>
  steps.map((a, i) => {
    const b = steps[i + 1]
    return a.overlay && b?.overlay ? jointBetween(a.overlay, { overlay: b.overlay, slot: b.slot }) : null
  })

/** How the step in view goes on into the next: what is held, what slides, which note to leave from and arrive on. */
export const SeamPanel = ({ model, steps, openChart }: RouteProps) => {
  const joints = useMemo(() => jointsOf(steps), [steps])
  const at = model.current?.index ?? 0
  const [from, to, joint] = [steps[at], steps[at + 1], joints[at]]
  const { clef } = openChart.settings
  const entries = useMemo(() => (joint ? entriesOf(joint, clef) : []), [joint, clef])
  if (!from?.overlay || !to?.overlay || !joint)
    return <p>{to ? 'Nothing is laid here yet.' : 'This is the last step: nothing comes after it.'}</p>
  const turns = turnsOf(joints.map((j) => j ?? { direction: 0 as const }))[at]
  const chord = to.slot.chord.symbol
  return (
    <>
      <h2>
        {toGlyphs(from.overlay.name)} → {toGlyphs(to.overlay.name)}
      </h2>
      <p>
        Into bar {to.slot.bar}, {toGlyphs(chord)}. {WHITHER[joint.direction]}{' '}
        {turns && <strong>Here the route turns: before this it went the other way.</strong>}
      </p>
      <table className={styles.ways}>
        <tbody>
          <WayRow head="going up" way={joint.up} chord={chord} />
          <WayRow head="going down" way={joint.down} chord={chord} />
          <WayRow head="staying" way={joint.stay} chord={chord} />
        </tbody>
      </table>
      <SeamKeys from={from.overlay} to={to.overlay} joint={joint} />
      {entries.length > 0 ? (
        <Staff entries={entries} clef={clef} name="Held notes, then half steps" scale={1.1} />
      ) : (
        <p>Nothing is held, and nothing is a half step away.</p>
      )}
      <p>
        Held: {joint.held.length > 0 ? names(joint.held) : 'nothing'}. Half steps:{' '}
        {joint.slides.length > 0
          ? joint.slides.map(([a, b]) => `${toGlyphs(a.name)}–${toGlyphs(b.name)}`).join(', ')
          : 'none'}
        . On average each note moves {joint.motion.toFixed(2).replace(/\.?0+$/, '')} semitones.
      </p>
    </>
  )
}
