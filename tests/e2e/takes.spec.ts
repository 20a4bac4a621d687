import AxeBuilder from '@axe-core/playwright'
import { expect, type Page, test } from '@playwright/test'
import { listen, takePeak } from './listen.ts'
import { playLine, plugIn, unplug } from './midi.ts'
import { complaints, MUSIC, open } from './page.ts'
import { call, serverOfFile } from './server.ts'

let chart = ''
const server = serverOfFile(async (address) => {
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  const text = `title = Fender Rope\ntempo = 240\n| Dm7 ${'| % '.repeat(7)}|`
  chart = (await call(address, 'POST', 'charts', { title: 'Fender Rope', text })).body.id
  const laid = Array.from({ length: 8 }, (_, i) => i + 1).map((bar) => ({
    ...{ bar, beat: 1, beats: 4, chord: 'Dm7' },
    overlay: bar === 3 || bar === 4 ? 'Eb minor pentatonic' : null,
  }))
  await call(address, 'POST', 'routes', {
    name: 'Over the side',
    chartId: chart,
    steps: laid,
    rules: null,
    inHand: true,
  })
})
test.beforeEach(({ page }) => page.emulateMedia({ reducedMotion: 'reduce' }))

interface Take {
  readonly id: string
  readonly name: string
  readonly open: boolean
  readonly source: string
  readonly notes: readonly { readonly at: number; readonly for: number; readonly pitch: number }[]
  readonly sound: { readonly bytes: number } | null
  readonly text: string
  readonly plan: { readonly overlays: readonly object[] } | null
}
const takes = async (): Promise<readonly Take[]> => (await call(server.address, 'GET', 'takes')).body.items
const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' })
const running = (page: Page) => page.getByRole('region', { name: 'Record a take' }).getByRole('status')
const sentences = (page: Page) => page.getByRole('list', { name: 'What is told of it' }).getByRole('listitem')
const place = (more = '') => `${server.address}practice?practise=takes&chart=${chart}${more}`
const from = (page: Page, source: string) => page.getByLabel('Play it from').selectOption(source)
/** Begins a take from a MIDI instrument that is plugged in. */
const recordByMidi = async (page: Page) => {
  await plugIn(page)
  await open(page, place())
  await from(page, 'midi')
  await button(page, 'Record').click()
  await expect(running(page)).toContainText('Dummy keys', MUSIC)
}
const remove = async () => {
  for (const { id } of await takes()) await call(server.address, 'DELETE', `takes/${id}`)
}

test('eight bars by MIDI: each note kept as it was played; read, heard where it speaks of, a part kept, removed and back', async ({
  page,
}) => {
  test.slow()
  const said = complaints(page)
  await listen(page)
  await recordByMidi(page)
  const line = [62, 64, 65, 67, 69, 71, 72, 69, 62, 65, 69, 72, 71, 67, 64, 65]
  await page.waitForTimeout(1200)
  await playLine(page, line, 125)
  await expect(running(page)).toContainText('16 notes')
  await button(page, 'Stop and keep').click()
  await expect(sentences(page).first()).toBeVisible(MUSIC)
  const [take] = await takes()
  expect(take?.notes.map((n) => n.pitch)).toEqual(line)
  expect(take).toMatchObject({ open: false, source: 'midi', sound: null })
  expect(take?.plan?.overlays).toHaveLength(3)
  // Not on a grid: what came is what is kept.
  expect(take?.notes.some((n) => Math.abs(n.at % 480) > 3)).toBe(true)

  await expect(sentences(page).filter({ hasText: 'good' }).first()).toBeVisible()
  await takePeak(page)
  await sentences(page)
    .first()
    .getByRole('button', { name: /Listen to bars/ })
    .click()
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.01)
  await page.keyboard.press('Space')
  await expect(button(page, 'Stop')).toHaveCount(0)

  await button(page, 'Keep these bars as a line').click()
  await expect.poll(async () => (await call(server.address, 'GET', 'lines')).body.items.length).toBe(1)
  const [kept] = (await call(server.address, 'GET', 'lines')).body.items
  expect(kept).toMatchObject({ chartId: chart, tags: ['take'] })

  await page.getByText('Save or remove it').click()
  await button(page, 'Remove the take').click()
  await expect.poll(async () => (await takes()).length).toBe(0)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await takes())[0]?.notes.length).toBe(16)
  expect(said).toEqual([])
})

test('the simulated player is told apart by what it does; two takes beside each other; its sound is kept and heard', async ({
  page,
}) => {
  test.slow()
  await remove()
  await listen(page)
  await open(page, place())
  await from(page, 'simulated')
  await page.getByText('How I play in').click()
  for (const fault of ['nothing', 'overstay']) {
    await page.getByLabel('On purpose').selectOption(fault)
    await button(page, 'Record').click()
    await expect(running(page)).toContainText('simulated player', MUSIC)
    // A chorus of eight bars at 240 lasts eight seconds.
    await expect
      .poll(async () => Number(/(\d+) notes/.exec((await running(page).textContent()) ?? '')?.[1]), MUSIC)
      .toBeGreaterThan(62)
    await button(page, 'Stop and keep').click()
    await expect(sentences(page).first()).toBeVisible(MUSIC)
    if (fault === 'nothing') {
      await expect(sentences(page)).toContainText(['The plan was kept'])
      await expect(sentences(page).filter({ hasText: 'mend' })).toHaveCount(0)
      await button(page, 'All takes').click()
    } else await expect(sentences(page).first()).toContainText('stayed on')
  }
  const [overstayed, tidy] = await takes()
  expect(overstayed?.sound?.bytes).toBeGreaterThan(10_000)
  expect(tidy?.sound?.bytes).toBeGreaterThan(10_000)

  await button(page, 'Listen to all of it').click()
  await takePeak(page)
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.01)
  await button(page, 'Stop').first().click()

  await page.getByLabel('Beside it').selectOption(tidy?.id ?? '')
  await expect(page.getByRole('article')).toHaveCount(2)
  await expect(page.getByRole('article').nth(1)).toContainText('The plan was kept')
  await expect(page).toHaveURL(new RegExp(`otherTake=${tidy?.id}`))
  await page.reload()
  await expect(page.getByRole('article').nth(1)).toContainText('The plan was kept')
  await page.getByLabel('Beside it').first().selectOption('')

  await sentences(page)
    .first()
    .getByRole('button', { name: /stayed on/ })
    .click()
  await expect(page.getByRole('region', { name: 'This spot in all takes' }).getByRole('listitem')).toHaveCount(2)
  await sentences(page).first().getByRole('button', { name: 'I dispute it' }).click()
  await expect(sentences(page).first()).toContainText('disputed')
  await page.reload()
  await expect(sentences(page).first()).toContainText('disputed')
  const found = await new AxeBuilder({ page }).analyze()
  expect(found.violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([])
})

test('a round on the player is played in as a take: in its key, over its plan, and its grade is proposed', async ({
  page,
}) => {
  await remove()
  const made = await call(server.address, 'POST', 'items', {
    name: 'Sharp Bend',
    of: { kind: 'overlay', overlay: 'Eb minor pentatonic', chord: 'G7', next: 'Cmaj7' },
    keys: 'fourths',
    tempo: { from: 240, to: 260, step: 4 },
  })
  await open(page, `${server.address}player?item=${made.body.id}&inKey=A`)
  await button(page, 'Record a take').click()
  await expect(page.getByText('As a round of Sharp Bend in A.')).toBeVisible()
  await from(page, 'simulated')
  await button(page, 'Record').click()
  // Four bars at 240 last four seconds.
  await expect(running(page)).toContainText(/0:0[6-9]/, MUSIC)
  await button(page, 'Stop and keep').click()
  await expect(sentences(page).first()).toBeVisible(MUSIC)
  const [take] = await takes()
  expect(take).toMatchObject({
    ...{ itemId: made.body.id, key: 'A', tempo: 240, chartId: null },
    plan: {
      overlays: [
        { bar: 1, beat: 1, overlay: 'F minor pentatonic' },
        { bar: 3, beat: 1, overlay: null },
      ],
    },
  })
  expect(take?.text).toContain('A7')
  await expect(page.getByText('As a round it would be:')).toBeVisible()
  await button(page, 'clean').click()
  await expect
    .poll(async () => (await call(server.address, 'GET', 'log?sort=-at&limit=1')).body.items[0])
    .toMatchObject({ itemId: made.body.id, key: 'A', grade: 'clean' })
})

test('the computer’s keys play; a take in which nothing was played is none; Space ends it', async ({ page }) => {
  await remove()
  await open(page, place())
  await from(page, 'keys')
  await button(page, 'Record').click()
  await expect(running(page)).toContainText('keys: 0 notes', MUSIC)
  await page.keyboard.press('Space')
  await expect(page.getByText('Nothing was played, so there is no take.')).toBeVisible()
  expect(await takes()).toEqual([])
  await button(page, 'Record').click()
  await expect(running(page)).toContainText(/0:0[3-9]/, MUSIC)
  for (const key of ['z', 'c', 'b', 'q']) await page.keyboard.press(key, { delay: 60 })
  await page.getByRole('button', { name: 'E 3' }).click()
  await expect(running(page)).toContainText('5 notes')
  await button(page, 'Stop and keep').click()
  await expect(sentences(page).first()).toBeVisible(MUSIC)
  expect((await takes())[0]?.notes.map((n) => n.pitch)).toEqual([48, 52, 55, 60, 52])

  await button(page, 'All takes').click()
  await page.getByText('How I play in').click()
  await page.getByLabel('On the screen').selectOption('neck')
  await button(page, 'Record').click()
  await expect(running(page)).toContainText(/0:0[3-9]/, MUSIC)
  for (const at of ['A 2, fret 5', 'D 3, fret 5', 'B 3, fret 0']) await page.getByRole('button', { name: at }).click()
  await expect(running(page)).toContainText('3 notes')
  await button(page, 'Stop and keep').click()
  await expect.poll(async () => (await takes())[0]?.notes.map((n) => n.pitch)).toEqual([45, 50, 59])
})

test('while a take runs, each note lights on the slope at its height, on the Desk and on the stand', async ({
  page,
}) => {
  await remove()
  await recordByMidi(page)
  await page.getByRole('link', { name: 'Desk' }).click()
  for (const view of ['desk', 'stand']) {
    await expect(page).toHaveURL(new RegExp(`/${view}\\?`))
    const lit = page.getByRole('group', { name: 'Slope' }).locator('[data-played]')
    const heights: number[] = []
    for (const [pitch, degree] of [
      [62, '1'],
      [65, 'b3'],
      [63, 'b9'],
    ] as const) {
      await playLine(page, [pitch], 60)
      await expect(lit).toHaveAttribute('data-played', degree)
      heights.push((await lit.boundingBox())?.y ?? 0)
    }
    const [root = 0, third = 0, flatNine = 0] = heights
    expect(third).toBeCloseTo(root, 0)
    expect(flatNine).toBeLessThan(root - 20)
    if (view === 'desk') await page.keyboard.press('s')
  }
})

test('unplugged in the middle, the tab closed, the server killed: the take is there up to the last second', async ({
  page,
  context,
}) => {
  test.slow()
  await remove()
  await recordByMidi(page)
  await page.waitForTimeout(1200)
  await playLine(page, [62, 64, 65, 67], 100)
  await unplug(page)
  await expect(page.getByText('Dummy keys was unplugged')).toBeVisible()
  await expect.poll(async () => (await takes())[0]?.notes.length).toBe(4)

  const other = await context.newPage()
  await recordByMidi(other)
  await other.waitForTimeout(1200)
  await playLine(other, [60, 62, 64, 65, 67, 69], 100)
  // A part goes every two seconds.
  await other.waitForTimeout(5000)
  await other.close()
  const cut = (await takes()).find((t) => t.open)
  expect(cut?.notes).toEqual([])
  await server.kill()
  await server.again()
  await new Promise((done) => setTimeout(done, 16_000))
  await open(page, place())
  await expect(page.getByText('A take was cut off')).toBeVisible(MUSIC)
  expect((await takes()).find((t) => t.id === cut?.id)).toMatchObject({ open: false })
  expect((await takes()).find((t) => t.id === cut?.id)?.notes.map((n) => n.pitch)).toEqual([60, 62, 64, 65, 67, 69])
})

test('an hour of fast notes is kept, changed and read', async () => {
  const notes = Array.from({ length: 26_000 }, (_, i) => ({
    ...{ at: i * 461.538461538, for: 233.333333333, pitch: 60 + (i % 12), velocity: 0.7123456789 },
  }))
  const text = '| Dm7 | G7 | Cmaj7 | % |'
  const take = { name: 'Long', text, tempo: 208, source: 'simulated', notes, open: true, tags: [] }
  const made = await call(server.address, 'POST', 'takes', take)
  expect(made.status).toBe(201)
  const { status, body } = await call(server.address, 'PUT', `takes/${made.body.id}`, { ...made.body, open: false })
  expect([status, body.notes?.length, body.open]).toEqual([200, notes.length, false])
  const read = await call(server.address, 'POST', 'takes/read', { text, tempo: 208, notes })
  expect([read.status, read.body.sentences?.length > 0]).toEqual([200, true])
  await call(server.address, 'DELETE', `takes/${made.body.id}`)
})

test('while it is played, the server dead for a while, nothing is lost', async ({ page }) => {
  test.slow()
  await remove()
  await recordByMidi(page)
  await page.waitForTimeout(1200)
  await playLine(page, [62, 64, 65], 100)
  await page.waitForTimeout(2200)
  await server.kill()
  await playLine(page, [67, 69, 71], 100)
  await expect(running(page)).toContainText('The program is not answering: what you play is held here.', MUSIC)
  await server.again()
  await playLine(page, [72, 74], 100)
  await button(page, 'Stop and keep').click()
  await expect
    .poll(async () => (await takes())[0]?.notes.map((n) => n.pitch), MUSIC)
    .toEqual([62, 64, 65, 67, 69, 71, 72, 74])
})
