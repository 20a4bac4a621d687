import {
  beatOf,
  beatsOf,
  byBar,
  type Chart,
  type Chord,
  type Contents,
  contentsOf,
  type Exit,
  guidesOf,
  type Harmony,
  homeName,
  homeReason,
  jobName,
  keyDistance,
  keyName,
  type Mend,
  mendsOf,
  type Names,
  type NoteReading,
  namesOf,
  type Overlay,
  type Reading,
  readingSentence,
  rotate,
  roughnessOver,
  type StoodFor,
  tonesOf,
  tuneOf,
  type Weights,
} from '../core/index.ts'

const exitAnswer = ({ to, degree, how, strength }: Exit) => ({ to: to.name, degree, how, strength })

const noteAnswer = (n: NoteReading) => ({
  name: n.note.name,
  heard: n.heard.name,
  degree: n.degree,
  role: n.role,
  inHome: n.inHome,
  stated: n.stated,
  denied: n.denied,
  root: n.root,
  guide: n.guide,
  rub: n.rub !== null,
  keptBack: n.keptBack,
  ...(n.blue ? { blue: true } : {}),
  fade: n.fade,
  exits: n.exits.map(exitAnswer),
})

const mendAnswer = (m: Mend) => ({
  change: { from: m.from.name, to: m.to.name },
  becomes: m.becomes.name,
  fade: m.fade,
})

const sameAs = (overlay: Overlay): readonly string[] =>
  namesOf(overlay.set, overlay)
    .map((o) => o.name)
    .filter((name) => name !== overlay.name)

const roughnessOf = (reading: Reading): number => {
  const over = roughnessOver(reading.place.chord)
  return Math.round(reading.notes.reduce((sum, n) => sum + (over[n.note.pc] ?? 0), 0) / reading.notes.length)
}

const pairAnswer = (reading: Reading) => {
  const { groups } = reading.overlay
  if (groups === null) return {}
  const degreeOf = (pc: number) => reading.notes.find((n) => n.note.pc === pc)?.degree ?? ''
  return {
    groups: groups.map((g) => ({ name: g.name, degrees: g.notes.map((n) => degreeOf(n.pc)) })),
    exclusive: (groups[0].set & groups[1].set) === 0,
  }
}

/** A reading in the interface's shape (docs: the HTTP contract, "Reading"). `chord` is what the player named. */
export const readingAnswer = (reading: Reading, chord: Chord, sounding: Chord | null, weights: Weights) => {
  const { place, overlay, worst } = reading
  const distance = keyDistance(rotate(place.home.first.set, place.chord.root.pc), overlay.set)
  return {
    question: {
      overlay: overlay.name,
      chord: chord.symbol,
      next: place.next?.symbol ?? null,
      job: place.job === null ? null : jobName(place.job),
    },
    home: {
      scale: homeName(place.home.first),
      reason: homeReason(place.chord, place.home, place.job),
      others: place.home.others.map(homeName),
    },
    notes: reading.notes.map(noteAnswer),
    fade: reading.fade,
    roughness: roughnessOf(reading),
    counts: reading.counts,
    worst: { name: worst.note.name, degree: worst.degree, fade: worst.fade },
    keyDistance: distance?.steps ?? null,
    keyNearest: distance?.nearest ?? false,
    commonTones: reading.commonTones.map((n) => n.name),
    guidesHeld: reading.guidesHeld,
    statesChord: reading.statesChord,
    landing: reading.landing,
    noExit: reading.noExit.map((n) => n.note.name),
    sounding: sounding?.symbol ?? null,
    mends: mendsOf(reading, weights).map(mendAnswer),
    same: sameAs(overlay),
    ...pairAnswer(reading),
    sentence: readingSentence(reading),
  }
}

/** A chord in the interface's shape. */
export const chordAnswer = (chord: Chord) => ({
  symbol: chord.symbol,
  root: chord.root.name,
  bass: chord.bass.name,
  family: chord.family,
  tones: tonesOf(chord).map((t) => ({ name: t.note.name, degree: t.degree, stated: t.stated })),
  guides: guidesOf(chord).map((n) => n.name),
})

/** A seventh arpeggio by its chord's symbol. */
const chordLike = (arpeggio: Overlay): string => arpeggio.name.replace(' arpeggio', '').replace(' dim', 'dim')

/** A chord, or a bar without one. */
export const harmonyAnswer = (harmony: Harmony) =>
  harmony.kind === 'chord'
    ? chordAnswer(harmony)
    : { symbol: harmony.symbol, root: null, bass: null, family: null, tones: [], guides: [] }

/** A material by itself. */
export const materialAnswer = (overlay: Overlay, contents: Contents = contentsOf(overlay)) => ({
  scale: overlay.name,
  notes: overlay.notes.map((n) => n.name),
  periodSemitones: contents.periodSemitones,
  distinct: contents.distinct,
  triads: contents.triads.map((t) => t.name),
  sevenths: contents.sevenths.map(chordLike),
  polychords: contents.polychords.map(
    ({ upper, lower }) => `${upper.name}|${'notes' in lower ? chordLike(lower) : lower.name}`,
  ),
})

/** A chart typed as a question: each chord with its place and its job as far as the next chord tells. */
export const chartAnswer = (chart: Chart, text: string) => {
  const { key, spots } = tuneOf(chart, [], { repeats: false }).analysis
  const inBars = byBar(spots)
  return {
    text,
    key: keyName(key),
    bars: chart.bars.map((bar) => ({
      number: bar.number,
      section: bar.section,
      chords: (inBars.get(bar.number) ?? []).map(({ spot, job }) => ({
        symbol: spot.chord.symbol,
        beat: beatOf(spot),
        beats: beatsOf(spot),
        job: job === null ? null : jobName(job),
      })),
    })),
  }
}

/** The dominants a diminished seventh stands for. */
export const dominantsAnswer = (behind: readonly StoodFor[]) => ({
  dominants: behind.map(({ dominant }) => `${dominant.root.name}7`),
  as: behind.map(({ dominant, bassDegree }) => ({ dominant: `${dominant.root.name}7b9`, bassDegree })),
})

/** The names of a set, best first. */
export const namesAnswer = ({ equal, within, holds }: Names) => ({
  equal: equal.map((o) => o.name),
  within: within.map((o) => o.name),
  holds: holds.map((o) => o.name),
})
