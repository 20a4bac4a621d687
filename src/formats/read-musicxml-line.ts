import { pitchOn, type Result, readNote } from '../core/index.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'
import { alterSign } from './musicxml-chords.ts'
import { type BarNote, gracesLeftOut, playedNotes, type VoiceBar } from './played-bars.ts'
import { lineOfVoices, type ReadLine, type VoiceNotes } from './voices.ts'
import {
  all,
  attribute,
  jumpsIn,
  type Node,
  nameOf,
  number,
  one,
  repeatsOf,
  scoreIn,
  shiftOf,
  text,
  walkMeasure,
} from './xml.ts'

/** A voice as a part tells it: the staff it stands on and its name there. */
const voiceOf = (note: Node): string => `${text(note, 'staff') || '1'} ${text(note, 'voice') || '1'}`

interface Part {
  /** The bars of each voice; all are as many. */
  readonly voices: ReadonlyMap<string, readonly VoiceBar[]>
  readonly graces: number
}

const pitchOf = (note: Node, shift: number): Pick<BarNote, 'pitch' | 'note'> | null => {
  const pitch = one(note, 'pitch')
  const read = pitch && readNote(text(pitch, 'step') + alterSign(number(text(pitch, 'alter'))), 0)
  if (!read?.ok) return null
  const { pitch: sounding } = pitchOn(read.value.note, number(text(pitch, 'octave')))
  return { pitch: sounding + shift, ...(shift % 12 === 0 ? { note: read.value.note } : {}) }
}

/** One part bar by bar, each of its voices for itself. */
const readPart = (part: Node): Part => {
  const { semitones } = shiftOf(part)
  const octaves = all(part, 'measure')
    .flatMap((m) => all(m, 'attributes'))
    .map((a) => number(text(a, 'transpose', 'octave-change')))
    .find((n) => n !== 0)
  const shift = semitones + 12 * (octaves ?? 0)
  const measures: { readonly bar: Omit<VoiceBar, 'notes'>; readonly notes: Map<string, BarNote[]> }[] = []
  const names = new Set<string>()
  let [divisions, graces] = [1, 0]
  const jumps = jumpsIn(all(part, 'measure'))
  for (const [i, measure] of all(part, 'measure').entries()) {
    const notes = new Map<string, BarNote[]>()
    const walked = walkMeasure(measure, divisions, (node, at, ticksIn) => {
      if (nameOf(node) !== 'note') return
      if (one(node, 'grace')) graces++
      const pitch = pitchOf(node, shift)
      if (!pitch || one(node, 'grace') || one(node, 'cue')) return
      const tied = all(node, 'tie').some((t) => attribute(t, 'type') === 'stop')
      const voice = voiceOf(node)
      names.add(voice)
      const own = notes.get(voice) ?? []
      own.push({ at, for: ticksIn('duration'), ...pitch, tied })
      notes.set(voice, own)
    })
    divisions = walked.divisions
    measures.push({ bar: { ...repeatsOf(measure), jumps: jumps[i], length: walked.length }, notes })
  }
  const of = (voice: string) => measures.map(({ bar, notes }): VoiceBar => ({ ...bar, notes: notes.get(voice) ?? [] }))
  return { voices: new Map([...names].sort().map((name) => [name, of(name)])), graces }
}

/** Parts by their ids, with the names the score gives them. */
const namesIn = (score: Node): ReadonlyMap<string, string> =>
  new Map(
    all(one(score, 'part-list'), 'score-part').map((p) => [
      attribute(p, 'id') ?? '',
      text(p, 'part-name').replace(/\s+/g, ' ').slice(0, 60),
    ]),
  )

/** Reads the notes of a MusicXML score in concert pitch, repeats played out: the voice asked for, else the likeliest. */
export const readMusicXmlLine = (source: string, voice: number | null = null): Result<ReadLine, Refusal> => {
  const score = scoreIn(source)
  if (!score.ok) return score
  const names = namesIn(score.value)
  const voices = all(score.value, 'part').flatMap((node, track): readonly VoiceNotes[] => {
    const { voices: own, graces } = readPart(node)
    const name = names.get(attribute(node, 'id') ?? '') || `part ${track + 1}`
    return [...own].map(([, bars], i) => {
      const played = playedNotes(bars)
      const leftOut: readonly LeftOut[] = [...played.leftOut, ...gracesLeftOut(graces)]
      return {
        track,
        channel: i + 1,
        name: own.size > 1 ? `${name}, voice ${i + 1}` : name,
        notes: played.notes,
        leftOut,
      }
    })
  })
  return voices.length === 0 ? refuse('The score has no notes.') : lineOfVoices(voices, voice)
}
