// A key on the Desk to the frame that shows it, in a real browser, at every size a player may have.
import { chromium } from '@playwright/test'
import { boardFerry } from '../e2e/ferry.ts'
import { emptyData, removeData, startServer } from '../serving.ts'

const SIZES = [
  [1280, 800],
  [1366, 640],
  [1024, 600],
  [1024, 768],
  [768, 1024],
  [390, 844],
  [360, 640],
] as const
const KEYS = ['ArrowRight', 'ArrowDown', 'ArrowDown', '.', 'ArrowRight', ',', 'ArrowDown', 'ArrowLeft'] as const
const ROUNDS = 5

interface Measured {
  /** A key to the frame that shows it, and tasks of the main thread that took 50 ms or more. All in ms. */
  readonly frames: number[]
  readonly tasks: number[]
}

const data = emptyData()
const server = await startServer(data)
const ids = await boardFerry(server.address)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
const at = (sorted: readonly number[], share: number): string =>
  (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(0)

for (const [width, height] of SIZES) {
  const page = await browser.newPage({ viewport: { width, height } })
  await page.addInitScript(() => {
    const all: Measured = { frames: [], tasks: [] }
    Object.assign(window, { measured: all })
    new PerformanceObserver((list) => all.tasks.push(...list.getEntries().map((e) => e.duration))).observe({
      type: 'longtask',
    })
    window.addEventListener(
      'keydown',
      (e) => {
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel()
          port1.onmessage = () => all.frames.push(performance.now() - e.timeStamp)
          port2.postMessage(0)
        })
      },
      { capture: true },
    )
  })
  await page.goto(`${server.address}desk?chart=${ids.charts.get('Pier Eleven')}&bar=9`)
  await page.waitForSelector('html[data-ready]')
  await page.waitForSelector('[role="option"][aria-setsize]', { state: 'attached' })
  await page.waitForTimeout(1500)
  // What opening the page took is not what a key takes.
  await page.evaluate(() => (window as unknown as { measured: Measured }).measured.tasks.splice(0))
  for (let i = 0; i < ROUNDS; i++)
    for (const key of KEYS) {
      await page.keyboard.press(key)
      await page.waitForTimeout(120)
    }
  const { frames, tasks } = await page.evaluate(() => (window as unknown as { measured: Measured }).measured)
  frames.sort((a, b) => a - b)
  const rows = await page.evaluate(() => document.querySelectorAll('[role="option"][aria-setsize]').length)
  console.log(
    `a key to its frame on the Desk, ${width} × ${height}: median ${at(frames, 0.5)} ms, 95 % ${at(frames, 0.95)} ms, worst ${at(frames, 1)} ms; longest task ${tasks.length === 0 ? 'under 50' : Math.max(...tasks).toFixed(0)} ms; ${rows} rows drawn`,
  )
  await page.close()
}
await browser.close()
await server.end()
removeData(data)
