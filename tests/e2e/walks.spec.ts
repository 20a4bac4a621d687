import { expect, type Page, test } from '@playwright/test'
import { emptyData, removeData, startServer } from '../serving.ts'
import { boardFerry } from './ferry.ts'
import { ask, complaints, currentSpot, MUSIC, open, slopeLabels, strip } from './page.ts'
import { printed } from './paper.ts'
import { call, serverOfFile } from './server.ts'

const ids = new Map<string, string>()
const server = serverOfFile(async (address) => {
  for (const [name, id] of (await boardFerry(address)).charts) ids.set(name, id)
})
const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true })
const title = (page: Page, name: string) => expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
const undone = (page: Page) => page.getByRole('status').filter({ hasText: 'Undone' })

test('a teacher lays three overlays over a cadence in minor, prints it for an alto, plays it, swaps it, takes it back', async ({
  page,
  browser,
}) => {
  test.slow()
  const said = complaints(page)
  await open(page, `${server.address}desk`)
  await ask(page, '| Bm7b5 | E7 | Am6 |')
  await expect(currentSpot(page)).toContainText('Bm7♭5')
  for (const [material, name] of [
    ['Dm6 arpeggio', 'Dm6 arpeggio'],
    ['Bb & Ab', 'B♭ & A♭'],
    ['E minor pentatonic', 'E minor pentatonic'],
  ] as const) {
    await ask(page, material)
    await title(page, name)
    await page.keyboard.press('l')
    await expect(page.getByRole('status').filter({ hasText: /lies over/ })).toBeVisible()
    if (name !== 'E minor pentatonic') await page.keyboard.press('ArrowRight')
  }
  const id = new URL(page.url()).searchParams.get('chart') ?? ''
  const kept = async () => (await call(server.address, 'GET', `routes?chartId=${id}`)).body.items
  await expect.poll(async () => (await kept())[0]?.steps?.length).toBe(3)
  expect((await kept())[0].steps.map((s: { overlay: string }) => s.overlay)).toEqual([
    'Dm6 arpeggio',
    'Bb & Ab',
    'E minor pentatonic',
  ])
  await page.keyboard.press('Home')
  await title(page, 'Dm6 arpeggio')

  await button(page, 'Print').first().click()
  await page.getByLabel('For', { exact: true }).selectOption('eb')
  await expect(page.locator('.paper')).toContainText('Bm6')
  await expect(page.locator('.paper')).not.toContainText('Drawing')
  const [sheet = '', ...more] = (await printed(page)).map((text) => text.replace(/\s+/g, ''))
  expect(more).toEqual([])
  // A written sixth above what sounds: G♯m7♭5, C♯7, F♯m6, and what is laid with them.
  for (const words of ['G♯m7♭5', 'C♯7', 'F♯m6', 'Bm6', 'G & F', 'C♯ minor pentatonic'])
    expect(sheet).toContain(words.replaceAll(' ', ''))
  expect(sheet).not.toContain('Am6')
  const paper = await page.locator('.paper').innerText()
  expect(paper).toMatch(/[↑↓]½/)
  expect(sheet).toMatch(/[↑↓]½/)
  await page.keyboard.press('Escape')

  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await open(phone, `${server.address}desk?chart=${id}&bar=1`)
  await phone.getByRole('button', { name: 'Stand' }).tap()
  const stand = phone.getByRole('region', { name: 'Chord' })
  await expect(stand).toContainText('Dm6 arpeggio')
  await expect(stand).toContainText('B♭ & A♭')
  await phone.touchscreen.tap(360, 90)
  await expect(stand.getByRole('heading')).toHaveText('E7')
  await phone.touchscreen.tap(360, 90)
  await expect(stand.getByRole('heading')).toHaveText('Am6')
  await phone.touchscreen.tap(20, 90)
  await expect(stand.getByRole('heading')).toHaveText('E7')
  await phone.close()

  await button(page, 'Play').click()
  await expect(button(page, 'Stop')).toBeVisible(MUSIC)
  await expect.poll(() => currentSpot(page).getAttribute('aria-label'), MUSIC).toContain('bar 2')
  await button(page, 'Stop').click()

  const steps = [{ bar: 1, beat: 1, beats: 4, chord: 'Bm7b5', overlay: 'D dorian' }]
  await call(server.address, 'POST', 'routes', { name: 'Plain', chartId: id, steps })
  await open(page, `${server.address}route?chart=${id}&panel=kept`)
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Take in hand' })
    .getByRole('button', { name: 'Take in hand' })
    .click()
  await expect(page.getByRole('button', { name: /^in hand: Plain/ })).toBeVisible()
  await open(page, `${server.address}desk?chart=${id}&bar=1`)
  await title(page, 'D dorian')
  await page.keyboard.press('Control+z')
  await expect(undone(page)).toBeVisible()
  await title(page, 'Dm6 arpeggio')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Delete')
  await title(page, 'E phrygian dominant')
  await page.keyboard.press('Control+z')
  await expect(undone(page)).toContainText('the route in bar 2')
  await title(page, 'B♭ & A♭')
  expect(said).toEqual([])
})

test('a bass player joins pairs over four dominants, inversion to inversion, with tablature, and hears them', async ({
  page,
}) => {
  test.slow()
  const said = complaints(page)
  const text = 'title = Bilge pump\n| C7 | % | Ab7 | % | F#7 | % | D7 | % |'
  const id = (await call(server.address, 'POST', 'charts', { title: 'Bilge pump', text })).body.id
  const pairs = ['D & Bb', 'Bb & F#', 'G# & E', 'E & C']
  const steps = pairs.flatMap((overlay, i) =>
    [1, 2].map((n) => ({ bar: 2 * i + n, beat: 1, beats: 4, overlay, carries: n === 2 })),
  )
  await call(server.address, 'POST', 'routes', { name: 'Pumps', chartId: id, steps, inHand: true })
  await open(page, `${server.address}pairs?chart=${id}&part=play&tab=on`)
  const staff = page.getByRole('group', { name: 'Staff' })
  await expect(staff).toBeVisible()
  const triads = page.getByText(/^1 of \d+: /)
  await expect(triads).toContainText('over C7')
  // Sixty-four eighths in all: twenty-one triads of three.
  await expect(triads).toContainText('of 21')
  const heights = async () =>
    await staff.locator('[data-pitch]').evaluateAll((all) => all.map((n) => Number(n.getAttribute('data-pitch'))))
  const pitches = await heights()
  expect(pitches).toHaveLength(63)
  await page.getByLabel('Path').selectOption('stay close')
  await expect.poll(async () => JSON.stringify(await heights())).not.toBe(JSON.stringify(pitches))
  const close = await heights()
  // From the last triad over one chord to the first over the next no voice goes further than a fourth.
  for (let i = 3; i < close.length; i += 3) {
    const [a, b] = [close.slice(i - 3, i).sort((x, y) => x - y), close.slice(i, i + 3).sort((x, y) => x - y)]
    expect(Math.max(...a.map((p, k) => Math.abs(p - (b[k] ?? p))))).toBeLessThanOrEqual(5)
  }
  const play = page.locator('main')
  for (const chord of ['C7', 'A♭7', 'F♯7', 'D7'])
    await expect(play.getByText(chord, { exact: true }).first()).toBeAttached()
  await button(page, 'Hear it').click()
  await expect(button(page, 'Stop')).toBeVisible(MUSIC)
  await page.keyboard.press('Escape')
  expect(said).toEqual([])
})

/** Presses counted, as a player counts them: a question typed is the slash and Enter, whatever its length. */
const counted = (page: Page) => {
  let presses = 0
  return {
    press: async (...keys: readonly string[]) => {
      for (const key of keys) {
        presses += 1
        await page.keyboard.press(key)
      }
    },
    ask: async (question: string) => {
      presses += 2
      await ask(page, question)
    },
    presses: () => presses,
  }
}

type Walk = (hands: ReturnType<typeof counted>, page: Page) => Promise<void>
const WALKS: Readonly<Record<string, readonly [from: string, walk: Walk]>> = {
  'what to lay over this chord, first of the list': [
    'desk?bar=3',
    async (hands, page) => {
      await expect(page.getByRole('listbox', { name: 'Overlays' }).getByRole('option').first()).toBeVisible()
      await hands.press('ArrowDown')
      await expect(
        page.getByRole('listbox', { name: 'Overlays' }).getByRole('option', { selected: true }),
      ).toBeVisible()
    },
  ],
  'a pentatonic over a chord, from the library': [
    'charts',
    async (hands, page) => {
      await hands.ask('Gb minor pentatonic over F7 to Bbmaj7')
      await title(page, 'G♭ minor pentatonic')
    },
  ],
  'the same a half step up, from Set-up': [
    'set-up?section=look&bar=13&over=G+dorian',
    async (hands, page) => {
      await hands.press('g', 'd', '.')
      await title(page, 'G♯ dorian')
    },
  ],
  'why this number': [
    'desk?bar=13&over=G+dorian',
    async (hands, page) => {
      await hands.press('w')
      await expect(page.getByRole('region', { name: 'Why this number' })).toContainText('Fade 58')
    },
  ],
  'laid, and read from afar': [
    'desk?bar=15&beat=3&over=A+%26+Eb',
    async (hands, page) => {
      await hands.press('l', 's')
      await expect(page.getByRole('region', { name: 'Chord' })).toContainText('A & E♭')
    },
  ],
  'which pairs fit, from a slider of the band': [
    'desk?bar=8&beat=3',
    async (hands, page) => {
      await page.getByRole('slider', { name: 'tempo', exact: true }).focus()
      await hands.press('g', 'p')
      await expect(page.getByRole('grid', { name: 'Pairs by quality' })).toBeVisible()
    },
  ],
  'which is further out, and why': [
    'desk?bar=13&over=G+dorian&tray=F+%26+G',
    async (hands, page) => {
      await hands.press('t')
      await page.getByRole('button', { name: /^Tray 2/ }).click()
      await expect(page.getByRole('region', { name: 'Compare' })).toContainText(
        /G dorian is further out than F & G by \d+: its 7/,
      )
    },
  ],
  'a whole chain for the form, taken': [
    'route',
    async (hands, page) => {
      await expect(page.getByText(/^best \d+, exact/)).toBeVisible()
      await hands.press('ArrowDown', 'Shift+L')
      await expect(page.getByRole('status').filter({ hasText: /^In hand: / })).toBeVisible()
    },
  ],
  'what a diminished chord holds, by root': [
    'desk?bar=15&beat=3',
    async (hands, page) => {
      await hands.press('g', 'y')
      await expect(page.getByRole('table').getByRole('row').nth(1)).toContainText(/\d/)
    },
  ],
  'what the shapes and our words mean, then back': [
    'line',
    async (hands, page) => {
      await hands.press('?')
      await expect(page.getByRole('dialog')).toContainText('how well it comes home')
      await hands.press('Escape')
      await expect(page.getByRole('dialog')).toHaveCount(0)
    },
  ],
}

for (const [goal, [from, walk]] of Object.entries(WALKS))
  test(`in at most five presses: ${goal}`, async ({ page }) => {
    await open(page, `${server.address}${from}${from.includes('?') ? '&' : '?'}chart=${ids.get('Pier Eleven')}`)
    const hands = counted(page)
    await walk(hands, page)
    expect(hands.presses()).toBeLessThanOrEqual(5)
  })

test('New puts the cursor into the editor, Esc leaves it, and all of it is replaced by typing without a complaint', async ({
  page,
}) => {
  const said = complaints(page)
  await open(page, `${server.address}charts`)
  await button(page, 'New').click()
  const editor = page.getByRole('textbox', { name: 'Chart text' })
  await expect(editor).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('title = Anew\n| Gm7 | C7 |')
  await expect(strip(page).getByRole('listitem')).toHaveCount(2)
  // The first leaves what is offered to complete a word, where something is.
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(editor).not.toBeFocused()
  await page.keyboard.press('g')
  await page.keyboard.press('d')
  await expect(page).toHaveURL(/\/desk\?/)
  await expect.poll(async () => (await slopeLabels(page)).length).toBeGreaterThan(3)
  expect(said).toEqual([])
})

test('a choice and a slider keep their own keys and leave the letters to the page', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${ids.get('Pier Eleven')}&bar=13&over=G+dorian`)
  const order = page.getByRole('combobox', { name: 'Order' })
  await order.focus()
  await page.keyboard.press('f')
  await expect(order).toHaveValue('use')
  await order.focus()
  await page.keyboard.press('w')
  await expect(page.getByRole('region', { name: 'Why this number' })).toBeVisible()
  await order.focus()
  await page.keyboard.press('ArrowDown')
  await expect(order).toHaveValue('fade')
  await expect(currentSpot(page)).toContainText('B7')
})

test('an empty start shows an answer to press about in, and loads the ferry band at a press', async ({ page }) => {
  const data = emptyData()
  const fresh = await startServer(data)
  await open(page, `${fresh.address}`)
  const answer = page.getByRole('region', { name: 'An answer' })
  await answer.getByRole('group', { name: 'Slope' }).getByRole('button').nth(1).click()
  await expect(answer).toContainText(/is (heard as|the) .* over E♭7/)
  await button(page, 'Load the ferry band’s charts').click()
  await expect.poll(async () => (await call(fresh.address, 'GET', 'charts')).body.items.length).toBe(6)
  await expect.poll(async () => (await call(fresh.address, 'GET', 'routes')).body.items.length).toBe(3)
  await fresh.end()
  removeData(data)
})
