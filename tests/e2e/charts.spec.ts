import { readFileSync } from 'node:fs'
import { expect, type Page, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { complaints, currentSpot, hearsNothing, open, slopeLabels, strip } from './page.ts'
import { call } from './server.ts'

const TIDE = 'title = Slack Tide\nkey = F\n\n== A\n| Fmaj7 | Dm7 | Gm7 | C7 |\n'
const data = emptyData()
let server: Running
let tide: string

test.beforeAll(async () => {
  server = await startServer(data)
  await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  tide = (await call(server.address, 'POST', 'charts', { title: 'Slack Tide', text: TIDE, tags: ['set one'] })).body.id
})
test.afterAll(async () => {
  await server.end()
  removeData(data)
})

const editor = (page: Page) => page.getByRole('textbox', { name: 'Chart text' })
const state = (page: Page) => page.getByRole('region', { name: 'Text' }).getByRole('status').last()
const harmony = (page: Page) => page.getByRole('region', { name: 'Harmony' })
const library = (page: Page) => page.getByRole('region', { name: 'Library' }).getByRole('row')
const dialog = (page: Page) => page.getByRole('dialog', { name: /^From / })
const kept = async (id: string) => (await call(server.address, 'GET', `charts/${id}`)).body
const made = async (title: string, text = TIDE): Promise<string> =>
  (await call(server.address, 'POST', 'charts', { title, text: text.replace('Slack Tide', title) })).body.id
/** Puts the caret at the end of the last line that has text. */
const toEnd = async (page: Page) => {
  await editor(page).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.press('ArrowLeft')
}

test('a chart is typed, its error mended by the proposal, and all of it undone', async ({ page }) => {
  const said = complaints(page)
  await open(page, `${server.address}charts?chart=${tide}`)
  await expect(editor(page)).toContainText('Fmaj7')
  await toEnd(page)
  await page.keyboard.type(' Hm7 | Bbmaj7 |')
  const wrong = page.getByRole('list', { name: 'What does not read' })
  await expect(wrong).toContainText('Line 5, column 28. “Hm7” is not understood')
  await expect(state(page)).toContainText('Not kept while something in it does not read')
  // A blank may have been kept while one went on typing; nothing that does not read was.
  expect((await kept(tide)).text.replace(/ +$/gm, '')).toBe(TIDE)
  await wrong.getByRole('button', { name: 'Make it Bm7' }).click()
  await expect(wrong).toHaveCount(0)
  await expect(state(page)).toHaveText('Kept.')
  await expect(strip(page).getByRole('listitem')).toHaveCount(6)
  expect((await kept(tide)).text).toContain('C7 | Bm7 | Bbmaj7 |')
  await editor(page).click()
  for (let i = 0; i < 30; i++) await page.keyboard.press('Control+z')
  await expect(strip(page).getByRole('listitem')).toHaveCount(4)
  await expect(state(page)).toHaveText('Kept.')
  expect((await kept(tide)).text).toBe(TIDE)
  expect(said).toEqual([])
})

test('a bar of another metre is typed, seen on the strip and the stand, and saved with it', async ({ page }) => {
  const said = complaints(page)
  const id = await made('Swell')
  await open(page, `${server.address}charts?chart=${id}`)
  await toEnd(page)
  await page.keyboard.type(' 7/8 Bbmaj7 | A7b9 | 2/4 % |')
  await expect(state(page)).toHaveText('Kept.')
  const spots = strip(page).getByRole('listitem')
  await expect(spots).toHaveCount(7)
  await expect(spots.nth(4)).toContainText('5 7/8')
  await expect(spots.nth(6)).toContainText('7 2/4')
  await expect(spots.nth(5)).not.toContainText('/8')
  await spots.nth(5).getByRole('button').click()
  await expect(page.getByRole('banner')).toContainText('7/8')
  const xml = await (await fetch(`${server.address}api/v1/charts/${id}/export?as=musicxml`)).text()
  expect([...xml.matchAll(/<beats>(\d+)/g)].map((m) => m[1])).toEqual(['4', '7', '2'])
  await open(page, `${server.address}stand?chart=${id}&bar=6`)
  await expect(page.getByRole('main')).toContainText('after seven beats, bar 7')
  expect(said).toEqual([])
})

test('keys are letters while one types, the pedal still walks, and the caret follows the chord', async ({ page }) => {
  await open(page, `${server.address}charts?chart=${await made('Letters')}`)
  await toEnd(page)
  await page.keyboard.type(' Gm7 | C9sus4 |')
  await expect(page).toHaveURL(/\/charts\?/)
  await expect(state(page)).toHaveText('Kept.')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  await expect(currentSpot(page)).toContainText('C9sus4')
  await page.keyboard.press('PageUp')
  await expect(currentSpot(page)).toContainText('Gm7')
})

test('two tabs never overwrite each other: the second is told, shown both, and chooses', async ({ page, context }) => {
  const id = await made('Two Hands')
  await hearsNothing(context)
  const other = await context.newPage()
  for (const tab of [page, other]) {
    await open(tab, `${server.address}charts?chart=${id}`)
    await expect(editor(tab)).toContainText('Fmaj7')
  }
  await toEnd(page)
  await page.keyboard.type(' Am7 |')
  await expect(state(page)).toHaveText('Kept.')
  await toEnd(other)
  await other.keyboard.type(' Abmaj7 |')
  await expect(other.getByRole('alert')).toContainText('Another tab kept this chart in the meantime')
  await expect(other.getByRole('region', { name: 'Yours' })).toContainText('C7 | Abmaj7 |')
  await expect(other.getByRole('region', { name: 'Theirs' })).toContainText('C7 | Am7 |')
  expect((await kept(id)).text).toContain('Am7')
  await other.getByRole('button', { name: 'Keep this one' }).click()
  await expect(state(other)).toHaveText('Kept.')
  expect((await kept(id)).text).toContain('Abmaj7')
  await other.close()
})

test('a server killed while one types: the draft comes back, also after a reload', async ({ page }) => {
  const id = await made('Power Cut')
  await open(page, `${server.address}charts?chart=${id}`)
  await expect(editor(page)).toContainText('Fmaj7')
  const port = new URL(server.address).port
  await server.end('SIGKILL')
  await toEnd(page)
  await page.keyboard.type(' Ebmaj7 |')
  await expect(state(page)).toContainText('held in this browser')
  await page.goto('about:blank')
  server = await startServer(data, port)
  await open(page, `${server.address}charts?chart=${id}`)
  const held = page.getByRole('region', { name: 'Text' }).getByText('Something typed here earlier was not kept.')
  await expect(held).toBeVisible()
  await page.getByRole('button', { name: 'Take it up' }).click()
  await expect(editor(page)).toContainText('Ebmaj7')
  await expect(state(page)).toHaveText('Kept.')
  expect((await kept(id)).text).toContain('Ebmaj7')
})

test('the player’s word on a job wins everywhere, and can be taken back', async ({ page }) => {
  const id = await made('My Word')
  await open(page, `${server.address}charts?chart=${id}&bar=4`)
  await expect(harmony(page).getByRole('row', { name: /4 C7/ })).toContainText('V of F')
  await page.getByText('Say otherwise').click()
  await page.getByLabel('It is rather').selectOption('substitute V')
  await page.getByLabel('of', { exact: true }).fill('B')
  await page.getByRole('button', { name: 'Say so' }).click()
  await expect(harmony(page).getByRole('row', { name: /4 C7/ })).toContainText('substitute V of B')
  await expect.poll(async () => (await kept(id)).overrides).toEqual([{ bar: 4, beat: 1, job: 'substitute V of B' }])
  await open(page, `${server.address}desk?chart=${id}&bar=4`)
  await expect(page.getByRole('region', { name: 'Chord' })).toContainText('substitute V of B')
  await expect(page.getByLabel('Inside here')).toHaveValue('C lydian dominant')
  await open(page, `${server.address}charts?chart=${id}&bar=4`)
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(harmony(page).getByRole('row', { name: /4 C7/ })).toContainText('V of F')
})

test('a chord is split in two and joined again; selected bars are put between repeat signs', async ({ page }) => {
  const id = await made('Cut and Spliced')
  await open(page, `${server.address}charts?chart=${id}&bar=2`)
  await page.getByRole('button', { name: 'Split it in two' }).click()
  await expect(strip(page).getByRole('listitem', { name: 'bar 2, beat 3, Dm7' })).toBeAttached()
  await expect.poll(async () => (await kept(id)).overrides).toEqual([{ bar: 2, beat: 1, split: 3 }])
  await open(page, `${server.address}desk?chart=${id}&bar=2&beat=3`)
  await expect(currentSpot(page)).toHaveAttribute('aria-label', 'bar 2, beat 3, Dm7')
  await open(page, `${server.address}charts?chart=${id}&bar=2&beat=3`)
  await page.getByRole('button', { name: 'Join its halves again' }).click()
  await expect(strip(page).getByRole('listitem')).toHaveCount(4)
  await editor(page).getByText('Gm7').dblclick()
  await page.keyboard.press('Shift+End')
  await page.getByRole('button', { name: 'Repeat' }).click()
  await expect(editor(page)).toContainText('| Fmaj7 | Dm7 |: Gm7 | C7 :|')
  await expect(strip(page).getByRole('listitem')).toHaveCount(6)
})

test('a reharmonisation on bar 2 of a repeat: shown as a second lane, taken, edited and undone', async ({ page }) => {
  const text = 'title = Slack Tide\ntempo = 240\n|: Dm7 G7 | Em7 A7 :| Dm7 G7 | Cmaj7 |\n'
  const id = await made('Second Lane', text)
  await open(page, `${server.address}charts?chart=${id}&bar=2&beat=3`)
  await page.getByRole('button', { name: 'Instead' }).click()
  const lane = page
    .getByRole('region', { name: 'Instead' })
    .getByRole('listitem')
    .filter({ hasText: 'tritone substitute' })
  await expect(lane).toContainText('E♭7 has the same guide tones and falls a semitone to Dm7.')
  await expect(lane).toContainText('The bar is played 2 times: it changes in each pass.')
  await expect(lane).toContainText('At 240 the shortest of them sounds for 0.5 s')
  expect((await kept(id)).text).toContain('Em7 A7')
  await lane.getByRole('button', { name: 'Take it' }).click()
  await expect(editor(page)).toContainText('| Em7 Eb7 :|')
  await expect(strip(page).getByRole('listitem', { name: 'bar 4, beat 3, E♭7' })).toBeAttached()
  await expect(state(page)).toHaveText('Kept.')
  await toEnd(page)
  await page.keyboard.type(' C6 |')
  await expect(editor(page)).toContainText('Cmaj7 | C6 |')
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z')
  await expect(editor(page)).toContainText('| Em7 A7 :|')
  await expect.poll(async () => (await kept(id)).text).toBe(text.replace('Slack Tide', 'Second Lane'))
})

test('a chart whose text moves on tells which kept ideas it left behind, and takes them along', async ({ page }) => {
  const id = await made('Left Behind')
  const idea = { overlay: 'Db lydian dominant', chord: 'C7', next: 'Fmaj7', chartId: id, bar: 4, beat: 1 }
  await call(server.address, 'POST', 'ideas', idea)
  await open(page, `${server.address}charts?chart=${id}`)
  await expect(editor(page)).toContainText('Fmaj7')
  const left = page.getByRole('region', { name: 'Ideas left behind' })
  await expect(left).toHaveCount(0)
  await editor(page).getByText('Dm7').click()
  await page.keyboard.press('End')
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft')
  await page.keyboard.type('Am7 | ')
  await expect(left).toContainText('D♭ lydian dominant over C7, bar 4')
  await left.getByRole('button', { name: 'Move it to bar 5' }).click()
  await expect(left).toHaveCount(0)
  await expect
    .poll(async () => (await call(server.address, 'GET', `ideas?chartId=${id}`)).body.items)
    .toMatchObject([{ bar: 5, beat: 1 }])
})

test('another chart laid over: bar by bar, moved to where it lands best', async ({ page }) => {
  const [id, over] = [await made('Under'), await made('Above', 'title = Slack Tide\n| Ebmaj7 | Abm7 | Db7 | Gb7 |\n')]
  await open(page, `${server.address}charts?chart=${id}&side=over`)
  const panel = page.getByRole('region', { name: 'Laid over' })
  await panel.getByLabel('The chart to lay over').selectOption(over)
  await expect(panel.getByRole('row', { name: /^2 Dm7 A♭m7/ })).toBeVisible()
  const landing = async () => Number((await panel.getByText('On the whole').textContent())?.match(/lands (\d+)/)?.[1])
  const before = await landing()
  await panel.getByRole('button', { name: 'Best landing' }).click()
  await expect(page).toHaveURL(/shift=-?\d/)
  const options = await panel.getByLabel('Moved').locator('option').allInnerTexts()
  const best = Math.max(...options.map((o) => Number(/lands (\d+)/.exec(o)?.[1])))
  expect([options.length, await landing()]).toEqual([12, best])
  expect(best).toBeGreaterThanOrEqual(before)
  await page.reload()
  await expect(panel.getByText('On the whole')).toContainText(`lands ${best}`)
})

test('a chart goes out in each format and comes in again, told what was read before it is kept', async ({ page }) => {
  const id = await made('Round Trip', 'title = Slack Tide\nkey = F\n== Swell\n|: Fmaj7 | Gm7 C7 :|\n')
  await open(page, `${server.address}charts?chart=${id}`)
  for (const [name, file] of [
    ['MusicXML', 'Round Trip.musicxml'],
    ['ABC', 'Round Trip.abc'],
    ['Text', 'Round Trip.txt'],
  ] as const) {
    const coming = page.waitForEvent('download')
    await page.getByRole('link', { name, exact: true }).click()
    const download = await coming
    expect(download.suggestedFilename()).toBe(file)
    const buffer = readFileSync(await download.path())
    await page.getByLabel('Chart file').setInputFiles({ name: file, mimeType: 'application/octet-stream', buffer })
    const found = dialog(page)
    await expect(found).toContainText('4 bars · 6 chords · F major · 4/4 · tempo 120')
    await expect(found).toContainText('Nothing was left out.')
    await page.keyboard.press('Escape')
  }
  const played = await fetch(`${server.address}api/v1/charts/${id}/band`)
  await page
    .getByLabel('Chart file')
    .setInputFiles({ name: 'swell.mid', mimeType: 'audio/midi', buffer: Buffer.from(await played.arrayBuffer()) })
  await expect(dialog(page).getByRole('heading', { name: 'swell' })).toBeVisible()
  await expect(dialog(page)).toContainText('Read as MIDI: 4 bars')
  await expect(dialog(page)).toContainText('F major · 4/4 · tempo 120 · sections Swell')
  await expect(page.getByRole('region', { name: 'Left out' })).toContainText('look them through')
  // The next file is picked at the very press that closes this one.
  await page.evaluate(() => {
    const next = new DataTransfer()
    next.items.add(new File(['title = Sand Bar\n| Am7 | D7 |\n'], 'sand.txt'))
    const [open] = document.querySelectorAll('dialog[open]')
    const input = document.querySelector('input[aria-label="Chart file"]') as HTMLInputElement
    const pick = () => {
      input.files = next.files
      input.dispatchEvent(new Event('change', { bubbles: true }))
    }
    open?.addEventListener('cancel', () => queueMicrotask(pick), { once: true })
  })
  await page.keyboard.press('Escape')
  await expect(dialog(page).getByRole('heading', { name: 'Sand Bar' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(dialog(page)).toBeHidden()
  const broken = { name: 'torn.musicxml', mimeType: 'text/xml', buffer: Buffer.from('<score-partwise><part>') }
  const before = (await call(server.address, 'GET', 'charts?limit=200')).body.items.length
  await page.getByLabel('Chart file').setInputFiles(broken)
  await expect(page.getByRole('alert')).toContainText('no well-formed XML')
  await page.keyboard.press('Escape')
  const tune = 'X:1\nT:Fog Signal\nM:3/4\nL:1/4\nK:G\n"G"G3 | "Am7"A2 "D7"d | "H9"G3 |]\n'
  const other = '\nX:2\nT:Ebb Bell\nM:4/4\nL:1/4\nK:C\n"Dm7"D4 | "G7"G4 |]\n'
  await page
    .getByLabel('Chart file')
    .setInputFiles({ name: 'fog.abc', mimeType: 'text/plain', buffer: Buffer.from(tune + other) })
  await page.getByLabel('Tune').selectOption({ label: '2. Ebb Bell' })
  await expect(dialog(page).getByRole('heading', { name: 'Ebb Bell' })).toBeVisible()
  await page.getByLabel('Tune').selectOption({ label: '1. Fog Signal' })
  await expect(page.getByRole('region', { name: 'Left out' })).toContainText(
    '“H9” in bar 3: this chord is not understood',
  )
  expect((await call(server.address, 'GET', 'charts?limit=200')).body.items).toHaveLength(before)
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(dialog(page)).toBeHidden()
  await expect(page.getByRole('heading', { name: 'Fog Signal' })).toBeVisible()
  await expect(strip(page).getByRole('listitem')).toHaveCount(4)
})

test('the library: found as one types, walked by keys, doubled, removed and brought back', async ({ page }) => {
  await made('Kelp and Rope', 'title = Slack Tide\n| Gbmaj7 | Cb13 |')
  await open(page, `${server.address}charts?search=kelp`)
  await expect(library(page)).toHaveCount(2)
  await library(page).nth(1).getByRole('button').click()
  await expect(editor(page)).toContainText('Gbmaj7')
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect(page.getByRole('heading', { name: 'Kelp and Rope, again' })).toBeVisible()
  await expect(library(page)).toHaveCount(3)
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(library(page)).toHaveCount(2)
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect(library(page)).toHaveCount(3)
  await page.getByRole('searchbox', { name: 'Find a chart' }).fill('cb13')
  await expect(library(page)).toHaveCount(3)
  await expect(page).toHaveURL(/search=cb13/)
  await page.getByRole('searchbox', { name: 'Find a chart' }).fill('nothing of the kind')
  await expect(page.getByText('No chart holds “nothing of the kind”.')).toBeVisible()
})

test('a B♭ player edits in written pitch, and concert pitch is kept', async ({ page }) => {
  const id = await made('Written')
  const { items } = (await call(server.address, 'GET', 'settings?limit=200')).body
  const { id: row, version } = items.find((s: { name: string }) => s.name === 'instrument')
  await call(server.address, 'PUT', `settings/${row}`, { name: 'instrument', value: 'bb', version })
  await open(page, `${server.address}charts?chart=${id}`)
  await expect(editor(page)).toContainText('| Gmaj7 | Em7 | Am7 | D7 |')
  await expect(editor(page)).toContainText('key = G')
  await toEnd(page)
  await page.keyboard.type(' Bbm7 |')
  await expect(state(page)).toHaveText('Kept.')
  expect((await kept(id)).text).toBe(TIDE.replace('Slack Tide', 'Written').replace('C7 |\n', 'C7 | Abm7 |\n'))
  await page.getByRole('button', { name: '½ up' }).click()
  await expect(editor(page)).toContainText('Abmaj7')
  await expect.poll(async () => (await kept(id)).text).toContain('| Gbmaj7 |')
  await page.keyboard.press('g')
  await open(page, `${server.address}desk?chart=${id}`)
  expect((await slopeLabels(page))[0]).toContain('A♭')
  await call(server.address, 'PUT', `settings/${row}`, { name: 'instrument', value: 'concert', version: version + 1 })
})
