import type { Result } from '../core/index.ts'
import { abcMusic } from './abc-music.ts'
import { tunesIn } from './abc-tune.ts'
import type { Refusal } from './assemble.ts'
import { playedNotes } from './played-bars.ts'
import { lineOfVoices, type ReadLine } from './voices.ts'

/** Reads the notes of an ABC file as they sound: the voice asked for of all its tunes, else the likeliest of the first; repeats played out. */
export const readAbcLine = async (source: string, voice: number | null = null): Promise<Result<ReadLine, Refusal>> => {
  const tunes = await tunesIn(source)
  if (!tunes.ok) return tunes
  const isOne = tunes.value.length === 1
  const voices = tunes.value.flatMap((all, track) =>
    all.map(({ name, tune }, i) => {
      const { bars, leftOut } = abcMusic(tune)
      const played = playedNotes(bars)
      const title = isOne ? '' : (tune.metaText.title ?? `tune ${track + 1}`)
      return {
        ...{ track, channel: i + 1, name: [title, name].filter((w) => w !== '').join(': '), notes: played.notes },
        leftOut: [...leftOut.filter((l) => !l.what.startsWith('“')), ...played.leftOut],
      }
    }),
  )
  // Another tune is chosen, not guessed.
  return lineOfVoices(voices, voice, (v) => v.track === 0)
}
