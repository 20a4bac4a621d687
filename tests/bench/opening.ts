// From the start of the program to its first answer, from an address to the first paint of each view, and what that fetches.
import { chromium } from '@playwright/test'
import { boardFerry } from '../e2e/ferry.ts'
import { emptyData, removeData, startServer } from '../serving.ts'

const TIMES = 5
const VIEWS = {
  Desk: 'desk?bar=13&beat=1&over=G+dorian',
  Charts: 'charts?bar=13&beat=1',
  Pairs: 'pairs?bar=15&beat=3&over=F+%26+G%2B&distance=2',
  Symmetry: 'symmetry?bar=15&beat=3&scale=Eb+half-whole',
  Route: 'route?bar=13&beat=1',
  Line: 'line?note=9',
  Practice: 'practice?',
  Player: 'player?',
  Stand: 'stand?bar=13&beat=1',
  Log: 'log?',
  'Set-up': 'set-up?',
} as const

const median = (all: readonly number[]): number => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0
const data = emptyData()
const first = await startServer(data)
const { charts } = await boardFerry(first.address)
await first.end()

const starts: number[] = []
for (let i = 0; i < TIMES; i++) {
  const from = performance.now()
  const server = await startServer(data)
  for (const path of ['', 'health']) {
    const answer = await fetch(`${server.address}${path}`)
    if (!answer.ok) throw new Error(`/${path}: ${answer.status}`)
    await answer.arrayBuffer()
  }
  starts.push(performance.now() - from)
  await server.end()
}
console.log(
  `started again, to the first answer of / and /health: median of ${TIMES} ${(median(starts) / 1000).toFixed(2)} s (at most 3)`,
)

interface Opened {
  /** Ms from the asking to the first thing painted, and to the view that answers keys. */
  readonly paint: number
  readonly ready: number
  /** Bytes of JavaScript as they were sent. */
  readonly script: number
}
const server = await startServer(data)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
/** Each time in a browser that has seen nothing yet. */
const opened = async (path: string): Promise<Opened> => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await page.goto(`${server.address}${path}&chart=${charts.get('Pier Eleven')}`)
  await page.waitForSelector('html[data-ready]')
  const found = await page.evaluate(() => ({
    paint: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? Number.NaN,
    ready: performance.now(),
    script: (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
      .filter((r) => new URL(r.name).pathname.endsWith('.js'))
      .reduce((sum, r) => sum + r.encodedBodySize, 0),
  }))
  await context.close()
  return found
}
await opened(VIEWS.Desk)
console.log('opened in a new browser, the median of five (first paint at most 600 ms; JavaScript at most 200 kB):')
for (const [view, path] of Object.entries(VIEWS)) {
  const all: Opened[] = []
  for (let i = 0; i < TIMES; i++) all.push(await opened(path))
  const of = (field: keyof Opened): number => median(all.map((o) => o[field]))
  console.log(
    `  ${view.padEnd(10)} first paint ${of('paint').toFixed(0).padStart(4)} ms, ready ${of('ready').toFixed(0).padStart(5)} ms, ${(of('script') / 1000).toFixed(0).padStart(4)} kB of JavaScript as sent`,
  )
}
await browser.close()
await server.end()
removeData(data)
