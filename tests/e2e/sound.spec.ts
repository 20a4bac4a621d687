import { expect, type Page, test } from '@playwright/test'
import {
  analyseChart,
  DEFAULT_SCHOOL,
  type Feel,
  type LineNote,
  midi,
  readChart,
  swingOf,
  ticks,
  timelineOf,
} from '../../src/core/index.ts'
import { type Channel, type Score, scoreOf, secondsPerTick } from '../../src/sound/score.ts'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { listen, quietFor, takePeak } from './listen.ts'
import { complaints, currentSpot, MUSIC, open, pedalTwice } from './page.ts'
import { call } from './server.ts'
import { onsetsIn, pitchAt, readWav, type Sound } from './wav.ts'

const data = emptyData()
let server: Running

test.beforeAll(async () => {
  server = await startServer(data)
  await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
})
test.afterAll(async () => {
  await server.end()
  removeData(data)
})

const chartOf = async (text: string): Promise<string> =>
  (await call(server.address, 'POST', 'charts', { title: text.slice(0, 20), text })).body.id

const band = (page: Page) => page.getByRole('region', { name: 'Band' })
const openBand = async (page: Page) => {
  await page.keyboard.press('v')
  await expect(band(page)).toBeVisible()
}

const LEVELS = { line: 0.6, bass: 0.55, chords: 0.5, drums: 0.4, click: 0.4 }

/** From now on only one channel is heard, or what else is asked for. */
const alone = async (channel: Channel, muted: readonly Channel[] = []): Promise<void> => {
  const value = { levels: LEVELS, muted, solo: [channel] }
  const { items } = (await call(server.address, 'GET', 'settings')).body
  const row = items.find((r: { name: string }) => r.name === 'mix')
  if (row) await call(server.address, 'PUT', `settings/${row.id}`, { name: 'mix', value, version: row.version })
  else await call(server.address, 'POST', 'settings', { name: 'mix', value })
}

const saveWav = async (page: Page): Promise<Sound> => {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as WAV' }).click(),
  ])
  return readWav(await file.path())
}

/** The score the program should be playing, by its own pure part. */
const scoreFrom = (text: string, feel: Feel, line: readonly LineNote[] = []): Score => {
  const chart = readChart(text)
  if (!chart.ok) throw new Error('no chart')
  const timeline = timelineOf(chart.value, analyseChart(chart.value, true), [], DEFAULT_SCHOOL)
  const { tempo } = chart.value
  const swing = swingOf(feel, tempo, null)
  return scoreOf({ chart: chart.value, timeline, feel, swing, tempo, span: { from: 0, to: timeline.length }, line })
}
const momentsOf = (score: Score, parts: readonly string[]): readonly number[] =>
  [...new Set(score.notes.filter((n) => parts.includes(n.part)).map((n) => n.at * secondsPerTick(score)))].sort(
    (a, b) => a - b,
  )

const NEAR_S = 0.005

test('in a sound file the click stands within 5 ms of its beat, and twice round there is no gap at the seam', async ({
  page,
}) => {
  const text = 'tempo = 150\nmetre = 5/4\n| Dm7 | G7 |'
  await open(page, `${server.address}desk?chart=${await chartOf(text)}`)
  await openBand(page)
  const levels = band(page).getByRole('list', { name: 'Levels' })
  await levels.getByRole('button', { name: 'click rests' }).click()
  await levels.getByRole('button', { name: 'click alone' }).click()
  await band(page).getByRole('combobox', { name: 'How often round' }).selectOption('2')
  const onsets = onsetsIn(await saveWav(page), 0.004)
  expect(onsets).toHaveLength(20)
  for (const [i, at] of onsets.entries()) expect(Math.abs(at - i * 0.4)).toBeLessThan(NEAR_S)
})

const FEELS = [
  ['bossa', 'tempo = 132\n| Cmaj7 | Am7 |'],
  ['waltz', 'tempo = 132\nmetre = 3/4\n| Cmaj7 | Am7 |'],
  ['swing', 'tempo = 132\nmetre = 7/4\n| Cmaj7 | Am7 |'],
] as const

test('bossa, waltz and seven differ in what is heard, each where the score has it', async ({ page }) => {
  const heard: string[] = []
  await alone('drums')
  for (const [feel, text] of FEELS) {
    await open(page, `${server.address}desk?feel=${feel}&chart=${await chartOf(text)}`)
    await openBand(page)
    await expect(band(page).getByRole('combobox', { name: 'Feel' })).toHaveValue(feel)
    await expect(band(page).getByRole('button', { name: 'drums alone' })).toHaveAttribute('aria-pressed', 'true')
    const onsets = onsetsIn(await saveWav(page), 0.004)
    const expected = momentsOf(scoreFrom(text, feel), ['ride', 'hat', 'drum', 'rim'])
    expect(expected.length).toBeGreaterThan(4)
    for (const at of onsets) expect(Math.min(...expected.map((e) => Math.abs(e - at)))).toBeLessThan(NEAR_S)
    expect(onsets).toHaveLength(expected.length)
    heard.push(onsets.map((at) => at.toFixed(2)).join(' '))
  }
  expect(new Set(heard).size).toBe(FEELS.length)
})

const LINE: readonly LineNote[] = [
  [0, 480, 62],
  [480, 480, 65],
  [960, 320, 69],
  [1280, 320, 72],
  [1600, 320, 76],
  [1920, 960, 73],
  [2880, 960, 74],
  [3840, 1920, 71],
].map(([at, length, pitch]) => ({ at: ticks(at ?? 0), for: ticks(length ?? 0), pitch: midi(pitch ?? 0) }))

test('a line is rendered with its pitches, its eighths swung and its triplets even', async ({ page }) => {
  const text = 'tempo = 60\n| Dm7 | G7 |'
  const chartId = await chartOf(text)
  await call(server.address, 'POST', 'lines', { name: 'Buoy', chartId, line: { notes: LINE } })
  await alone('line')
  await open(page, `${server.address}line?chart=${chartId}`)
  await openBand(page)
  const sound = await saveWav(page)
  const score = scoreFrom(text, 'swing', LINE)
  const sung = score.notes.filter((n) => n.part === 'line')
  expect(sung.map((n) => n.pitch)).toEqual(LINE.map((n) => n.pitch))
  for (const n of sung) {
    const from = n.at * secondsPerTick(score)
    expect(pitchAt(sound, from + Math.min(0.1, (n.for * secondsPerTick(score)) / 3))).toBe(n.pitch)
  }
  expect((sung[1]?.at ?? 0) / 960).toBeGreaterThan(0.6)
  expect(sung[3]?.at).toBe(1280)
})

test('the rounds of an item in a sound file: heard, then silent of the line; the next key on its bar, at its own tempo', async ({
  page,
}) => {
  const make = async (kind: string, row: object) => (await call(server.address, 'POST', kind, row)).body
  const of = { kind: 'overlay', overlay: 'B minor pentatonic', chord: 'Eb7' }
  const { id } = await make('items', { name: 'Rounds', of, keys: ['Eb', 'D'], tempo: { from: 120, to: 300, step: 4 } })
  for (const minutes of [1, 2])
    await make('log', { kind: 'round', itemId: id, key: 'D', grade: 'clean', tempo: 120, minutes })
  await alone('line')
  await open(page, `${server.address}player?item=${id}`)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'WAV', exact: true }).click(),
  ])
  const sound = readWav(await file.path())
  // Four bars of four at 120, heard and then silent; the other key has climbed a step of its ladder.
  const [first, second] = [16 * (60 / 120), 16 * (60 / 124)]
  expect(sound.samples.length / sound.rate).toBeCloseTo(2 * first + 2 * second + 1.5, 1)
  const onsets = onsetsIn(sound, 0.004)
  const inRound = (from: number, to: number) => onsets.filter((at) => at > from - NEAR_S && at < to - NEAR_S)
  const silent = inRound(first, 2 * first)
  const [next, silentToo] = [inRound(2 * first, 2 * first + second), inRound(2 * first + second, 99)]
  expect([silent, silentToo]).toEqual([[], []])
  expect(Math.abs((next[0] ?? 0) - 2 * first)).toBeLessThan(NEAR_S)
  const onBeats = (from: number, tempo: number) =>
    Array.from({ length: 16 }, (_, i) => (pitchAt(sound, from + (i * 60) / tempo + 0.04) ?? -1) % 12)
  for (const pc of onBeats(0, 120)) expect([11, 2, 4, 6, 9]).toContain(pc)
  for (const pc of onBeats(2 * first, 124)) expect([10, 1, 3, 5, 8]).toContain(pc)
})

test('Space plays on while the view changes, the chord in view follows, the pedal takes the next loop, Space stops', async ({
  page,
}) => {
  const said = complaints(page)
  await alone('bass')
  await listen(page)
  const text = 'tempo = 240\n== A\n| Dm7 | G7 |\n== B\n| Em7b5 | A7 |'
  await open(page, `${server.address}desk?chart=${await chartOf(text)}`)
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await expect(currentSpot(page)).toHaveAccessibleName(/bar [234]/, MUSIC)
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.005)
  await page.keyboard.press('g')
  await page.keyboard.press('y')
  await expect(page).toHaveURL(/symmetry/)
  await takePeak(page)
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.005)
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await page.keyboard.press('PageDown')
  await expect(page).toHaveURL(/loop=(1-2|3-4)/)
  const loop = /loop=(\d)-/.exec(page.url())?.[1]
  await page.keyboard.press('PageDown')
  await expect(page).toHaveURL(loop === '1' ? /loop=3-4/ : /loop=1-2/)
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await expect.poll(() => quietFor(page)).toBeGreaterThan(0.5)
  expect(said).toEqual([])
})

test('a loop is marked by keys and shown; the pedal pressed twice counts in and plays from where it was', async ({
  page,
}) => {
  await alone('click', ['click'])
  await listen(page)
  await open(page, `${server.address}desk?chart=${await chartOf('tempo = 200\n| Dm7 | G7 | Cmaj7 | A7 |')}`)
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('[')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press(']')
  await expect(page).toHaveURL(/loop=2-3/)
  await expect(page.getByText('bars 2–3')).toBeVisible()
  await pedalTwice(page)
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.005)
  await expect(currentSpot(page)).toHaveAccessibleName(/bar 2, beat 1, G7/, MUSIC)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Play the whole form again' }).click()
  await expect(page).not.toHaveURL(/loop/)
})

test('an overlay laid on the Desk, and the route in view, are run through over the band', async ({ page }) => {
  await alone('line')
  const chart = await chartOf('tempo = 120\n| Dm7 | G7 | Cmaj7 |')
  await open(page, `${server.address}desk?chart=${chart}&bar=2&over=${encodeURIComponent('Db')}`)
  await openBand(page)
  const desk = await saveWav(page)
  expect(pitchAt(desk, 1)).toBeNull()
  const laid = Array.from({ length: 8 }, (_, i) => pitchAt(desk, 2.12 + i * 0.25))
  expect(laid.filter((p) => p !== null && [1, 5, 8].includes(p % 12)).length).toBeGreaterThan(5)
  await open(page, `${server.address}route?chart=${chart}`)
  await expect(page.getByText(/^best \d+, exact/)).toBeVisible()
  await openBand(page)
  const route = await saveWav(page)
  const heard = Array.from({ length: 24 }, (_, i) => pitchAt(route, 0.12 + i * 0.25))
  expect(heard.filter((p) => p !== null).length).toBeGreaterThan(16)
})

test('however long one plays and hears, no voice is made anew: what is let go of would go on costing time', async ({
  page,
}) => {
  test.slow()
  await page.addInitScript(() => {
    const made = { lasting: 0 }
    Object.assign(window, { made })
    const own = BaseAudioContext.prototype.createConstantSource
    BaseAudioContext.prototype.createConstantSource = function () {
      made.lasting++
      return own.call(this)
    }
  })
  const lasting = () => page.evaluate(() => (window as unknown as { made: { lasting: number } }).made.lasting)
  const bars = `tempo = 240\n${'| Dm7 G7 | Cmaj7 '.repeat(8)}|`
  await open(page, `${server.address}desk?chart=${await chartOf(bars)}`)
  const hear = () => page.getByRole('button', { name: 'Hear', exact: true }).click()
  const playAWhile = async (ms: number) => {
    await page.keyboard.press('Space')
    await page.waitForTimeout(ms)
    await page.keyboard.press('Space')
  }
  await hear()
  await page.waitForTimeout(600)
  await playAWhile(4000)
  const first = await lasting()
  expect(first).toBeGreaterThan(0)
  for (let i = 0; i < 4; i++) {
    await hear()
    await page.waitForTimeout(500)
    await playAWhile(4000)
  }
  expect(await lasting()).toBe(first)
})
