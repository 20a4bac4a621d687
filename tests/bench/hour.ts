// A browser that works through every view for MINUTES (60 for the long one): what is held, and what the browser complains of.
import { type BrowserContext, chromium, type Page } from '@playwright/test'
import { boardFerry } from '../e2e/ferry.ts'
import { emptyData, removeData, startServer } from '../serving.ts'
import { seeded } from './seeded.ts'

const MINUTES = Number(process.env.MINUTES ?? 3)
const VIEWS = ['desk', 'charts', 'pairs', 'symmetry', 'route', 'line', 'practice', 'log', 'set-up', 'stand'] as const
/** Keys that walk, choose, open and shut; none that removes. */
const KEYS = [
  'ArrowRight',
  'ArrowLeft',
  'ArrowDown',
  'ArrowUp',
  'PageDown',
  '.',
  ',',
  '1',
  '2',
  '3',
  '4',
  'w',
  'Escape',
  'Enter',
] as const
const WIDTHS = [
  [1280, 800],
  [768, 1024],
  [390, 844],
] as const
const NAVIGATION_EVERY = 25
const PAUSE_MS = 400

const data = emptyData()
const server = await startServer(data)
const { charts } = await boardFerry(server.address)
const ids = [...charts.values()]
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--js-flags=--expose-gc', '--autoplay-policy=no-user-gesture-required'],
})
const context: BrowserContext = await browser.newContext({ viewport: { width: 1280, height: 800 } })
await context.addInitScript(() =>
  document.addEventListener('securitypolicyviolation', (e) => console.error(`policy: ${e.violatedDirective}`)),
)
const page: Page = await context.newPage()
const said = new Map<string, number>()
const say = (what: string): void => void said.set(what, (said.get(what) ?? 0) + 1)
page.on('console', (m) => m.type() === 'error' && say(m.text()))
page.on('pageerror', (e) => say(e.message))
page.on('response', (r) => r.status() >= 500 && say(`${r.status()} ${new URL(r.url()).pathname}`))
page.on('crash', () => say('the page crashed'))

const devtools = await context.newCDPSession(page)
const held = async (): Promise<readonly [heap: number, nodes: number, listeners: number]> => {
  await devtools.send('HeapProfiler.collectGarbage')
  const { usedSize } = await devtools.send('Runtime.getHeapUsage')
  const { nodes, jsEventListeners } = await devtools.send('Memory.getDOMCounters')
  return [usedSize / 1024 / 1024, nodes, jsEventListeners]
}
const tell = async (minute: number): Promise<void> => {
  const [heap, nodes, listeners] = await held()
  console.log(
    `  minute ${String(minute).padStart(2)}: ${heap.toFixed(1).padStart(5)} MB in the page, ${nodes} nodes, ${listeners} listeners; ${(server.memory() / 1024 / 1024).toFixed(0)} MB in the program`,
  )
}

const next = seeded(21)
const pick = <T>(of: readonly T[]): T => of[Math.floor(next() * of.length)] as T
console.log(`a browser through every view for ${MINUTES} min:`)
await page.goto(`${server.address}desk?chart=${ids[0]}`)
await page.waitForSelector('html[data-ready]')
const from = performance.now()
const minute = (): number => (performance.now() - from) / 60_000
const TOLD_EVERY = Math.max(0.5, MINUTES / 12)
let [told, seen] = [0, 0]
while (minute() < MINUTES) {
  if (minute() >= told * TOLD_EVERY) await tell(Math.round(told++ * TOLD_EVERY))
  const [width, height] = pick(WIDTHS)
  if (next() < 0.2) await page.setViewportSize({ width, height })
  await page.evaluate(
    ([view, chart]) => {
      const link = document.querySelector<HTMLAnchorElement>(`nav[aria-label="Views"] a[href^="/${view}"]`)
      const select = document.querySelector<HTMLSelectElement>('select[aria-label="Chart"], label select')
      if (chart && select && [...select.options].some((o) => o.value === chart)) {
        select.value = chart
        select.dispatchEvent(new Event('change', { bubbles: true }))
      }
      link?.click()
    },
    [pick(VIEWS), next() < 0.3 ? pick(ids) : ''] as const,
  )
  seen++
  for (let i = 0; i < 8; i++) {
    await page.keyboard.press(next() < 0.04 ? 'Space' : pick(KEYS))
    await page.waitForTimeout(PAUSE_MS * next())
  }
  if (seen % NAVIGATION_EVERY === 0) await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
}
await tell(MINUTES)
console.log(
  `  ${seen} views opened; complaints: ${[...said].map(([what, n]) => `${n} × ${what}`).join('; ') || 'none'}`,
)
await browser.close()
await server.end()
removeData(data)
