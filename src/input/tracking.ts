/** One look at the sound: when it ended, in ms; half its length, by which a pitch is heard late; the pitch in hertz and how clear it is, 0..1; loudness 0..1. */
export interface Frame {
  readonly at: number
  readonly lag: number
  readonly hz: number
  readonly clarity: number
  readonly level: number
}

/** What is listened for: the lowest and highest note as MIDI numbers, the tuning of A in hertz, and the gate of loudness. */
export interface Listening {
  readonly lowest: number
  readonly highest: number
  readonly tuning: number
  readonly gate: number
}
export const USUAL_LISTENING: Listening = { lowest: 28, highest: 96, tuning: 440, gate: 0.008 }

/** A note as it begins or ends. `at` in ms, `velocity` 0..1. */
export interface Heard {
  readonly kind: 'on' | 'off'
  readonly pitch: number
  readonly at: number
  readonly velocity: number
}

/** A note opens on a clear pitch and lasts as long as it is half clear. */
const CLEAR = { opens: 0.88, lasts: 0.8 } as const
/** A pitch must be heard so long before it is a note, ms; a note that is gone so long has ended. */
const SURE_MS = 34
const GONE_MS = 50
/** A stroke: loudness rises to so many times the least of so many ms before; strokes lie so far apart. */
const STROKE = { by: 1.5, within: 36, apart: 70 } as const
/** A pitch is told so many ms after its stroke at the latest: strings of low instruments speak slowly. */
const SPEAKS = { low: 440, other: 320, below: 45 } as const
/** A rise has begun where so much of it is done. */
const RISEN = 0.12
/** Semitones from the middle of a note that still are that note. */
const WITHIN = 0.6
const REMEMBERED_MS = 80

export const midiOf = (hz: number, tuning: number): number => 69 + 12 * Math.log2(hz / tuning)

interface Sounding {
  readonly pitch: number
  readonly since: number
  heardAt: number
}

interface Stroke {
  readonly at: number
  used: boolean
}

/**
 * Hears notes in the frames of one voice. Loudness and clarity open it; a note begins with its stroke where there is one,
 * else where its pitch came; a stroke within one pitch is the same note again; an octave over a note that still sounds,
 * without a stroke, is its overtone.
 */
export const noteTracker = ({ lowest, highest, tuning, gate }: Listening) => {
  const speaks = lowest < SPEAKS.below ? SPEAKS.low : SPEAKS.other
  let sounding: Sounding | null = null
  let coming: { readonly pitch: number; readonly since: number } | null = null
  let stroke: Stroke | null = null
  let recent: readonly Frame[] = []

  const ended = (at: number): readonly Heard[] => {
    if (!sounding) return []
    const { pitch, since } = sounding
    sounding = null
    return [{ kind: 'off', pitch, at: Math.max(at, since), velocity: 0 }]
  }
  const begun = (pitch: number, since: number, f: Frame): readonly Heard[] => {
    const before = ended(since)
    sounding = { pitch, since: Math.max(since, before[0]?.at ?? since), heardAt: f.at }
    if (stroke) stroke.used = true
    coming = null
    return [...before, { kind: 'on', pitch, at: sounding.since, velocity: Math.min(1, Math.sqrt(f.level) * 1.6) }]
  }
  /** Whether a stroke fell, and when its rise began. */
  const strokeIn = (f: Frame): void => {
    const near = recent.filter((r) => r.at >= f.at - STROKE.within)
    const least = Math.min(...near.map((r) => r.level))
    if (near.length < 3 || f.level < gate * 1.5 || f.level < least * STROKE.by) return
    if (stroke && f.at - stroke.at < (stroke.used || speaks < SPEAKS.low ? STROKE.apart : speaks * 0.6)) return
    const rise = near.find(
      (r, i) => i >= near.findIndex((x) => x.level === least) && r.level > least + (f.level - least) * RISEN,
    )
    stroke = { at: rise?.at ?? f.at, used: false }
  }
  const freshStroke = (from: number): number | null => (stroke && !stroke.used && stroke.at >= from ? stroke.at : null)

  return {
    hear: (f: Frame): readonly Heard[] => {
      recent = [...recent.filter((r) => r.at > f.at - REMEMBERED_MS), f]
      strokeIn(f)
      const exact = f.hz > 0 ? midiOf(f.hz, tuning) : 0
      const isClear = f.level >= gate && f.clarity >= CLEAR.lasts && exact >= lowest - 1 && exact <= highest + 1
      if (!isClear) {
        if (f.level < gate) coming = null
        const isOver = sounding && (f.level < gate || f.at - sounding.heardAt > GONE_MS)
        return isOver ? ended(f.at - (f.level < gate ? 0 : GONE_MS)) : []
      }
      if (sounding && Math.abs(exact - sounding.pitch) <= WITHIN) {
        sounding.heardAt = f.at
        coming = null
        const again = freshStroke(sounding.since + STROKE.apart)
        return again !== null && f.at >= again + f.lag + SURE_MS ? begun(sounding.pitch, again, f) : []
      }
      if (!coming || Math.abs(exact - coming.pitch) > WITHIN) coming = { pitch: Math.round(exact), since: f.at }
      if (f.at - coming.since < SURE_MS || f.clarity < CLEAR.opens) return []
      // As long as a look holds something of the note before, it may hear what neither is.
      if (stroke && !stroke.used && f.at < stroke.at + 2 * f.lag) return []
      const came = coming.since - f.lag
      const struck = freshStroke(Math.max((sounding?.since ?? Number.NEGATIVE_INFINITY) + 40, f.at - speaks))
      const isOvertone = sounding !== null && [12, 19, 24, -12].includes(coming.pitch - sounding.pitch)
      if (isOvertone && struck === null) return []
      return begun(coming.pitch, struck === null ? came : Math.min(struck, coming.since), f)
    },
    end: (at: number): readonly Heard[] => ended(at),
  }
}
