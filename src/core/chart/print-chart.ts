import { beatTicks, type Chart, changesOf, keyName, metreName, sameMetre, type WrittenBar } from './chart.ts'

const BARS_IN_A_LINE = 4

const sameSpots = (a: WrittenBar, b: WrittenBar): boolean =>
  sameMetre(a.metre, b.metre) &&
  a.spots.length === b.spots.length &&
  a.spots.every((s, i) => s.chord.symbol === b.spots[i]?.chord.symbol && s.length === b.spots[i]?.length)

const beatsText = (beats: number): string => String(Math.round(beats * 1000) / 1000)

/** What stands between a bar's lines: `%` where it is as the one before. */
export const printBar = (bar: WrittenBar, before?: WrittenBar): string => {
  if (before && bar.spots.length > 0 && sameSpots(bar, before)) return '%'
  const whole = bar.spots.reduce((sum, s) => sum + s.length, 0)
  const isEven = bar.spots.every((s) => Math.abs(s.length - whole / bar.spots.length) <= 1)
  return bar.spots
    .map((s, i, all) => {
      const takesTheRest = isEven || i === all.length - 1
      return takesTheRest ? s.chord.symbol : `${s.chord.symbol}:${beatsText(s.length / beatTicks(bar.metre))}`
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
    `metre = ${metreName(metre)}`,
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
    const before = written[i - 1]
    const { key: newKey, metre: newMetre } = changesOf(bar, before)
    if (bar.section !== null) {
      end()
      lines.push('', `== ${bar.section}`)
    } else if (count === BARS_IN_A_LINE || newKey) end()
    if (newKey) lines.push(`key = ${keyName(newKey)}`)
    if (bar.opens) line = line ? `${line.slice(0, -1)}|:` : '|:'
    else if (!line) line = '|'
    line += ` ${endingText(bar)}${newMetre ? `${metreName(newMetre)} ` : ''}${printBar(bar, before)} ${bar.closes ? ':|' : '|'}`
    count++
  }
  end()
  return `${[...head, ...(lines[0] === '' ? [] : ['']), ...lines].join('\n')}\n`
}
