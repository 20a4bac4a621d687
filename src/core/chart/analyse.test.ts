import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { transposeChart } from '../transpose/chart.ts'
import { analyseChart } from './analyse.ts'
import { keyName } from './chart.ts'
import { jobName, readJob } from './job.ts'
import { readChart } from './read-chart.ts'

const chart = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const analysis = (text: string, repeats = true) => analyseChart(chart(text), repeats)
const jobsOf = (text: string, repeats = true) =>
  analysis(text, repeats).spots.map((s) => `${s.spot.bar} ${s.spot.chord.symbol}: ${s.job ? jobName(s.job) : '-'}`)
const said = (text: string, where: string, repeats = true) =>
  jobsOf(text, repeats)
    .find((j) => j.startsWith(`${where}:`))
    ?.slice(where.length + 2)

const BLUES = '| F7 | Bb7 | F7 | F7 | Bb7 | Bdim7 | F7 | D7b9 | Gm7 | C7 | F7 D7 | Gm7 C7 |'
const SLIPPING = '| Cmaj7 | Em7 A7 | Ebm7 Ab7 | Dm7 G7 | Cmaj7 |'

describe('what each chord does', () => {
  it.each<[what: string, text: string, where: string, job: string]>([
    ['a blues, bar 3 is at rest', BLUES, '3 F7', 'blues I'],
    ['a blues, bar 4 is still its I', BLUES, '4 F7', 'blues I'],
    ['its IV', BLUES, '2 Bb7', 'blues IV'],
    ['its VI leads to the ii', BLUES, '8 D7(b9)', 'V of Gm'],
    ['a leading diminished', '| Cmaj7 | C#dim7 | Dm7 | G7 |', '2 C#dim7', 'vii of Dm'],
    ['a rising passing diminished', '| Fmaj7 | F#dim7 | C/G | G7 |', '2 F#dim7', 'passing diminished to C'],
    ['a falling one', '| Em7 | Ebdim7 | Dm7 | G7 |', '2 Ebdim7', 'passing diminished to Dm'],
    ['a tonic diminished', '| Cdim7 | Cmaj7 | Dm7 | G7 |', '1 Cdim7', 'common-tone diminished'],
    ['a diminished that returns', '| G7 | Adim7 | G7 | Cmaj7 |', '2 Adim7', 'auxiliary diminished'],
    ['the back door', '| Cmaj7 | Fm7 Bb7 | Cmaj7 | G7 |', '2 Bb7', 'backdoor V of C'],
    ['the minor chord before it', '| Cmaj7 | Fm7 Bb7 | Cmaj7 | G7 |', '2 Fm7', 'borrowed'],
    ['ii–Vs down by half steps', SLIPPING, '2 Em7', 'chromatic ii'],
    ['their dominants', SLIPPING, '3 Ab7', 'chromatic V'],
    ['but the last is home’s own', SLIPPING, '4 Dm7', 'ii of C'],
    ['a ii–V without its tonic', '| Cmaj7 | Abm7 Db7 | Dm7 G7 | Cmaj7 |', '2 Abm7', 'ii of Gb'],
    ['its dominant stays', '| Cmaj7 | Abm7 Db7 | Dm7 G7 | Cmaj7 |', '2 Db7', 'static dominant'],
    ['a cycle of dominants', '| E7 | A7 | D7 | G7 | Cmaj7 |', '2 A7', 'V of D'],
    ['a minor ii–V into major', '| Bm7b5 | E7b9 | Amaj7 | % |', '1 Bm7b5', 'ii of A'],
    ['a modal vamp', '| Dm9 | % | Em7 | Dm9 | % | % | % | Em7 |', '3 Em7', 'modal'],
    ['a tritone substitute with its ii', '| Ebm7 Ab7 | Gmaj7 | % | D7 |', '1 Ebm7', 'ii of substitute V of G'],
    ['that substitute', '| Ebm7 Ab7 | Gmaj7 | % | D7 |', '1 Ab7', 'substitute V of G'],
    ['a ii before a plain substitute', '| Dm7 | Db7 | Cmaj7 | % |', '1 Dm7', 'ii of C'],
    ['put off by the minor chord on its root', '| A7 | Am7 D7 | Gmaj7 | % |', '1 A7', 'delayed V of D'],
    ['a semitone down through a ii', '| F#m7 B7 | Fm7 Bb7 | Ebmaj7 | % |', '1 B7', 'chromatic V'],
    ['deceived', '| Cmaj7 | Dm7 G7 | Am7 | F6 G7 |', '2 G7', 'deceptive V of C'],
    ['deceived by the flat sixth', '| Cmaj7 | Dm7 G7 | Abmaj7 | G7 |', '2 G7', 'deceptive V of C'],
    ['a ii–V that swings', '| Dm7 G7 | Dm7 G7 |', '1 G7', 'static dominant'],
    ['a suspension that opens', '| F#7sus4 | F#7 | Bmaj7 | % |', '1 F#7sus4', 'V of B'],
    ['a chord held over N.C.', '| G7 | N.C. | Cmaj7 | Dm7 |', '1 G7', 'V of C'],
    ['the fourth', '| Cmaj7 | Fmaj7 | Dm7 G7 | Cmaj7 |', '2 Fmaj7', 'subdominant'],
    ['a minor fourth', '| Cmaj7 | Fmaj7 | Fm6 | Cmaj7 G7 |', '3 Fm6', 'borrowed'],
    ['minor at rest', 'key = C minor\n| Cm6 | Fm7 | Dm7b5 G7 | Cm6 |', '1 Cm6', 'tonic'],
    ['nothing sounds', '| C | N.C. |', '2 N.C.', 'no chord'],
  ])('%s', (_, text, where, job) => {
    expect(said(text, where)).toBe(job)
  })
  it('leaves open what the last dominant of a sketch does', () => {
    expect(jobsOf('| Dm7 | G7 |', false)).toEqual(['1 Dm7: ii of C', '2 G7: -'])
  })
})

describe('keys and chains', () => {
  it.each([
    ['| Dm7 G7 | Cmaj7 | Am7 D7 | Dm7 G7 | Cmaj7 | Dm7 G7 |', 'C major'],
    ['| Em7b5 A7 | Dm6 | Gm7 | A7 |', 'D minor'],
    [BLUES, 'F major'],
    ['| Gbmaj7 | Cb13 |', 'Gb major'],
    ['key = Eb\n| Dm7 G7 | Cmaj7 |', 'Eb major'],
  ])('%s is in %s', (text, key) => {
    expect(keyName(analysis(text).key)).toBe(key)
  })
  it('hears the two foreign keys of the 32-bar form, and comes back', () => {
    const text = readFileSync(new URL('../../../demo/charts/1-pier-eleven.txt', import.meta.url), 'utf8')
    const keys = analysis(text).spots.map((s) => [s.spot.bar, s.key && keyName(s.key)])
    for (const [bar, key] of [
      [2, 'E major'],
      [11, 'G major'],
      [14, 'E major'],
      [16, 'Ab major'],
      [25, 'E major'],
    ])
      expect(keys).toContainEqual([bar, key])
  })
  it.each([
    [SLIPPING, ['chromatic ii-Vs 2–4 C', 'ii-V-I 4–5 C']],
    ['| Dm7 G7 | Dm7 G7 | Dm7 G7 |', ['static ii-V 1–3 null']],
    ['| E7 | A7 | D7 | G7 | Cmaj7 |', ['cycle of dominants 1–4 C']],
    ['| Cmaj7 | Abm7 Db7 | Dm7 G7 | Cmaj7 |', ['ii-V without its tonic 2–2 Gb', 'ii-V-I 3–4 C']],
    ['| Fm7 Bb7 | Cmaj7 | % | G7 |', ['backdoor 1–2 C']],
  ])('%s', (text, expected) => {
    const found = analysis(text).chains.map(
      (c) => `${c.kind} ${c.from.spots[0]?.spot.bar}–${c.to.spots[0]?.spot.bar} ${c.target}`,
    )
    expect(found).toEqual(expected)
  })
  it('lets the player’s job win', () => {
    const mine = analyseChart(chart('| Dm7 | G7 | Cmaj7 |'), true, [
      { bar: 2, beat: 1, job: { kind: 'substitute V', of: 'F#', minor: false } },
    ])
    expect([mine.spots[1]?.job, mine.spots[1]?.yours]).toEqual([readJob('substitute V of F#'), true])
  })
})

const symbol = fc
  .tuple(
    fc.constantFrom('C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'),
    fc.constantFrom('maj7', 'm7', '7', 'm7b5', 'dim7', '7sus4', 'm6', '+', '', '7alt', '6/9'),
  )
  .map(([r, q]) => r + q)

describe('any chart', () => {
  it('has a job, a key and a reason for every chord, and names that read back', () => {
    fc.assert(
      fc.property(fc.array(symbol, { minLength: 1, maxLength: 24 }), (chords) => {
        for (const s of analysis(`| ${chords.join(' | ')} |`).spots) {
          expect(s.job && readJob(jobName(s.job))?.kind).toBe(s.job?.kind)
          expect(s.reason.length).toBeGreaterThan(8)
          expect(s.key).not.toBeNull()
        }
      }),
      { numRuns: 400, seed: 3 },
    )
  })
  it('is heard the same in every key', () => {
    const kinds = (text: string, semitones: number, letters: number) =>
      analyseChart(transposeChart(chart(text), { semitones, letters }), true).spots.map((s) => [
        s.job?.kind,
        s.degree,
        s.key?.mode,
        s.resolves,
      ])
    const files = readdirSync(new URL('../../../demo/charts/', import.meta.url))
    for (const f of files) {
      const text = readFileSync(new URL(`../../../demo/charts/${f}`, import.meta.url), 'utf8')
      for (const [semitones, letters] of [
        [2, 1],
        [5, 3],
        [6, 3],
        [-3, -2],
      ] as const)
        expect(kinds(text, semitones, letters)).toEqual(kinds(text, 0, 0))
    }
  })
})
