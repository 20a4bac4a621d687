import type { Weights } from '../reading/weights.ts'
import type { Timeline } from '../time/timeline.ts'
import { groundOf } from './cell-ground.ts'
import { cellsIn, otherShapes } from './cells.ts'
import { heardLine } from './heard.ts'
import { type ImpliedReading, impliedIn } from './implied.ts'
import { jobsOf } from './jobs.ts'
import type { Line } from './line.ts'
import { figuresIn, melodicJobs } from './melodic.ts'
import { outsideStretches } from './outside.ts'
import { groupingsIn, sequencesIn } from './patterns.ts'
import type { Findings } from './verdict.ts'
import { leadingInCells, spelledByCells } from './within-cells.ts'

/** A line taken apart: what each note is and does, and what was found in it. */
export interface Audit extends Findings {
  readonly jobs: readonly string[]
  /** Ways to hear a piece, the shortest explanations and the chords implied; at most three for each piece. */
  readonly readings: readonly ImpliedReading[]
}

/** Bits as a score: 100 for the shortest explanation, half as likely for every two bits more. */
const scored = (bits: number, best: number): number => Math.round(100 * 2 ** (-(bits - best) / 2))

/** Takes a line apart over a chart. Pure. Source: theory page, section 9. */
export const auditLine = (line: Line, timeline: Timeline, weights: Weights): Audit => {
  const heard = heardLine(line, timeline, weights)
  const figures = figuresIn(heard, timeline)
  const first = melodicJobs(heard, figures, timeline)
  const sequences = sequencesIn(heard)
  const ground = groundOf(heard, figures, sequences, timeline)
  const cells = cellsIn(ground, figures, timeline)
  const melodic = leadingInCells(heard, first, cells)
  const notes = spelledByCells(heard, cells)
  const stretches = outsideStretches(notes, melodic, figures, timeline)
  const shapes = cells
    .filter((c) => c.overlay && c.how !== 'chord' && c.how !== 'home' && c.how !== 'pair')
    .flatMap((c) => {
      const all = otherShapes(ground, c.from, c.to)
      const best = all[0]?.bits ?? 0
      return all.map(
        (o): ImpliedReading => ({
          from: c.from,
          to: c.to,
          heard: o.overlay.name,
          why: `All of it is explained by ${o.overlay.name} in ${o.bits.toFixed(1)} bits.`,
          score: scored(o.bits, best),
        }),
      )
    })
  const pieces = [
    ...stretches.map((s) => [s.from, s.to] as const),
    ...cells.filter((c) => c.overlay && c.how !== 'home').map((c) => [c.from, c.to] as const),
  ]
  const implied = impliedIn(notes, pieces)
  const plainly = (heard: string): string => heard.replace(/ arpeggio$/, '')
  const heardOnce = new Map<string, ImpliedReading>()
  for (const r of [...implied, ...shapes]) {
    const key = `${r.from} ${r.to} ${plainly(r.heard)}`
    if (!heardOnce.has(key)) heardOnce.set(key, r)
  }
  return {
    notes,
    figures,
    melodic,
    cells,
    stretches,
    sequences,
    groupings: groupingsIn(notes, timeline),
    timeline,
    jobs: jobsOf(notes, melodic, cells),
    readings: [...heardOnce.values()].sort((a, b) => a.from - b.from || b.score - a.score),
  }
}
