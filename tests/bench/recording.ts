// A take as it is played: a MIDI note to its light on the slope, and how level a long one is. Minutes: MINUTES=60.
import { chromium, type Page } from '@playwright/test'
import { plugIn } from '../e2e/midi.ts'
import { call } from '../e2e/server.ts'
import { emptyData, removeData, startServer } from '../serving.ts'

const MINUTES = Number(process.env.MINUTES ?? 3)
const STEPS = Math.min(12, MINUTES)
const NOTES = 80

interface Watched {
  readonly lights: number[]
  readonly tasks: number[]
}
const watched = (page: Page): Promise<Watched> =>
  page.evaluate(() => {
    const { lights, tasks } = (window as unknown as { watched: Watched }).watched
    return { lights: lights.splice(0), tasks: tasks.splice(0) }
  })

const data = emptyData()
const server = await startServer(data)
await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
const text = `tempo = 208\n${'| Dm7 | G7 | Cmaj7 | A7 '.repeat(8)}|`
const chartId = (await call(server.address, 'POST', 'charts', { title: 'Long Watch', text })).body.id
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--js-flags=--expose-gc'],
})
const opened = async (): Promise<Page> => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await plugIn(page)
  await page.addInitScript(() => {
    const all: Watched = { lights: [], tasks: [] }
    Object.assign(window, { watched: all })
    new PerformanceObserver((list) => all.tasks.push(...list.getEntries().map((e) => e.duration))).observe({
      type: 'longtask',
    })
  })
  await page.goto(`${server.address}practice?practise=takes&chart=${chartId}`)
  await page.waitForSelector('html[data-ready]')
  return page
}
const record = async (page: Page, source: string) => {
  await page.getByLabel('Play it from').selectOption(source)
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await page.getByText(/: \d+ notes?/).waitFor()
}
const at = (sorted: readonly number[], share: number): string =>
  (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(0)

const midi = await opened()
await record(midi, 'midi')
await midi.getByRole('link', { name: 'Desk' }).click()
await midi.getByRole('group', { name: 'Slope' }).waitFor()
await midi.waitForTimeout(2500)
await watched(midi)
await midi.evaluate(async (count) => {
  const { strike, watched: all } = window as unknown as { strike: (pitch: number) => void; watched: Watched }
  for (let i = 0; i < count; i++) {
    const struck = performance.now()
    const seen = new MutationObserver(() => {
      seen.disconnect()
      requestAnimationFrame(() => {
        const { port1, port2 } = new MessageChannel()
        port1.onmessage = () => all.lights.push(performance.now() - struck)
        port2.postMessage(0)
      })
    })
    const slope = document.querySelector('[aria-label="Slope"]')
    if (slope) seen.observe(slope, { subtree: true, childList: true, attributes: true })
    strike(60 + ((i * 7) % 12))
    await new Promise((done) => setTimeout(done, 140))
  }
}, NOTES)
const { lights, tasks: lit } = await watched(midi)
lights.sort((a, b) => a - b)
console.log(
  `a MIDI note to its light on the slope: median ${at(lights, 0.5)} ms, 95 % ${at(lights, 0.95)} ms, ${lights.length} of ${NOTES} lit while their chord was in view; longest task ${lit.length === 0 ? 'under 50' : Math.max(...lit).toFixed(0)} ms`,
)
await midi.close()

const page = await opened()
const cdp = await page.context().newCDPSession(page)
const heap = async (): Promise<number> => {
  await cdp.send('HeapProfiler.collectGarbage')
  return ((await cdp.send('Runtime.getHeapUsage')).usedSize as number) / 1e6
}
await record(page, 'simulated')
await page.waitForTimeout(15_000)
await watched(page)
const tell = async (minute: number) => {
  const { tasks } = await watched(page)
  const status = page.getByRole('region', { name: 'Record a take' }).getByRole('status')
  // After an hour it ends by itself.
  const said = await status.textContent({ timeout: 2000 }).catch(() => 'ended by itself')
  console.log(
    `  ${minute.toFixed(0)} min: heap ${(await heap()).toFixed(1)} MB, server ${(server.memory() / 1e6).toFixed(0)} MB, tasks over 50 ms since: ${tasks.length}${tasks.length > 0 ? `, longest ${Math.max(...tasks).toFixed(0)} ms` : ''}; ${said?.trim()}`,
  )
}
console.log('a take of the simulated player at 208, its sound kept:')
await tell(0)
for (let step = 1; step <= STEPS; step++) {
  await page.waitForTimeout((MINUTES / STEPS) * 60_000)
  await tell((MINUTES / STEPS) * step)
}
await page
  .getByRole('button', { name: 'Stop and keep' })
  .click({ timeout: 2000 })
  .catch(() => undefined)
await page.getByRole('list', { name: 'What is told of it' }).waitFor({ timeout: 120_000 })
const { items } = await (await fetch(`${server.address}api/v1/takes?limit=1`)).json()
const notes: readonly { readonly at: number }[] = items[0].notes
const gaps = notes.slice(1).map((n, i) => n.at - (notes[i]?.at ?? 0))
console.log(
  `  kept: ${notes.length} notes, the longest time without one ${(Math.max(...gaps) / 960).toFixed(1)} beats; sound ${(items[0].sound.bytes / 1e6).toFixed(1)} MB`,
)
await browser.close()
await server.end()
removeData(data)
