import { expect, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { listen, loudness, quietFor, takePeak } from './listen.ts'
import { ask, currentSpot, ideas, open, pedal, searchbox, slope, slopeLabels, slopeNotes, strip } from './page.ts'
import { call } from './server.ts'

let data: string
let server: Running
let chart: string

const TEXT = 'title = Spare Anchor\nkey = Eb\nmetre = 5/4\n== Deck\n| Fm7 Bb7 | Ebmaj7#11 | G#m7 C#7 | F#maj7 |'

test.beforeEach(async () => {
  data = emptyData()
  server = await startServer(data)
  chart = (await call(server.address, 'POST', 'charts', { title: 'Spare Anchor', text: TEXT })).body.id
})
test.afterEach(async () => {
  await server.end()
  removeData(data)
})

test('from opening to a kept idea that is found again after a restart, and taken back', async ({ page, browser }) => {
  await listen(page)
  await open(page, server.address)
  await expect(strip(page).getByRole('listitem')).toHaveCount(6)
  await page.keyboard.press('ArrowRight')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 1, beat 3½, B♭7')
  await expect(page.getByText('V of E♭, resolves')).toBeVisible()

  await ask(page, 'F# dorian')
  await expect(page.getByRole('heading', { name: 'F♯ dorian' })).toBeVisible()
  expect(await slopeLabels(page)).toEqual([
    'F♯, ♭13, altered, fade 40',
    'G♯, ♭7, chord, fade 0',
    'A, 7, outside, rub, fade 95',
    'B, ♭9, altered, fade 50',
    'C♯, ♯9, altered, fade 45',
    'D♯, 11, suspension, fade 30',
    'E, ♯11, altered, fade 35',
  ])
  await slopeNotes(page).nth(2).focus()
  await expect(
    page.getByText('A is the 7 over B♭7: it rubs against A♭, and rises a half step to B♭, the 5 of E♭maj7(♯11).'),
  ).toBeVisible()

  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  const [chordPitches, note, absent] = [[58, 62, 65, 68], 81, 73]
  await expect
    .poll(async () => {
      const [silence = 0, ...sounding] = await loudness(page, [absent, note, ...chordPitches])
      return Math.min(...sounding) - silence
    })
    .toBeGreaterThan(15)
  const peak = await takePeak(page)
  expect(peak).toBeGreaterThan(0.01)
  expect(peak).toBeLessThan(0.5)
  for (const press of [
    () => slopeNotes(page).nth(2).press('Enter'),
    () => page.getByRole('button', { name: 'Hear' }).click(),
  ]) {
    await press()
    await expect.poll(() => quietFor(page)).toBe(0)
    await page.getByRole('button', { name: 'Stop' }).click()
    await expect.poll(() => quietFor(page)).toBeGreaterThan(0.5)
  }

  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await page.keyboard.press('k')
  await expect(ideas(page)).toHaveCount(1)
  await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
  const kept = (await call(server.address, 'GET', 'ideas')).body.items
  expect(kept).toMatchObject([
    { overlay: 'F# dorian', chord: 'Bb7', next: 'Ebmaj7(#11)', chartId: chart, bar: 1, beat: 3.5 },
  ])

  const port = new URL(server.address).port
  await server.end()
  server = await startServer(data, port)
  const other = await browser.newContext()
  const second = await other.newPage()
  await open(second, server.address)
  await expect(ideas(second)).toHaveCount(1)
  await second.getByRole('button', { name: 'Undo' }).click()
  await expect(ideas(second)).toHaveCount(0)
  await open(second, server.address)
  await expect(second.getByText('Nothing kept yet.')).toBeVisible()
  await other.close()
})

test('the address keeps the place; a view changes without a new page', async ({ page }) => {
  await open(page, server.address)
  const origin = await page.evaluate(() => performance.timeOrigin)
  await page.keyboard.press('End')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 4, beat 1, F♯maj7')
  await page.keyboard.press('g')
  await page.keyboard.press('s')
  await expect(page.getByRole('heading', { name: 'Set-up' })).toBeVisible()
  expect(page.url()).toContain('/set-up?')
  await page.goBack()
  await expect(currentSpot(page)).toHaveAccessibleName('bar 4, beat 1, F♯maj7')
  await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: 'Set-up' }).click()
  await page.getByRole('link', { name: 'Desk' }).click()
  expect(await page.evaluate(() => performance.timeOrigin)).toBe(origin)

  await ask(page, 'B+ over A7')
  await expect(page).toHaveURL(/sketch=%7C\+A7\+%7C&over=B%2B$/)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'B+' })).toBeVisible()
  expect(await slopeLabels(page)).toEqual([
    'B, 9, extension, fade 15',
    'D♯, ♯11, altered, fade 35',
    'F𝄪, ♭7, chord, fade 0',
  ])
  await expect(slope(page).getByText('No next chord')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(strip(page).getByRole('listitem')).toHaveCount(6)
})

test('a chart’s chords stand where they were typed, and the pedal walks them whatever has focus', async ({ page }) => {
  await open(page, server.address)
  expect(
    await strip(page)
      .getByRole('listitem')
      .evaluateAll((items) => items.map((i) => i.getAttribute('aria-label'))),
  ).toEqual([
    'bar 1, beat 1, Fm7',
    'bar 1, beat 3½, B♭7',
    'bar 2, beat 1, E♭maj7(♯11)',
    'bar 3, beat 1, G♯m7',
    'bar 3, beat 3½, C♯7',
    'bar 4, beat 1, F♯maj7',
  ])
  await searchbox(page).focus()
  await pedal(page, 'PageDown', 'PageDown')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 2, beat 1, E♭maj7(♯11)')
  await page.keyboard.press('PageUp')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 1, beat 3½, B♭7')
  await page.keyboard.type('k')
  await expect(searchbox(page)).toHaveValue('k')
  await expect(ideas(page)).toHaveCount(0)
})

test('the slope view is one tab stop, walked note by note; slipping moves the overlay', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${chart}&bar=1&beat=3.5&over=B+minor+pentatonic`)
  await slopeNotes(page).first().focus()
  const walked: (string | null)[] = []
  for (let i = 0; i < 5; i++) {
    walked.push(await page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? null))
    await page.keyboard.press('ArrowRight')
  }
  expect(walked[0]).toBe('B, ♭9, altered, fade 50')
  expect(new Set(walked).size).toBe(5)
  expect(await slopeNotes(page).evaluateAll((n) => n.filter((b) => b.getAttribute('tabindex') === '0').length)).toBe(1)
  await page.keyboard.press('Escape')
  await page.keyboard.press('.')
  await expect(page.getByRole('heading', { name: 'C minor pentatonic' })).toBeVisible()
  await expect(page).toHaveURL(/over=C\+minor\+pentatonic/)
  await page.getByRole('button', { name: 'Table', exact: true }).click()
  await expect(page.getByRole('row', { name: /^E♭ E♭ 11 suspension 30 held to E♭, the 1$/ })).toBeVisible()
})

test('wrong input is shown where it is wrong, and what was typed stays', async ({ page }) => {
  await open(page, server.address)
  for (const [question, wrong] of [
    ['Bb foo over Eb7', 'foo'],
    ['Cmaj77', '7'],
    ['Hm7', 'Hm7'],
  ] as const) {
    await searchbox(page).fill(question)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText(`“${wrong}” is not understood here`)
    await expect(page.getByTestId('wrong-word')).toHaveText(wrong)
    await expect(searchbox(page)).toHaveValue(question)
  }
  await searchbox(page).fill('')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Something is missing')
  await searchbox(page).fill('E major pentatonic')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'E major pentatonic' })).toBeVisible()
})

test('a dead server loses nothing: the idea is held in the browser and kept later', async ({ page, context }) => {
  await open(page, `${server.address}desk?chart=${chart}&bar=1&beat=3.5&over=B%2B`)
  const port = new URL(server.address).port
  await server.end('SIGKILL')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  const waiting = page.getByRole('region', { name: /^Not kept: B\+ over B/ })
  await expect(waiting).toContainText('held in this browser')
  await page.close()
  server = await startServer(data, port)
  const again = await context.newPage()
  await open(again, server.address)
  const held = again.getByRole('region', { name: 'Held from earlier' })
  await expect(held).toContainText('the idea B+ over B♭7')
  await held.getByRole('button', { name: 'Keep it now' }).click()
  await expect(ideas(again)).toHaveCount(1)
  await expect(held).toHaveCount(0)
  await expect.poll(async () => (await call(server.address, 'GET', 'ideas')).body.items.length).toBe(1)
})

test('a B♭ player reads and types written pitch; the address and every request stay in concert', async ({ page }) => {
  await open(page, server.address)
  const asked: string[] = []
  page.on('request', (r) => asked.push(r.url() + (r.postData() ?? '')))
  await page.getByRole('region', { name: 'Your instrument' }).getByRole('button', { name: /^B♭/ }).click()
  await expect(page.getByText('written for B♭')).toBeVisible()
  await expect(strip(page).getByRole('listitem').nth(1)).toHaveAccessibleName('bar 1, beat 3½, C7')
  await ask(page, 'F#m7')
  await expect(page).toHaveURL(/sketch=%7C\+Em7\+%7C/)
  await expect(currentSpot(page)).toHaveAccessibleName('bar 1, beat 1, F♯m7')
  await expect(page.getByRole('heading', { name: 'F♯ dorian', level: 1 })).toBeVisible()
  await ask(page, 'C#m over F#m7')
  await expect(page).toHaveURL(/over=Bm$/)
  await page.keyboard.press('k')
  await expect(ideas(page)).toHaveCount(1)
  await expect(ideas(page)).toContainText('C♯m')
  expect(asked.filter((r) => /F(%23|#|♯)m7/.test(r))).toEqual([])
  await expect
    .poll(async () => (await call(server.address, 'GET', 'ideas')).body.items)
    .toMatchObject([{ overlay: 'Bm', chord: 'Em7' }])
  await page.reload()
  await expect(page.getByRole('region', { name: 'Your instrument' })).toHaveCount(0)
  await expect(currentSpot(page)).toHaveAccessibleName('bar 1, beat 1, F♯m7')
})

test('keys can be switched off; club can be set; both are found again and can be undone', async ({ page }) => {
  await open(page, `${server.address}set-up?section=look`)
  await page.getByLabel('Look', { exact: true }).selectOption('club')
  await expect(page.locator('html')).toHaveAttribute('data-look', 'club')
  await page.getByLabel('Keys', { exact: true }).selectOption('off')
  await expect.poll(async () => (await call(server.address, 'GET', 'settings')).body.items.length).toBe(2)
  await open(page, server.address)
  await expect(page.locator('html')).toHaveAttribute('data-look', 'club')
  await page.keyboard.press('ArrowRight')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 1, beat 1, Fm7')
  await page.keyboard.press('PageDown')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 1, beat 3½, B♭7')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('status')).toContainText('Undone')
  await page.keyboard.press('ArrowRight')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 2, beat 1, E♭maj7(♯11)')
})

for (const [width, height] of [
  [1280, 800],
  [1366, 640],
  [1024, 600],
  [1024, 768],
] as const)
  test(`whatever is laid, its row is in sight and the picture keeps its size, at ${width} × ${height}`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height })
    await open(page, `${server.address}desk?chart=${chart}&over=F+mixolydian`)
    await expect(page.getByRole('listbox', { name: 'Overlays' }).getByRole('option').first()).toBeVisible()
    /** Whether all of the chosen row is seen, with nothing over it. */
    const inSight = () =>
      page.locator('[role="option"][aria-selected="true"]').evaluateAll(([row]) => {
        const box = row?.getBoundingClientRect()
        return [box?.top, box?.bottom].every((y, i) => {
          const seen = y !== undefined && document.elementFromPoint((box?.left ?? 0) + 100, y + (i === 0 ? 3 : -3))
          return seen && row?.contains(seen)
        })
      })
    const sizes = new Set<string>()
    for (const key of ['Down', 'Down', 'Down', 'Down', 'Down', 'Down', 'Up', '.', '.', 'Down', 'Up', 'Up', ',', 'Up']) {
      await page.keyboard.press(key.length > 1 ? `Arrow${key}` : key)
      await expect.poll(inSight, `after ${key}`).toBe(true)
      sizes.add(JSON.stringify(await slope(page).evaluate((s) => [s.clientWidth, s.clientHeight])))
    }
    if (height > 700) expect([...sizes]).toHaveLength(1)
  })
