import { asserts, elements, MusicXML } from '@stringsync/musicxml'
import type { Measure, Score } from 'musicxml-io'
import type { Piece, PieceBar, WrittenNote } from './pieces.ts'

const LETTERS = 'CDEFGAB'
const DIVISIONS = 960
const ACCIDENTALS = ['flat', 'natural', 'sharp'] as const

const noteOf = (n: WrittenNote, tied: boolean) => ({
  ...{ _id: '', type: 'note' as const, duration: n.for, voice: '1', noteType: n.value },
  ...(n.dots ? { dots: n.dots } : {}),
  ...(n.triplet ? { timeModification: { actualNotes: 3, normalNotes: 2 } } : {}),
  ...(n.pitch
    ? {
        pitch: {
          step: LETTERS.charAt(n.pitch.letter) as 'C',
          octave: n.pitch.octave,
          ...(n.pitch.alter ? { alter: n.pitch.alter } : {}),
        },
      }
    : { rest: {} }),
  ...(n.pitch && !tied ? { accidental: { value: ACCIDENTALS[n.pitch.alter + 1] as 'flat' } } : {}),
  ...(n.tie || tied
    ? {
        ties: [...(tied ? [{ type: 'stop' as const }] : []), ...(n.tie ? [{ type: 'start' as const }] : [])],
      }
    : {}),
  notations: [
    ...(tied ? [{ type: 'tied' as const, tiedType: 'stop' as const }] : []),
    ...(n.tie ? [{ type: 'tied' as const, tiedType: 'start' as const }] : []),
    ...(n.triplet === 'start' ? [{ type: 'tuplet' as const, tupletType: 'start' as const }] : []),
    ...(n.triplet === 'stop' ? [{ type: 'tuplet' as const, tupletType: 'stop' as const }] : []),
  ],
})

const barlinesOf = ({ opens, closes, ending }: PieceBar): Measure['barlines'] => [
  ...(opens || ending
    ? [
        {
          ...{ _id: '', location: 'left' as const },
          ...(ending ? { ending: { number: String(ending), type: 'start' as const } } : {}),
          ...(opens ? { repeat: { direction: 'forward' as const } } : {}),
        },
      ]
    : []),
  ...(closes || ending
    ? [
        {
          ...{ _id: '', location: 'right' as const },
          ...(ending
            ? { ending: { number: String(ending), type: closes ? ('stop' as const) : ('discontinue' as const) } }
            : {}),
          ...(closes ? { repeat: { direction: 'backward' as const } } : {}),
        },
      ]
    : []),
]

/** A piece as one package models it. */
export const scoreOf = ({ bars }: Piece): Score => ({
  ...{ _id: '', metadata: { workTitle: 'Made by hand' } },
  partList: [{ _id: '', type: 'score-part', id: 'P1', name: 'Flute' }],
  parts: [
    {
      ...{ _id: '', id: 'P1' },
      measures: bars.map((bar, i): Measure => {
        const before = bars[i - 1]
        const isNew = !before || before.metre !== bar.metre || before.fifths !== bar.fifths
        return {
          ...{ _id: '', number: String(i + 1), barlines: barlinesOf(bar) ?? [] },
          ...(isNew
            ? {
                attributes: {
                  ...(before ? {} : { divisions: DIVISIONS, clef: [{ sign: 'G' as const, line: 2 }] }),
                  time: { beats: String(bar.metre.beats), beatType: bar.metre.unit },
                  key: { fifths: bar.fifths, mode: 'major' as const },
                },
              }
            : {}),
          entries: [
            {
              _id: '',
              type: 'harmony',
              root: { rootStep: bar.chord.root },
              kind: bar.chord.kind,
              kindText: bar.chord.suffix,
            },
            ...bar.notes.map((n, k) => noteOf(n, bar.notes[k - 1]?.tie === true)),
          ],
        }
      }),
    },
  ],
})

const { Note, Pitch, Step, Octave, Alter, Duration, Rest, Tie } = elements

const tiesOf = (n: WrittenNote, tied: boolean): [] | [elements.Tie] | [elements.Tie, elements.Tie] => {
  const stop = new Tie({ attributes: { type: 'stop' } })
  const start = new Tie({ attributes: { type: 'start' } })
  if (tied && n.tie) return [stop, start]
  return tied ? [stop] : n.tie ? [start] : []
}

const elementOf = (n: WrittenNote, tied: boolean): elements.Note => {
  const sound = n.pitch
    ? new Pitch({
        contents: [
          new Step({ contents: [LETTERS.charAt(n.pitch.letter) as 'C'] }),
          n.pitch.alter ? new Alter({ contents: [n.pitch.alter] }) : null,
          new Octave({ contents: [n.pitch.octave] }),
        ],
      })
    : new Rest()
  const duration = new Duration({ contents: [n.for / 4] })
  return new Note().setVariation([null, sound, duration, tiesOf(n, tied)])
}

/** The notes of a piece once through, put together element by element with another package. */
export const scoreOfElements = ({ bars }: Piece): string => {
  const score = MusicXML.createPartwise()
  const root = score.getRoot()
  asserts.isScorePartwise(root)
  const divisions = new elements.Attributes()
  divisions.setDivisions(new elements.Divisions({ contents: [DIVISIONS / 4] }))
  const measures = bars.map(
    (bar, i) =>
      new elements.MeasurePartwise({
        attributes: { number: String(i + 1) },
        contents: [
          [...(i === 0 ? [divisions] : []), ...bar.notes.map((n, k) => elementOf(n, bar.notes[k - 1]?.tie === true))],
        ],
      }),
  )
  root.setParts([new elements.PartPartwise({ attributes: { id: 'P1' }, contents: [measures] })])
  return score.serialize()
}
