import { atom } from 'nanostores'
import { compass, degree, isDegree, namedNotes, type Overlay, reverse, transposeOverlay } from '../../../core/index.ts'
import { type MadeLine, type MakeAsk, makeInWorker, stopMakingInWorker } from '../../../workers/start.ts'
import { $address, type Address, go } from '../address/address.ts'
import { $kept, type Kept, sayKept } from '../kept/kept.ts'
import { addRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { concertTune, textHere } from '../tune/concert.ts'
import { $openChart, type OpenChart } from '../tune/open-chart.ts'

/** How the making of lines stands: what was asked and what came of it. While a new one is made the last stay in sight. */
export interface Making {
  readonly state: 'making' | 'made' | 'none' | 'failed' | 'stopped'
  readonly ask: MakeAsk | null
  readonly drafts: readonly MadeLine[]
  readonly why: string
}
export const $making = atom<Making>({ state: 'making', ask: null, drafts: [], why: '' })

const DRAFTS = 8
/** Over more than so many ticks (a hundred bars of four quarters) there are fewer, so that nobody waits. */
const LONG = 100 * 4 * 960
const FEW_DRAFTS = 2
/** What a line keeps to, written pitch, by the clef that is read. */
const WRITTEN_RANGE = { treble: [57, 84], bass: [38, 64], alto: [48, 76] } as const

interface Laid {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay | null
}

/** What lies over each chord of the chart, in concert pitch; null where only its home scale does. */
const laidOver = ({ spots, instrument }: OpenChart): readonly Laid[] => {
  const back = reverse(instrument.written)
  let at = 0
  return spots.map((s) => {
    const from = at
    at += s.spot.length
    const laid = s.by !== 'home' && s.reading ? transposeOverlay(s.reading.overlay, back) : null
    return { from, to: at, overlay: laid }
  })
}

/** The chords round the one in view that are the same one: a line over it goes on through them. */
const stretchHere = ({ spots, current }: OpenChart): readonly [number, number] => {
  const at = current?.index ?? 0
  const same = (i: number): boolean => spots[i]?.spot.chord.symbol === spots[at]?.spot.chord.symbol
  let [first, last] = [at, at]
  while (first > 0 && same(first - 1)) first--
  while (last + 1 < spots.length && same(last + 1)) last++
  return [first, last]
}

/** A figure that suits what a line is made of, until the player names another. */
export const figureHere = ({ makeFigure, makeFrom }: Address, openChart: OpenChart): string => {
  if (makeFigure !== null) return makeFigure
  const overlay = openChart.current?.reading?.overlay
  const inThirds =
    makeFrom === 'chord' || (makeFrom === 'here' && (overlay?.groups || (overlay?.notes.length ?? 7) < 5))
  return inThirds ? '1 3 5' : '1 2 3 5'
}

/** What is asked for in the place in view; null where there is no chart that reads. */
export const makeAskHere = (address: Address, kept: Kept, openChart: OpenChart): MakeAsk | null => {
  const tune = concertTune(address, kept)
  const { text, overrides } = textHere(address, kept)
  if (!tune || text === null || openChart.spots.length === 0) return null
  const laid = laidOver(openChart)
  const [first, last] = stretchHere(openChart)
  const isHere = address.makeFrom === 'here'
  const bars = address.loop
  const inLoop = laid.filter((_, i) => {
    const bar = openChart.spots[i]?.spot.bar ?? 0
    return bars === null || (bar >= bars.from && bar <= bars.to)
  })
  const span = isHere ? laid.slice(first, last + 1) : inLoop
  const { reading } = openChart.current ?? {}
  const here = reading ? transposeOverlay(reading.overlay, reverse(openChart.instrument.written)).name : null
  const plan =
    address.makeFrom === 'home' || address.makeFrom === 'chord'
      ? address.makeFrom
      : isHere
        ? [{ from: span[0]?.from ?? 0, overlay: here }]
        : laid.map(({ from, overlay }) => ({ from, overlay: overlay?.name ?? null }))
  const { settings, instrument } = openChart
  const plays = compass(address.makeFor ?? '')
  const [low, high] = plays ? [plays.low, plays.high] : WRITTEN_RANGE[settings.clef]
  const down = plays?.up ?? instrument.written.semitones
  return {
    ...{ text, overrides, school: settings.school, weights: settings.weights, plan },
    from: span[0]?.from ?? 0,
    to: span.at(-1)?.to ?? 0,
    figure: figureHere(address, openChart),
    ...{ path: address.makePath, value: address.makeValue, start: Number(address.makeStart), rest: '' },
    ...{ approach: address.makeApproach, order: 'alternate', inversion: 'climb', range: [low - down, high - down] },
    landing: address.makeLanding && isDegree(address.makeLanding) ? degree(address.makeLanding).semitones % 12 : null,
    limit: (span.at(-1)?.to ?? 0) - (span[0]?.from ?? 0) > LONG ? FEW_DRAFTS : DRAFTS,
  }
}

let asked = ''
let since = 0
/** A making under way for so long is given up for a newer one; a shorter one is sooner waited for. */
const GIVEN_UP_MS = 300

/** Makes the lines that are asked for, unless they were asked for last. */
export const makeFor = async (ask: MakeAsk): Promise<void> => {
  const key = JSON.stringify(ask)
  if (key === asked) return
  asked = key
  const before = $making.get()
  if (before.state === 'making' && performance.now() - since > GIVEN_UP_MS) stopMakingInWorker()
  since = performance.now()
  const sameChart = before.ask?.text === ask.text
  $making.set({ state: 'making', ask, drafts: sameChart ? before.drafts : [], why: '' })
  const made = await makeInWorker(ask).catch(() => null)
  if (asked !== key) return
  if (made === null) {
    asked = ''
    return $making.set({ state: 'failed', ask, drafts: [], why: 'The lines could not be made.' })
  }
  if (made.kind === 'none') return $making.set({ state: 'none', ask, drafts: [], why: made.why })
  $making.set({ state: 'made', ask, drafts: made.lines, why: '' })
}

/** Stops what is being made; the drafts made last stay in sight. */
export const stopMaking = (): void => {
  asked = ''
  $making.set({ ...$making.get(), state: 'stopped' })
  stopMakingInWorker()
}

/** The draft in view; null outside Make. */
export const draftHere = (): MadeLine | null => {
  const address = $address.get()
  if (address?.view !== 'line' || address.make !== 'make') return null
  const { drafts } = $making.get()
  return drafts[Math.min(address.draft, drafts.length - 1)] ?? null
}

/** One draft on or back in their list. */
export const moveDraft = (by: 1 | -1): void => {
  const address = $address.get()
  const last = $making.get().drafts.length - 1
  if (address && last >= 0) go({ draft: Math.max(0, Math.min(last, Math.min(address.draft, last) + by)), note: 0 })
}

const SOURCE = { laid: 'what is laid', home: 'the home scales', chord: 'the chords' } as const

/** What a draft is called: its figure, and what it is made of. */
export const draftName = (address: Address, openChart: OpenChart): string => {
  const of = address.makeFrom === 'here' ? (openChart.concert?.overlay.name ?? 'this chord') : SOURCE[address.makeFrom]
  return `${figureHere(address, openChart)} on ${of}`.slice(0, 200)
}

/** Keeps the draft in view as a line: over the chart, or with a sketch's own text. */
export const keepDraft = (): void => {
  const [address, kept, openChart, draft] = [$address.get(), $kept.get(), $openChart.get(), draftHere()]
  if (!address || !kept || !openChart || !draft) return say('There is no draft to keep yet.')
  const chart = openChart.isSketch ? null : kept.chart
  const text = chart ? null : textHere(address, kept).text
  const id = addRow('lines', {
    name: draftName(address, openChart),
    chartId: chart?.id ?? null,
    text,
    line: { notes: namedNotes(draft.line) },
    played: null,
    ...{ tags: [], disputed: null, routeId: kept.route?.id ?? null },
  })
  go({ line: id, note: 0, make: 'off', ...(chart ? {} : { sketch: null }) })
  void sayKept('lines', id)
}
