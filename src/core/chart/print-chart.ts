import { barTicks, beatTicks, type Chart, keyName, type WrittenBar } from './chart.ts'

const BARS_IN_A_LINE = 4

const sameSpots = (a: WrittenBar, b: WrittenBar): boolean =>
  a.spots.length === b.spots.length &&
  a.spots.every((s, i) => s.chord.symbol === b.spots[i]?.chord.symbol && s.length === b.spots[i]?.length)

const beatsText = (beats: number): string => String(Math.round(beats * 1000) / 1000)

/** What stands between a bar's lines: `%` where it is as the one before. */
export const printBar = (bar: WrittenBar, before: WrittenBar | undefined, chart: Chart): string => {
  const { metre } = chart
  if (before && bar.spots.length > 0 && sameSpots(bar, before)) return '%'
  const whole = before ? barTicks(metre) : bar.spots.reduce((sum, s) => sum + s.length, 0)
  const isEven = bar.spots.every((s) => Math.abs(s.length - whole / bar.spots.length) <= 1)
  return bar.spots
    .map((s, i, all) => {
      const takesTheRest = isEven || i === all.length - 1
      return takesTheRest ? s.chord.symbol : `${s.chord.symbol}:${beatsText(s.length / beatTicks(metre))}`
    })
    .join(' ')
}

const endingText = (bar: WrittenBar): string => (bar.endings.length > 0 ? `${bar.endings.join(',')}. ` : '')

/** A chart as text that reads back to the same bars: four in a line, sections on lines of their own. */
export const printChart = (chart: Chart): string => {
  const { title, key, metre, tempo, pickup, feel, written } = chart
  const head = [
    `title = ${title}`,
    ...(key ? [`key = ${keyName(key)}`] : []),
    `metre = ${metre.beats}/${metre.unit}`,
    `tempo = ${tempo}`,
    ...(pickup > 0 ? [`pickup = ${pickup}`] : []),
    ...(feel ? [`feel = ${feel}`] : []),
  ]
  const lines: string[] = []
  let line = ''
  let count = 0
  const end = () => {
    if (line) lines.push(line)
    ;[line, count] = ['', 0]
  }
  for (const [i, bar] of written.entries()) {
    if (bar.section !== null) {
      end()
      lines.push('', `== ${bar.section}`)
    } else if (count === BARS_IN_A_LINE) end()
    if (bar.opens) line = line ? `${line.slice(0, -1)}|:` : '|:'
    else if (!line) line = '|'
    line += ` ${endingText(bar)}${printBar(bar, written[i - 1], chart)} ${bar.closes ? ':|' : '|'}`
    count++
  }
  end()
  return `${[...head, ...(lines[0] === '' ? [] : ['']), ...lines].join('\n')}\n`
}
