import { expect, type Page, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { complaints, open, pedal, strip } from './page.ts'
import { call } from './server.ts'

const TEXT = 'title = Mooring\nkey = F\n== A\n| Fmaj7 | % | Gm7 | C7 |\n| Fmaj7 | Dm7 | Abm7 Db7 | Gbmaj7 |'
const data = emptyData()
let server: Running
let mooring: string

test.beforeAll(async () => {
  server = await startServer(data)
  await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
})
test.afterAll(async () => {
  await server.end()
  removeData(data)
})

const steps = (page: Page) => strip(page).getByRole('slider')
const step = (page: Page, name: string) => strip(page).getByRole('slider', { name, exact: true })
const values = (page: Page) => steps(page).evaluateAll((all) => all.map((s) => s.getAttribute('aria-valuetext') ?? ''))
const overlayAt = async (page: Page, i: number) => (await values(page))[i]?.split(', ')[1]
const chains = (page: Page) => page.getByRole('region', { name: 'Chains' }).getByRole('row')
const planned = (page: Page) => expect(page.getByText(/^best \d+, exact/)).toBeVisible()
const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true })
const routes = (page: Page) => page.getByRole('list', { name: 'Routes' }).getByRole('listitem')
/** A chart of its own for each test: what is in hand stays with it. */
const start = async (page: Page, query = '') => {
  mooring = (await call(server.address, 'POST', 'charts', { title: 'Mooring', text: TEXT })).body.id
  await open(page, `${server.address}route?chart=${mooring}${query}`)
  await planned(page)
}

test('the arc is set by hand and by keys, planned, a step locked and planned around, kept, reloaded, exported, compared', async ({
  page,
}) => {
  const said = complaints(page)
  await start(page)
  await expect(steps(page)).toHaveCount(9)
  await expect(step(page, 'bar 2, beat 1, Fmaj7')).toHaveAttribute('aria-valuetext', /^wished 14, /)

  await page.getByRole('combobox', { name: 'Shape' }).selectOption('four out, four in')
  await expect(step(page, 'bar 1, beat 1, Fmaj7')).toHaveAttribute('aria-valuenow', '60')
  await step(page, 'bar 1, beat 1, Fmaj7').focus()
  await page.keyboard.press('ArrowDown')
  await expect(step(page, 'bar 1, beat 1, Fmaj7')).toHaveAttribute('aria-valuenow', '55')
  const box = await step(page, 'bar 3, beat 1, Gm7').boundingBox()
  if (!box) throw new Error('no step')
  await page.mouse.move(box.x + box.width / 2, box.y + 90)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + 60, { steps: 4 })
  await page.mouse.up()
  const dragged = Number(await step(page, 'bar 3, beat 1, Gm7').getAttribute('aria-valuenow'))
  expect(dragged).toBeGreaterThan(70)
  await planned(page)

  await step(page, 'bar 4, beat 1, C7').click({ position: { x: 10, y: 145 } })
  const others = page.getByRole('region', { name: 'Step' }).getByRole('listitem')
  await expect(others.first()).toBeVisible()
  const other =
    (await others.nth(2).getByRole('strong').textContent()) ??
    (await others.nth(2).locator('strong').textContent()) ??
    ''
  await others.nth(2).getByRole('button').click()
  await planned(page)
  await expect(step(page, 'bar 4, beat 1, C7')).toHaveAttribute(
    'aria-valuetext',
    new RegExp(`${other}, fade \\d+, locked$`),
  )
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowDown')
  // Heads, the route in hand, and three further than the first.
  await expect(chains(page).nth(5).getByRole('button')).toHaveAttribute('aria-pressed', 'true')
  expect(await overlayAt(page, 3)).toBe(other)
  const shown = await values(page)

  await button(page, 'Keep').click()
  await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
  await expect(routes(page)).toHaveCount(2)
  const name = routes(page).first().getByRole('textbox')
  await name.fill('Out to the buoy')
  await name.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Renamed.' })).toBeVisible()
  await page.reload()
  await page.waitForSelector('html[data-ready]')
  await planned(page)
  expect(await values(page)).toEqual(shown)
  await expect(name).toHaveValue('Out to the buoy')

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    routes(page).first().getByRole('link', { name: 'CSV' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('Out to the buoy.csv')

  await page.getByRole('combobox', { name: 'Shape' }).selectOption('slow burn')
  await planned(page)
  await routes(page).first().getByRole('button', { name: 'Compare' }).click()
  const compared = page.getByRole('region', { name: 'Compared' })
  await expect(compared).toContainText(/They differ at \d of 9 steps/)
  await routes(page).first().getByRole('button', { name: 'Take in hand' }).click()
  await chains(page).nth(1).getByRole('button').click()
  await expect(compared).toContainText('They lay the same everywhere.')
  expect((await values(page)).map((v) => v.split(', ')[1])).toEqual(shown.map((v) => v.split(', ')[1]))
  expect(said).toEqual([])
})

test('each thing asked is undone one by one, and done again', async ({ page }) => {
  await start(page)
  const first = await values(page)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('l')
  await planned(page)
  await expect(steps(page).nth(1)).toHaveAttribute('aria-valuetext', /locked$/)
  await page.keyboard.press('Shift+ArrowUp')
  await page.keyboard.press('x')
  await expect(steps(page)).toHaveCount(10)
  await page.keyboard.press('Control+z')
  await expect(steps(page)).toHaveCount(9)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await planned(page)
  expect(await values(page)).toEqual(first)
  await page.keyboard.press('Control+Shift+z')
  await expect(steps(page).nth(1)).toHaveAttribute('aria-valuetext', /locked$/)
  await button(page, 'Keep').click()
  await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
  const count = await routes(page).count()
  await page.keyboard.press('Control+z')
  await expect(routes(page)).toHaveCount(count - 1)
})

test('the pedal walks through the route and does not change it; while it sounds the pedal takes the next loop', async ({
  page,
}) => {
  await start(page)
  const before = await values(page)
  await pedal(page, 'PageDown', 'PageDown', 'PageDown', 'PageUp')
  await expect(steps(page).nth(2)).toHaveAttribute('aria-current', 'step')
  await button(page, 'Play').click()
  await page.keyboard.press('PageDown')
  await expect(page).toHaveURL(/loop=/)
  await button(page, 'Stop').click()
  await planned(page)
  expect(await values(page)).toEqual(before)
  expect(new URL(page.url()).searchParams.get('plan')).toBeNull()
})

test('recipes are offered where they apply; one is laid down and the rest planned around it', async ({ page }) => {
  await start(page, '&panel=recipes')
  const recipe = (name: string) => page.getByRole('region', { name, exact: true })
  await expect(recipe('minor pentatonics rising').getByRole('button')).toHaveText([
    'everywhere',
    'bars 3–5',
    'bars 7–8',
  ])
  await expect(recipe('four bars out, four in')).toHaveCount(0)
  await recipe('minor pentatonics rising').getByRole('button', { name: 'everywhere' }).click()
  await planned(page)
  expect((await values(page)).slice(2, 5).map((v) => v.split(', ')[1])).toEqual([
    'D minor pentatonic',
    'E♭ minor pentatonic',
    'E minor pentatonic',
  ])
  expect(await overlayAt(page, 8)).toBe('F minor pentatonic')
  await button(page, 'Rules').click()
  await button(page, 'bar 4: E♭ minor pentatonic ×').click()
  await expect(step(page, 'bar 4, beat 1, C7')).not.toHaveAttribute('aria-valuetext', /locked$/)
  await button(page, 'Recipes').click()
  await recipe('descending ii-Vs').getByRole('button', { name: 'bars 3–4' }).click()
  await expect(steps(page)).toHaveCount(9)
  await button(page, 'Undo').click()
  await expect(step(page, 'bar 4, beat 1, C7')).toHaveAttribute('aria-valuetext', /locked$/)
  await button(page, 'Undo').click()
  await expect(step(page, 'bar 4, beat 1, C7')).not.toHaveAttribute('aria-valuetext', /locked$/)
  await recipe('descending ii-Vs').getByRole('button', { name: 'bars 3–4' }).click()
  await expect(steps(page)).toHaveCount(11)
})

test('impossible rules say what to loosen; a tap on it does', async ({ page }) => {
  const plan = JSON.stringify({ motion: '+1', scope: 'throughout', fadeMax: 20 })
  await open(page, `${server.address}route?chart=${mooring}&plan=${encodeURIComponent(plan)}`)
  const alert = page.getByRole('alert').filter({ hasText: 'No route keeps to all of this' })
  await expect(alert).toContainText(/Allow a fade of \d+ instead of 20 at most/)
  await alert.getByRole('button', { name: 'Let the motion be free.' }).click()
  await planned(page)
  for (const value of await values(page)) expect(Number(/fade (\d+)/.exec(value)?.[1])).toBeLessThanOrEqual(20)
})

test('the seam into the next step is shown, with the note to leave from; a route is followed on the stand', async ({
  page,
}) => {
  await start(page, '&panel=recipes')
  await page
    .getByRole('region', { name: 'minor pentatonics rising', exact: true })
    .getByRole('button', { name: 'bars 3–5' })
    .click()
  await planned(page)
  await step(page, 'bar 4, beat 1, C7').click({ position: { x: 10, y: 145 } })
  await button(page, 'Seam').click()
  const seam = page.getByRole('region', { name: 'Seam' })
  await expect(seam.getByRole('heading', { name: 'E♭ minor pentatonic → E minor pentatonic' })).toBeVisible()
  await expect(seam.getByRole('row', { name: /^going up/ })).toContainText('a guide tone')
  await expect(seam.getByRole('img', { name: /^Leaving E♭ G♭ A♭ B♭ D♭, arriving E G A B D$/ })).toBeVisible()
  await button(page, 'Keep').click()
  await page.keyboard.press('s')
  await expect(page.getByRole('region', { name: 'Chord' })).toContainText('E♭ minor pentatonic')
  await page.keyboard.press('PageDown')
  await expect(page.getByRole('region', { name: 'Chord' })).toContainText('E minor pentatonic')
  await page.keyboard.press('Escape')
  await expect(page).toHaveURL(/\/route\?/)
  await page.getByRole('button', { name: /^in hand: / }).click()
  await routes(page).getByRole('button', { name: 'In hand', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Put away' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^in hand: / })).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /^in hand: / })).toHaveCount(1)
})

test('written pitch is shown, concert pitch kept; a changed chart says what stood there', async ({ page }) => {
  const id = (await call(server.address, 'POST', 'charts', { title: 'Winch', text: '| Dm7 | G7 | Cmaj7 |' })).body.id
  const settings = (await call(server.address, 'GET', 'settings')).body.items
  const row = settings.find((s: { name: string }) => s.name === 'instrument')
  await call(server.address, 'PUT', `settings/${row.id}`, { ...row, value: 'bb' })
  await open(page, `${server.address}route?chart=${id}&panel=recipes`)
  await page
    .getByRole('region', { name: 'minor pentatonics rising', exact: true })
    .getByRole('button', { name: 'bars 1–3' })
    .click()
  await planned(page)
  expect((await values(page)).map((v) => v.split(', ')[1])).toEqual([
    'B minor pentatonic',
    'C minor pentatonic',
    'C♯ minor pentatonic',
  ])
  await button(page, 'Take in hand').click()
  await expect(page.getByRole('button', { name: /^in hand: / })).toBeVisible()
  const ofChart = async () => (await call(server.address, 'GET', `routes?chartId=${id}`)).body.items
  await expect.poll(async () => (await ofChart()).length).toBe(1)
  const [kept] = await ofChart()
  expect(kept.steps.map((s: { chord: string; overlay: string }) => [s.chord, s.overlay])).toEqual([
    ['Dm7', 'A minor pentatonic'],
    ['G7', 'Bb minor pentatonic'],
    ['Cmaj7', 'B minor pentatonic'],
  ])
  const chart = (await call(server.address, 'GET', `charts/${id}`)).body
  await call(server.address, 'PUT', `charts/${id}`, { ...chart, text: '| Dm7 | Db7 | Cmaj7 |' })
  await open(page, `${server.address}route?chart=${id}&bar=2&beat=1`)
  await expect(
    page.getByRole('alert').filter({ hasText: 'When this was kept, A7 stood here; now it is E♭7.' }),
  ).toBeVisible()
  const now = (await call(server.address, 'GET', 'settings')).body.items.find(
    (s: { name: string }) => s.name === 'instrument',
  )
  await call(server.address, 'PUT', `settings/${now.id}`, { ...now, value: 'concert' })
})

test('a long planning shows how far it is, leaves the page free, and is stopped', async ({ page }) => {
  const chords = ['Dm7', 'G7', 'Ebm7', 'Ab7', 'C#m7b5', 'F#7b9', 'Bm6', 'Bbmaj7', 'A7alt', 'Dmaj7', 'F7#11', 'Cm9']
  const text = Array.from({ length: 64 }, (_, i) => `${chords[(i * 5) % 12]} ${chords[(i * 7 + 3) % 12]}`).join(' | ')
  const id = (await call(server.address, 'POST', 'charts', { title: 'Long Haul', text: `| ${text} |` })).body.id
  const plan = JSON.stringify({
    families: ['triad', 'seventh', 'pentatonic', 'mode', 'symmetric', 'pair'],
    motion: 'constant',
  })
  await open(page, `${server.address}route?chart=${id}&plan=${encodeURIComponent(plan)}`)
  await expect(page.getByRole('progressbar', { name: 'Planning' })).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(steps(page).nth(1)).toHaveAttribute('aria-current', 'step')
  await button(page, 'Stop').click()
  await expect(page.getByText('Stopped.')).toBeVisible()
  await expect(page.getByRole('progressbar')).toHaveCount(0)
  await button(page, 'Rules').click()
  await page.getByRole('combobox', { name: 'Motion' }).selectOption('free')
  await button(page, 'pairs').click()
  await planned(page)
  expect((await values(page)).every((v) => /fade \d+/.test(v))).toBe(true)
})
