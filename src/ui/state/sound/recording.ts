import { atom } from 'nanostores'
import { msPerTick, type PlayedNote } from '../../../core/index.ts'
import type { Instrument, Listener, NoteIn } from '../../../input/notes.ts'
import { $address, go } from '../address/address.ts'
import { openRow } from '../kept/opening.ts'
import { addRow, changeRow, flushRow, removeRow, standingOf } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { playingInNow } from '../takes/manner.ts'
import { $playedNow, showPlayed } from './now-played.ts'
import { $playing, scoreNow, startBand, stopPlaying } from './playing.ts'
import { takeFields } from './take-fields.ts'
import { dropHeldTake, heldTake, partSender } from './take-parts.ts'
import { openSource } from './take-source.ts'

/** A take as it is played: how many notes there are, and whether all of them are kept. */
export interface Recording {
  readonly id: string
  readonly state: 'opening' | 'running' | 'ending'
  readonly device: string
  readonly notes: number
  readonly isKept: boolean
  readonly since: number
}
export const $recording = atom<Recording | null>(null)
/** How loud the microphone is, 0..1, and the note it hears. */
export const $level = atom<{ readonly level: number; readonly heard: number | null } | null>(null)

/** So often a part is sent; an hour is the longest take. */
const PART_MS = 2000
const LONGEST_MS = 3_600_000
/** What is played up to so many beats before the first one belongs to the take. */
const EARLY_BEATS = 0.5

interface Running {
  readonly id: string
  readonly instrument: Instrument
  readonly ms: number
  readonly beat: number
  readonly firstBeat: () => number
  readonly sender: ReturnType<typeof partSender>
  readonly recorder: MediaRecorder | null
  readonly soundFrom: () => number
  readonly timers: readonly ReturnType<typeof setInterval>[]
  readonly stopWatching: () => void
}
let running: Running | null = null
let played: PlayedNote[] = []
let sentNotes = 0
let sounding = new Map<number, { readonly at: number; readonly velocity: number }>()
let begun = 0

/** Ticks from the first beat for a moment of the page's clock. */
const tickAt = ({ firstBeat, ms }: Running, at: number): number => (at - firstBeat()) / ms

const onNote = (note: NoteIn): void => {
  showPlayed(note)
  if (!running || $recording.get()?.state !== 'running') return
  if (note.kind === 'on') {
    endNote(note.pitch, note.at)
    if (tickAt(running, note.at) < -EARLY_BEATS * running.beat) return
    sounding.set(note.pitch, { at: note.at, velocity: note.velocity })
    const now = $recording.get()
    if (now) $recording.set({ ...now, notes: played.length + sounding.size })
  } else endNote(note.pitch, note.at)
}

const endNote = (pitch: number, at: number): void => {
  const begin = sounding.get(pitch)
  if (!begin || !running) return
  sounding.delete(pitch)
  const from = tickAt(running, begin.at)
  const length = Math.max(1, tickAt(running, at) - from)
  played.push({ at: hundredth(from), for: hundredth(length), pitch, velocity: hundredth(begin.velocity) })
}
const hundredth = (n: number): number => Math.round(n * 100) / 100

const TYPE = 'audio/webm;codecs=opus'
const BITS = 48_000

/** Keeps the sound beside the notes, where the browser can. */
const recorderOf = (stream: MediaStream | null, sender: Running['sender']): MediaRecorder | null => {
  if (!stream || typeof MediaRecorder === 'undefined' || !MediaRecorder.isTypeSupported(TYPE)) return null
  const recorder = new MediaRecorder(stream, { mimeType: TYPE, audioBitsPerSecond: BITS })
  recorder.ondataavailable = ({ data }) => sender.addSound(data)
  return recorder
}

/** Begins a take: the band counts in, and from then on what is played is kept. */
export const startTake = async (): Promise<void> => {
  if ($recording.get()) return
  const now = scoreNow({ kind: 'band' })
  const fields = now && takeFields(now.tune, now.score.tempo)
  if (!now || !fields) return say('Open a chart first: a take is played over one.')
  const mine = ++begun
  stopPlaying()
  played = []
  sentNotes = 0
  sounding = new Map()
  $recording.set({ id: '', state: 'opening', device: '', notes: 0, isKept: true, since: performance.now() })
  const { score, tune } = now
  const listener: Listener = {
    onNote,
    onLost: (why) => void endTake(`${why} The take ends there; what you played is kept.`),
    onLevel: (level, heard) => $level.set({ level, heard }),
  }
  const isSimulated = playingInNow().source === 'simulated'
  // An instrument is opened before the band begins: a browser may ask first.
  const early = isSimulated ? null : await openSource(null, listener)
  if (mine !== begun) return early?.ok ? early.instrument.stop() : undefined
  if (early && !early.ok) return endQuietly(early.why)
  await startBand()
  const [transport, { clockAhead }] = await Promise.all([
    import('../../../sound/transport.ts'),
    import('../../../sound/clock.ts'),
  ])
  const firstBeat = (): number => transport.firstBeatMs() - clockAhead()
  const ms = msPerTick(tune.timeline, score.tempo)
  const choruses = Math.max(1, Math.ceil(LONGEST_MS / ((score.span.to - score.span.from) * ms)))
  const playground = { tune, plan: fields.plan, bars: fields.bars, tempo: score.tempo, choruses }
  const opened = early ?? (await openSource({ ...playground, firstBeat }, listener))
  if (mine !== begun || !opened.ok || !$playing.get()) {
    if (opened.ok) opened.instrument.stop()
    if (mine !== begun) return
    return endQuietly(opened.ok ? 'The band did not begin, so there is no take.' : opened.why)
  }
  const { instrument } = opened
  const join = `take ${mine}`
  const id = addRow('takes', fields, join)
  void flushRow('takes', id)
  const sender = partSender(id, (isKept) => {
    const recording = $recording.get()
    if (recording && recording.isKept !== isKept) $recording.set({ ...recording, isKept })
  })
  const recorder = recorderOf(instrument.stream, sender)
  let startedAt = performance.now()
  if (recorder) {
    recorder.onstart = () => {
      startedAt = performance.now()
    }
    recorder.start(1000)
  }
  running = {
    ...{ id, instrument, ms, beat: tune.timeline.beat, firstBeat, sender, recorder },
    soundFrom: () => Math.round(startedAt - firstBeat()),
    timers: [setInterval(sendPart, PART_MS), setInterval(() => clockAhead(), 200)],
    stopWatching: watchPlace(),
  }
  $recording.set({
    ...{ id, state: 'running', device: instrument.name, notes: 0, isKept: true },
    since: performance.now(),
  })
}

const sendPart = (): void => {
  if (!running) return
  running.sender.addNotes(played.slice(sentNotes))
  sentNotes = played.length
  const recording = $recording.get()
  if (recording && performance.now() - recording.since > LONGEST_MS) void endTake('An hour is the longest take.')
}

/** A take is of one chart, one loop and one tempo; where those change, or the music stops, it ends. */
const watchPlace = (): (() => void) => {
  const of = (): string => {
    const place = $address.get()
    return JSON.stringify([place?.chart, place?.sketch, place?.loop, place?.tempo, place?.feel])
  }
  const first = of()
  const stopPlace = $address.listen(() => {
    if (of() !== first) void endTake('The chart, the bars or the tempo were changed: the take ends there.')
  })
  const stopMusic = $playing.listen((playing) => {
    if (!playing) void endTake()
  })
  return () => {
    stopPlace()
    stopMusic()
  }
}

const endQuietly = (why: string): void => {
  begun++
  $recording.set(null)
  $level.set(null)
  stopPlaying()
  say(why)
}

/** Ends the take and keeps it; one in which nothing was played is let go. */
export const endTake = async (why: string | null = null): Promise<void> => {
  const of = running
  const recording = $recording.get()
  if (!recording) return
  if (!of) return endQuietly('The take was stopped before it began.')
  const mine = ++begun
  const now = performance.now()
  of.instrument.stop()
  for (const pitch of [...sounding.keys()]) endNote(pitch, now)
  running = null
  for (const timer of of.timers) clearInterval(timer)
  of.stopWatching()
  $level.set(null)
  $playedNow.set(null)
  $recording.set({ ...recording, state: 'ending', notes: played.length })
  if ($playing.get()) stopPlaying()
  await stopped(of.recorder)
  const notes = played
  if (notes.length === 0 && !of.sender.hasSound()) {
    await removeRow('takes', of.id)
    $recording.set(null)
    return say(why ?? 'Nothing was played, so there is no take.')
  }
  changeRow('takes', of.id, { notes, open: false, soundFrom: of.soundFrom() }, { join: `take ${mine - 1}` })
  const isKept = await flushRow('takes', of.id)
  await of.sender.finished()
  if (isKept && of.recorder) await openRow('takes', of.id)
  $recording.set(null)
  go({ view: 'practice', practise: 'takes', take: of.id, otherTake: null })
  const count = `${notes.length} ${notes.length === 1 ? 'note' : 'notes'}`
  if (why) say(`${why} ${count}.`, isKept ? 'undo' : null)
  else
    say(
      isKept ? `The take is kept: ${count}.` : `${count}; not kept yet: the program is not answering.`,
      isKept ? 'undo' : null,
    )
}

const stopped = (recorder: MediaRecorder | null): Promise<void> =>
  new Promise((done) => {
    if (!recorder || recorder.state === 'inactive') return done()
    recorder.onstop = () => done()
    recorder.stop()
  })

export const recordOrStop = (): void => void ($recording.get() ? endTake() : startTake())

/** What an earlier visit held of a take that never came through is added to it. */
export const keepHeldTake = async (): Promise<void> => {
  const held = heldTake()
  if (!held || !Array.isArray(held.notes)) return
  await openRow('takes', held.id)
  const row = standingOf('takes', held.id)?.row
  dropHeldTake()
  if (!row || row.notes.length >= held.notes.length) return
  changeRow('takes', held.id, { notes: held.notes, open: false })
  if (await flushRow('takes', held.id)) say(`A take was cut off: ${row.name}. Its ${held.notes.length} notes are kept.`)
}
