import type { HeardNote } from '../line/heard.ts'
import { endOf } from '../line/line.ts'
import { landingWords } from '../line/verdict.ts'
import { figuresOf } from './figures.ts'
import type { TakeFindings } from './read-take.ts'
import { barAt, barsOf, In, laidIn, landings, lengthOf, percent, said, staysKept, type Told } from './take-words.ts'

const GOOD_SHARE = 0.8

const onPlan = (found: TakeFindings): readonly Told[] => {
  const {
    kept,
    steps,
    audit: { notes, timeline },
  } = found
  const { kept: share } = figuresOf(found)
  const landed = landings(kept, 'landed').map((k): Told => {
    const { landing } = k.stretch
    const on = landing && (notes[landing.on] as HeardNote)
    return {
      text: on
        ? `${laidIn(k.stay)} comes home in time, by ${landingWords(landing.how)} to ${said(on)}, in bar ${on.bar}.`
        : `${laidIn(k.stay)} comes home in time, into bar ${barAt(k.stay.to, timeline)}.`,
      ...{ tone: 'good', about: 'landed', weight: 1 + k.stretch.peak / 100 },
      ...{ from: (notes[k.stretch.from] as HeardNote).at, to: on ? endOf(on) : k.stay.to },
    }
  })
  const whole: readonly Told[] =
    share !== null && share >= GOOD_SHARE
      ? [
          {
            text: `The plan was kept: ${percent(share)} % of what you played lies in what was laid.`,
            ...{ tone: 'good', about: 'kept', weight: 1 + share },
            ...{ from: steps[0]?.from ?? 0, to: steps.at(-1)?.to ?? 0 },
          },
        ]
      : []
  const best = landed.sort((a, b) => b.weight - a.weight)[0]
  return [...whole, ...(best ? [best] : [])]
}

/** What is good where no plan was kept: a way home, the time, a planned step, at last the bar that sits best. */
const byItself = (found: TakeFindings): Told => {
  const { audit, time, kept } = found
  const { notes, timeline, stretches } = audit
  const [first, last] = [notes[0] as HeardNote, notes.at(-1) as HeardNote]
  const home = stretches.find((s) => s.landing && s.landing.how !== 'cut')
  if (home?.landing) {
    const on = notes[home.landing.on] as HeardNote
    const text = `In bar ${on.bar} you come home to ${said(on)}.`
    const from = (notes[home.from] as HeardNote).at
    return { text, tone: 'good', about: 'landed', weight: 0, from, to: endOf(on) }
  }
  const best = [...staysKept(kept, 'kept')].sort((a, b) => lengthOf(b) - lengthOf(a))[0]
  if (best) {
    const text = `${In(barsOf(best.stay.from, best.stay.to, timeline))} you kept to ${laidIn(best.stay)}.`
    return { text, tone: 'good', about: 'kept', weight: 0, from: best.stay.from, to: best.stay.to }
  }
  if (!time.fault && notes.length >= 8) {
    const text = `The time is kept: ${Math.round(time.spread)} ms about the beat.`
    return { text, tone: 'good', about: 'kept', weight: 0, from: first.at, to: endOf(last) }
  }
  const resting = notes.find((n) => n.strong && n.role === 'chord') ?? notes.find((n) => n.role === 'chord')
  const text = resting
    ? `In bar ${resting.bar} ${said(resting)}, says the chord.`
    : `You played ${notes.length} notes; the next take has something to begin from.`
  const on = resting ?? first
  return { text, tone: 'good', about: 'kept', weight: 0, from: on.at, to: endOf(on) }
}

/** What is told that was good: always something. */
export const goodIn = (found: TakeFindings): readonly Told[] => {
  const good = onPlan(found)
  return good.length > 0 ? good : [byItself(found)]
}
