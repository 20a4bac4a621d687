/** The one door of the core. Nothing here knows a screen, a server or a clock. */

export { printQuestion, type Question, readQuestion } from './ask/question.ts'
export { transposeQuestion } from './ask/transpose-question.ts'
export { type BandPart, bandOver } from './band/band.ts'
export { groupsOf } from './band/groove.ts'
export { beatsOfBars, SWING_RANGE, type Swing, swingOf, swungNotes } from './band/swing.ts'
export { MOST, printCount } from './bounds.ts'
export { type AnalysedSpot, type Analysis, analyseChart } from './chart/analyse.ts'
export type { Chain } from './chart/chains.ts'
export {
  barTicks,
  beatOf,
  beatsOf,
  beatTicks,
  byBar,
  type Chart,
  changesOf,
  type Key,
  keyName,
  type Metre,
  metreName,
  newMetres,
  spotsOf,
  type WrittenBar,
} from './chart/chart.ts'
export { type Condensed, condense, expand } from './chart/condensed.ts'
export { type SpotInChart, spotsInChart } from './chart/context.ts'
export { FEELS, type Feel, feelOf, isFeel } from './chart/feel.ts'
export { type Jumps, playedOrder } from './chart/form.ts'
export { type Job, jobFromNext, jobName, PLAIN_JOBS, POINTING_JOBS, readJob } from './chart/job.ts'
export { lineAndColumn, mendedText, proposeMend, repeatEdits } from './chart/mend.ts'
export { type KeptOverride, type Override, overrideAt, readOverrides, sameBeat, splitChart } from './chart/overrides.ts'
export { printChart } from './chart/print-chart.ts'
export { type Checked, checkChart, HEADERS, readChart, readKey } from './chart/read-chart.ts'
export { readMetre } from './chart/read-metre.ts'
export { type Reharmonisation, reharmonisationsAt } from './chart/reharmonise.ts'
export {
  type Chord,
  degreeOver,
  guidesOf,
  type Harmony,
  heardOver,
  NO_CHORD,
  tonesOf,
  UNKNOWN_CHORD,
} from './chord/chord.ts'
export { chordNamed, foreignTo, type NamedChord, nameChord } from './chord/from-notes.ts'
export { readChord, readHarmony } from './chord/parse.ts'
export { USUAL_SPELLINGS as CHORD_SPELLINGS } from './chord/spellings.ts'
export { type Fingered, fingeringOf } from './fretboard/fingering.ts'
export { type Fret, fretsIn, LAST_FRET, POSITIONS, type Position, WHOLE_NECK } from './fretboard/frets.ts'
export { keysFingering } from './fretboard/keys-fingering.ts'
export { pickingOf, repeatingShape } from './fretboard/picking.ts'
export { readTuning, TUNINGS, type Tuning } from './fretboard/tuning.ts'
export { analyseLine, type LineAnalysis, type LineAsk } from './line/analyse-line.ts'
export { type Audit, auditLine } from './line/audit.ts'
export { displaceLine, holdNote, insertNote, moveNote, movePitch, removeNote } from './line/edit.ts'
export { pitchOnStaff, readEntry, writeEntry } from './line/entry.ts'
export { type HeardNote, heardLine } from './line/heard.ts'
export { type Line, type LineNote, lineOf, namedNotes, spelledAs } from './line/line.ts'
export { IN_TIME_OF, NOTE_VALUES, tupletsIn, type Written, writtenBar } from './line/notated.ts'
export { GRIDS, type Grid, type Played, quantised } from './line/quantise.ts'
export { disputeKey, type Sentence, verdictOf } from './line/verdict.ts'
export { APPROACH_NAMES, type ApproachName, BEFORES, type Before } from './make/approach.ts'
export { TERM_NAMES } from './make/costs.ts'
export {
  FIGURES,
  type Figure,
  ORDERS_OF_FOUR,
  ORDERS_OF_THREE,
  offsetsIn,
  readFigure,
} from './make/figures.ts'
export type { LaidFrom, MakePlan } from './make/ground.ts'
export { inKey, KEY_ORDER_NAMES, type KeyOrder, keysInOrder } from './make/keys.ts'
export { lickOver } from './make/lick.ts'
export { ADDS, type Draft, type MakeError, makeLines } from './make/make.ts'
export { placesIn } from './make/places.ts'
export {
  INVERSION_PATHS,
  type InversionPath,
  type LandingWay,
  LINE_PATHS,
  type LinePath,
  type MakeRequest,
  TRIAD_ORDERS,
  type TriadOrder,
} from './make/request.ts'
export {
  meetsAfter,
  type Rhythm,
  readRest,
  startTicks,
  VALUE_NAMES,
  VALUES,
  type ValueName,
} from './make/rhythm.ts'
export { type Serving, servingsOf } from './make/serving.ts'
export { speakingOf } from './make/speaking.ts'
export { studyOf } from './make/study.ts'
export { type LaidSpan, lineThrough } from './make/through.ts'
export { type Variant, type Variation, varyLine } from './make/vary.ts'
export { DIRECTIONS, type Direction, namedTowards } from './material/direction.ts'
export { MATERIALS, nameOn } from './material/material.ts'
export { type Names, nameSet, namesOf } from './material/naming.ts'
export { type Overlay, slipOverlay } from './material/overlay.ts'
export { readOverlay } from './material/read-overlay.ts'
export { type Derivation, derivePairs, type Group, type Omission, ownSymbol } from './pairs/derive.ts'
export { type MapCell, PAIR_DISTANCES, PAIR_QUALITIES, pairMap } from './pairs/map.ts'
export { parentsOf } from './pairs/parents.ts'
export {
  INVERSIONS,
  inOrderOf,
  inversionPath,
  ORDERS,
  PATHS,
  type PathKind,
  pairPath,
  type Voiced,
} from './pairs/shapes.ts'
export { inTwelveKeys } from './pairs/twelve.ts'
export { degree, isDegree } from './pitch/degree.ts'
export { toAscii, toGlyphs } from './pitch/glyphs.ts'
export { COMPASS_IDS, COMPASSES, type CompassId, compass } from './pitch/horns.ts'
export { INSTRUMENTS, type Instrument, type InstrumentId, instrument } from './pitch/instrument.ts'
export { type Note, noteOn, plainNote, readNote } from './pitch/note.ts'
export { has, rotate, setOf, sizeOf, union } from './pitch/pcset.ts'
export { type Pitch, pitchNamed, pitchOn, upwards } from './pitch/register.ts'
export { chordInterval, type Interval, reverse, UNISON, writtenRoot } from './pitch/transpose.ts'
export {
  type Midi,
  midi,
  type PcSet,
  type PitchClass,
  pitchClass,
  TICKS_PER_QUARTER,
  type Ticks,
  ticks,
} from './pitch/units.ts'
export { type Card, cardsOf } from './practice/cards.ts'
export { type Confusion, confusionsIn, type Day, daysOf, tempoCourse } from './practice/course.ts'
export { type Covered, coverageOf } from './practice/coverage.ts'
export {
  familyOf,
  ITEM_KEY_ORDERS,
  type ItemKeys,
  type ItemOf,
  keysOfItem,
  PRACTICE_FAMILIES,
  type PracticeFamily,
  type PracticeItem,
  plainKey,
  type Rest,
  type TempoLadder,
  TWELVE_KEYS,
  USUAL_LADDER,
} from './practice/items.ts'
export {
  type Answered,
  DAY_MS,
  GRADES,
  type Grade,
  LOG_KINDS,
  type LogEntry,
  type LogKind,
} from './practice/log.ts'
export type { Memory, MemoryModel } from './practice/memory.ts'
export { OUTSIDE_NAMES, OUTSIDE_SOURCES } from './practice/outsides.ts'
export {
  QUIZ_KIND_NAMES,
  QUIZ_TOPIC_NAMES,
  type QuizKind,
  type QuizQuestion,
  quizKinds,
  quizOf,
  quizQuestion,
} from './practice/quiz.ts'
export { type Round, roundAt } from './practice/rounds.ts'
export {
  type Cue,
  heardIn,
  type RoundVariant,
  type Sources,
  type Stage,
  type StageSettings,
  stageOf,
} from './practice/stage.ts'
export { type Block, BREAK_AFTER, todayList } from './practice/today.ts'
export {
  type Candidate,
  candidatesOver,
  FAMILY_NAMES,
  type FamilyName,
  PENTATONIC_NAMINGS,
  type PentatonicNaming,
  withoutDoubles,
} from './reading/candidates.ts'
export { changesSentence, schoolEffects } from './reading/changes.ts'
export { chordToneModes, rootlessNinth } from './reading/chord-tones.ts'
export { compareSets, furtherOut, notesIn, triadOf } from './reading/compare.ts'
export { type Escape, escapesFrom, type Filter } from './reading/conflicts.ts'
export { type Exit, TARGET_KINDS, targetsOf } from './reading/exits.ts'
export { homeName, homeOverlay, homeReason } from './reading/home.ts'
export { keyDistance } from './reading/key-distance.ts'
export { bestLanding, type LaidBar, type LaidChart, layInAllKeys, nearestFade } from './reading/laid-chart.ts'
export { type Mend, mendsOf } from './reading/mends.ts'
export {
  ANYTHING,
  type OverlayFilter,
  type PairFilter,
  type Ranked,
  rankCandidates,
  rankOverlays,
  rankPairs,
  SORTS,
} from './reading/rank.ts'
export { type NoteReading, placeOf, placeWithHome, type Reading, readOver } from './reading/read.ts'
export type { Place } from './reading/role.ts'
export { roughnessOver, topOf, voicingOf } from './reading/roughness.ts'
export { DEFAULT_SCHOOL, SCHOOL_CHOICES, type School, type SchoolSetting } from './reading/school.ts'
export { directionBetween, seamBetween } from './reading/seam.ts'
export { landingSentence, listed, noteSentence, readingSentence, statesSentence } from './reading/sentence.ts'
export { disagreements, type Served, servesOver, tensionEffects } from './reading/serves.ts'
export { STACKS, stacksOf } from './reading/stacks.ts'
export { stretchesOf } from './reading/stretches.ts'
export { DEFAULT_WEIGHTS, type Weights } from './reading/weights.ts'
export { whyOf } from './reading/why.ts'
export { fail, ok, type Result, type TextError } from './result.ts'
export { ARC_NAMES, ARC_PRESETS, type ArcPreset, arcOf } from './route/arcs.ts'
export { deviceName, deviceOver } from './route/device.ts'
export { inPieces } from './route/in-pieces.ts'
export { type Joint, jointBetween, turnsOf, type Way } from './route/join.ts'
export { barsChanged, handLaid, laidAt, layChain, layStep, markByHand, stepAt } from './route/laid.ts'
export { type Giving, type Loosening, loosen } from './route/loosen.ts'
export { rulesOver, type WishedFade } from './route/options.ts'
export { carriedBy, usedIn } from './route/overuse.ts'
export { planRoutes } from './route/plan.ts'
export type { Ground, RecipePlace } from './route/recipe.ts'
export { RECIPE_NAMES, type RecipeName, recipesIn } from './route/recipes.ts'
export { describeRoutes, type KeptStep, type RouteReport, stepLine } from './route/report.ts'
export { giveWayIn, PLAIN_REQUEST, type RouteRequest, readRequest, withPlaces } from './route/request.ts'
export { MOTION_SCOPES, ROUTE_FAMILIES, type RouteRules } from './route/rules.ts'
export { type At, type Slot, SPOT_BY_SPOT, sameAt, slotsOf, spotStart } from './route/slots.ts'
export { PAIRS_TRIED } from './route/step-candidates.ts'
export { sharedStart } from './route/titles.ts'
export { type Contents, contentsOf } from './symmetry/contents.ts'
export { dominantsBehind, type StoodFor } from './symmetry/dominants.ts'
export { holdsDiminished, repeatsOf, transpositionsOf } from './symmetry/transpositions.ts'
export { clockReader } from './take/clock.ts'
export { figuresOf } from './take/figures.ts'
export { TIDY } from './take/manner.ts'
export type { PlanStep } from './take/plan.ts'
export { msPerTick, oneVoice, type PlayedNote, TOGETHER_MS } from './take/played.ts'
export type { TakeReading } from './take/read-take.ts'
export { PLANTED, type Planted, simulatedTake } from './take/simulated.ts'
export { formOf, inChart, type KeptPlan, planIn, planOver, readTakeOver, type TakeValues } from './take/take-over.ts'
export { TAKE_ABOUTS, type TakeSentence } from './take/take-words.ts'
export { barsAt, momentOf, type Span, spanOfBars } from './time/bars.ts'
export { lastBegun } from './time/last-begun.ts'
export { loopedFrom, loopedTimeline } from './time/looped.ts'
export { barRound, soundingAt, type Timeline, timelineOf } from './time/timeline.ts'
export { transposeChart, transposeChartText, transposeJob, transposeOverride } from './transpose/chart.ts'
export { transposeChord, transposeHarmony, transposeOverlay } from './transpose/chord.ts'
export { readTune, type Tune, tuneOf } from './tune.ts'
