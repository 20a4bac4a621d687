import AxeBuilder from '@axe-core/playwright'
import { expect, type Page, test } from '@playwright/test'
import { plugIn, strike } from './midi.ts'
import { complaints, MUSIC, open, pedal, pedalTwice } from './page.ts'
import { call, serverOfFile } from './server.ts'

const server = serverOfFile(async (address) => {
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
})
test.beforeEach(({ page }) => page.emulateMedia({ reducedMotion: 'reduce' }))

const make = async (kind: string, row: object) => (await call(server.address, 'POST', kind, row)).body
const log = async () => (await call(server.address, 'GET', 'log?sort=-at&limit=200')).body.items
const today = async (minutes = 25) => (await call(server.address, 'GET', `practice/today?minutes=${minutes}`)).body
const round = (page: Page) => page.getByRole('region', { name: 'Round' })
const grade = (page: Page, name: string) =>
  page.getByRole('group', { name: 'How it went' }).getByRole('button', { name, exact: true })
const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true })

const FAST = { from: 240, to: 240, step: 4 }
const TWO = { kind: 'overlay', overlay: 'B minor pentatonic', chord: 'Eb7', next: 'Abmaj7' }

test('eight rounds over four keys by pedal alone, graded, stopped; one grade undone; the next day’s list has moved on', async ({
  page,
}) => {
  test.slow()
  const said = complaints(page)
  const { id } = await make('items', { name: 'Fives', of: TWO, keys: ['Eb', 'D', 'F#', 'A'], tempo: FAST })
  expect((await today()).blocks.map((b: { kind: string }) => b.kind)).toContain('new')
  await open(page, `${server.address}player?item=${id}`)
  await expect(round(page)).toContainText('in E♭')
  await pedal(page, 'PageDown')
  for (const [i, key] of ['E♭', 'D', 'F♯', 'A'].entries()) {
    await expect(round(page).locator('p').first()).toContainText(`in ${key} `, MUSIC)
    await expect(round(page)).toContainText('play it 2 of 2', MUSIC)
    await pedal(page, i === 2 ? 'PageUp' : 'PageDown')
    await expect.poll(async () => (await log()).length).toBe(i + 1)
  }
  await pedalTwice(page)
  await expect(button(page, 'Play').first()).toBeVisible()
  await expect.poll(async () => (await log()).length).toBe(4)
  const told = (await log()).map((e: { key: string; grade: string; tempo: number; kind: string }) =>
    [e.kind, e.key, e.grade, e.tempo].join(' '),
  )
  expect(told.reverse()).toEqual(['round Eb clean 240', 'round D clean 240', 'round F# again 240', 'round A clean 240'])

  // The same round once more is another round.
  await page.keyboard.press('Space')
  await expect(button(page, 'Stop').first()).toBeVisible()
  await expect(grade(page, 'clean')).toHaveAttribute('aria-pressed', 'false')
  await pedal(page, 'PageDown')
  await expect.poll(async () => (await log()).length).toBe(5)
  await page.keyboard.press('Escape')
  await expect(button(page, 'Play').first()).toBeVisible()

  for (const left of [4, 3]) {
    await page.keyboard.press('Control+z')
    await expect.poll(async () => (await log()).length).toBe(left)
    await expect(page.getByRole('status').filter({ hasText: 'Undone: making' })).toContainText('the round in A, clean')
  }
  await expect(grade(page, 'clean')).toHaveAttribute('aria-pressed', 'false')
  await open(page, `${server.address}practice`)
  const fives = page.getByRole('list', { name: 'Session' }).getByRole('listitem').filter({ hasText: 'Fives' })
  // What was played waits for another day; the key whose grade was taken back is the new thing.
  await expect(fives.filter({ has: page.getByText('New', { exact: true }) })).toContainText('in A')
  await expect(fives.filter({ has: page.getByText('Due', { exact: true }) })).toHaveCount(0)
  expect(said).toEqual([])
})

test('from the Desk to playing in two presses, from Set-up in three; the line sounds and then is silent; Esc leads back', async ({
  page,
}) => {
  const chart = await make('charts', { title: 'Bilge', text: 'tempo = 200\n| Eb7 | Abmaj7 |' })
  await open(page, `${server.address}desk?chart=${chart.id}&over=E+major+pentatonic`)
  await page.keyboard.press('p')
  await expect(round(page)).toContainText('E major pentatonic')
  await expect(page.getByText('listen 1 of 2')).toBeVisible()
  await page.keyboard.press('Space')
  await expect(button(page, 'Stop').first()).toBeVisible()
  await expect(page.getByText('play it 2 of 2')).toBeVisible(MUSIC)
  await page.keyboard.press('Escape')
  await expect(button(page, 'Play').first()).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: 'Practice' })).toBeVisible()
  // The same again is the same item.
  await page.keyboard.press('g')
  await page.keyboard.press('d')
  await page.keyboard.press('p')
  await expect(round(page)).toContainText('E major pentatonic')
  const items = (await call(server.address, 'GET', 'items?q=major pentatonic')).body.items
  expect(items[0].name).toBe('major pentatonic on b9 over 7, to maj7')
  expect(items.map((i: { of: object }) => i.of)).toEqual([
    { kind: 'overlay', overlay: 'E major pentatonic', chord: 'Eb7', next: 'Abmaj7' },
  ])

  await open(page, `${server.address}set-up`)
  await page.keyboard.press('g')
  await page.keyboard.press('t')
  await expect(
    button(page, 'Start 25 minutes').or(page.getByRole('button', { name: /^Start \d+ minutes$/ })),
  ).toBeEnabled()
  await page.keyboard.press('Space')
  await expect(round(page)).toBeVisible()
  await expect(button(page, 'Stop').first()).toBeVisible()
})

test('who begins before the items have come waits for them, and makes none twice', async ({ page }) => {
  const chart = await make('charts', { title: 'Fender', text: '| Dm7 | Em7 |' })
  const of = { kind: 'overlay', overlay: 'F lydian', chord: 'Dm7', next: 'Em7' }
  const { id } = await make('items', { name: 'Mist', of, keys: ['D'], tempo: FAST })
  await page.route(/\/items\?/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 2500))
    await route.continue()
  })
  await open(page, `${server.address}practice`)
  await expect(page.getByRole('button', { name: /^Start \d+ minutes$/ })).toBeEnabled()
  await page.keyboard.press('Space')
  await expect(round(page)).toBeVisible(MUSIC)
  await open(page, `${server.address}desk?chart=${chart.id}&over=F+lydian`)
  await page.keyboard.press('p')
  await expect(round(page)).toContainText('F lydian', MUSIC)
  const items = (await call(server.address, 'GET', 'items')).body.items
  expect(items.filter((i: { of: object }) => JSON.stringify(i.of).includes('F lydian'))).toMatchObject([{ id }])
})

test('a session is rearranged by keys, kept as a routine, has its break, and goes on from block to block', async ({
  page,
}) => {
  await make('items', {
    name: 'Blocks',
    of: { kind: 'out-in', chord: 'Dm7', outside: 'a half step up', block: 2, first: 'in' },
    keys: ['D'],
    tempo: FAST,
  })
  await open(page, `${server.address}practice?minutes=45`)
  const blocks = page.getByRole('list', { name: 'Session' }).getByRole('listitem')
  await expect(blocks.filter({ hasText: 'Freely' })).toHaveCount(1)
  const kinds = () => blocks.evaluateAll((all) => all.map((b) => b.querySelectorAll('span')[1]?.textContent ?? ''))
  const before = await kinds()
  const last = before.length - 1
  await blocks
    .nth(last)
    .getByRole('button', { name: /^Move / })
    .focus()
  await page.keyboard.press('Space')
  await page.waitForTimeout(200)
  await page.keyboard.press('ArrowUp')
  await page.waitForTimeout(200)
  await page.keyboard.press('Space')
  await expect.poll(kinds).toEqual([...before.slice(0, last - 1), before[last], before[last - 1]])

  await page.getByText('Routines').click()
  await page.getByRole('textbox', { name: 'This list as a routine' }).fill('Evenings')
  await page.keyboard.press('Enter')
  await expect(button(page, 'Evenings')).toBeVisible()

  await blocks
    .nth(0)
    .getByRole('button', { name: /^Leave out / })
    .click()
  await expect(blocks).toHaveCount(before.length - 1)
  await page.getByRole('button', { name: /^Start \d+ minutes$/ }).click()
  for (let i = 1; i < before.length; i++) {
    const free = page.getByRole('heading', { name: 'One chorus as you like' })
    await expect(
      round(page)
        .or(free)
        .or(page.getByRole('heading', { name: 'A break' })),
    ).toBeVisible()
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText('That was the session. The log has it.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Practice' })).toBeVisible()
})

test('the quiz is asked and answered by keys; what was wrong comes again, is logged, and is told as a confusion', async ({
  page,
}) => {
  await open(page, `${server.address}practice?practise=quiz&topic=degree`)
  const question = page.getByRole('region', { name: 'Question' })
  await page.keyboard.press('Space')
  const asked = await question.locator('p').first().textContent()
  await page.keyboard.press('1')
  await expect(question.getByRole('status')).toContainText(/Right\.|No: /)
  const texts: (string | null)[] = []
  // The right answer is read off the page, and a wrong one taken on purpose.
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press('Enter')
    await expect(question.getByRole('status')).toBeEmpty()
    texts.push(await question.locator('p').first().textContent())
    await page.keyboard.press('2')
    await expect(question.getByRole('status')).not.toBeEmpty()
  }
  const quizzed = async () => (await log()).filter((e: { kind: string }) => e.kind === 'quiz')
  await expect.poll(async () => (await quizzed()).length).toBe(6)
  const answers = await quizzed()
  const wrong = answers.filter((e: { grade: string }) => e.grade === 'again')
  expect(
    wrong.every((e: { answered: { right: string; given: string } }) => e.answered.right !== e.answered.given),
  ).toBe(true)
  // Whatever was answered wrongly among the first three was put again by now.
  const first = [asked, ...texts]
  const early = answers.toReversed().slice(0, 2)
  for (const [i, e] of early.entries()) if (e.grade === 'again') expect(first.slice(i + 1)).toContain(first[i])

  // A quiz among the items is begun with its own topics, and one of them alone from its card.
  await make('items', { name: 'Again and again', of: { kind: 'quiz', topics: ['repeats', 'dominants'] } })
  await open(page, `${server.address}practice?practise=items`)
  const item = page.getByRole('listitem').filter({ has: page.getByRole('list', { name: 'Keys of Again and again' }) })
  await item.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(question).toContainText(/come again|stand behind/)
  await button(page, 'Items').click()
  await item.getByRole('button', { name: /^repeats, / }).click()
  await expect(question).toContainText('come again')
})

test('an item is put off and taken up again, a key is left out on purpose, its ladder is changed; each undone by name', async ({
  page,
}) => {
  await make('items', { name: 'Moored', of: TWO, keys: 'fourths' })
  await open(page, `${server.address}practice?practise=items`)
  const item = page.getByRole('listitem').filter({ has: page.getByRole('list', { name: 'Keys of Moored' }) })
  const cards = item.getByRole('list').getByRole('listitem')
  await expect(cards).toHaveCount(12)
  await item.getByText('Keys and ladder').click()
  await item.getByRole('group', { name: 'Left out on purpose' }).getByRole('button', { name: 'F♯' }).click()
  await expect(cards).toHaveCount(11)
  await item.getByRole('spinbutton', { name: 'to' }).fill('96')
  await item.getByRole('spinbutton', { name: 'to' }).press('Tab')
  await item.getByRole('button', { name: 'Rest it' }).click()
  await expect(item.getByText('All of it: rested')).toBeVisible()
  const kept = async () => (await call(server.address, 'GET', 'items?q=Moored')).body.items[0]
  await expect.poll(async () => (await kept()).rests?.length).toBe(1)
  expect(await kept()).toMatchObject({
    keys: { order: 'fourths', without: ['F#'] },
    tempo: { from: 60, to: 96, step: 4 },
  })
  expect((await today(45)).blocks.some((b: { name: string | null }) => b.name === 'Moored')).toBe(false)
  await item.getByRole('button', { name: 'Take it up again' }).last().click()
  await expect.poll(async () => (await kept()).rests).toEqual([])
  for (const what of [
    'what is put off of Moored',
    'what is put off of Moored',
    'the tempo of Moored',
    'the keys of Moored',
  ]) {
    await page.keyboard.press('Control+z')
    await expect(page.getByRole('status').filter({ hasText: 'Undone' })).toContainText(what)
  }
  await expect(cards).toHaveCount(12)
})

test('the quiz is answered by playing', async ({ page }) => {
  await plugIn(page)
  await open(page, `${server.address}practice?practise=quiz&topic=note`)
  await button(page, 'Answer by playing (MIDI)').click()
  await expect(button(page, 'Answer by playing (MIDI)')).toHaveAttribute('aria-pressed', 'true')
  await button(page, 'Begin').click()
  const question = page.getByRole('region', { name: 'Question' })
  await expect(question.getByRole('listitem').first()).toBeVisible()
  const NAMES: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }
  const text = ((await question.getByRole('listitem').nth(1).textContent()) ?? '').replace(/^\d\s*/, '').trim()
  const signs = [...text.slice(1)].reduce((sum, c) => sum + ({ '♭': -1, '♯': 1, '𝄫': -2, '𝄪': 2 }[c] ?? 0), 0)
  await strike(page, 60 + (((NAMES[text[0] ?? ''] ?? 0) + signs + 12) % 12))
  await expect(question.getByRole('status')).not.toBeEmpty()
  await expect(question.getByRole('listitem').nth(1)).toContainText(/✓|not this/)
})

test('the log: a sentence, a grade that is changed, a hole that is filled, the course, CSV; axe finds nothing', async ({
  page,
}) => {
  const said = complaints(page)
  const { id } = await make('items', {
    name: 'Coverage',
    of: { kind: 'overlay', overlay: 'F', chord: 'Dm7' },
    keys: 'fourths',
  })
  const at = new Date(Date.now() - 3 * 86_400_000).toISOString()
  await make('log', { kind: 'round', at, itemId: id, key: 'D', tempo: 88, grade: 'clean', minutes: 3 })
  await open(page, `${server.address}log`)
  const cell = (name: RegExp) => page.getByRole('button', { name })
  await expect(cell(/^triads in D: 3 days ago, 100 of 100 rounds clean, tempo 88$/)).toBeVisible()
  await expect(cell(/^triads in E: never/)).toHaveText('·')
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])

  await button(page, 'Entries').click()
  await page.getByRole('textbox', { name: 'A sentence, a gig, a feeling' }).fill('=HYPERLINK("quay") The border holds.')
  await page.keyboard.press('Enter')
  await expect(page.getByText('The border holds.')).toBeVisible()
  await page.getByRole('combobox', { name: 'Grade of Coverage in D at 88' }).selectOption('again')
  await expect.poll(async () => (await log()).find((e: { itemId: string }) => e.itemId === id)?.grade).toBe('again')
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
  await button(page, 'Coverage').click()
  await expect(cell(/^triads in D: 3 days ago, 0 of 100 rounds clean/)).toBeVisible()

  await button(page, 'Course').click()
  const minutes = page.getByRole('region', { name: 'Minutes a day' })
  await minutes.getByText('as a table').click()
  await expect(minutes.getByRole('row').nth(-4)).toContainText('3.0')
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])

  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()])
  const lines: string[] = []
  for await (const piece of await file.createReadStream()) lines.push(String(piece))
  const csv = lines.join('')
  expect(csv).toContain('Coverage,D,88,again,3')
  expect(csv).toContain(`'=HYPERLINK`)

  await button(page, 'Coverage').click()
  await cell(/^triads in E: never/).click()
  await expect(round(page)).toContainText('in E')
  expect(said).toEqual([])
})

test('what is kept is found by a word or a chord, and opened where it stands', async ({ page }) => {
  const chart = await make('charts', { title: 'Fender', text: '| C | F#7 | Bmaj7 |' })
  await make('ideas', {
    overlay: 'D minor pentatonic',
    chord: 'F#7',
    note: 'harbour lights',
    chartId: chart.id,
    bar: 2,
    beat: 1,
  })
  await make('lines', { name: 'Harbour steps', chartId: chart.id, line: { notes: [{ at: 0, for: 480, pitch: 60 }] } })
  await open(page, `${server.address}log?logged=kept`)
  const rows = page.getByRole('list', { name: 'Kept' }).getByRole('listitem')
  await page.getByRole('textbox', { name: 'A word, a chord, a tag' }).fill('harbour')
  await expect(rows).toHaveCount(2)
  await expect(rows.first()).toContainText('Harbour steps')
  await page.getByRole('textbox', { name: 'A word, a chord, a tag' }).fill('F#7')
  await expect(rows).toHaveCount(1)
  await rows.first().getByRole('button', { name: 'Open' }).click()
  await expect(page.getByRole('heading', { name: 'D minor pentatonic' })).toBeVisible()
  expect(new URL(page.url()).searchParams.get('bar')).toBe('2')
})

test('practice, the player and the quiz hold nothing that axe finds, in club too', async ({ browser }) => {
  const context = await browser.newContext({ colorScheme: 'dark', reducedMotion: 'reduce' })
  const page = await context.newPage()
  const { id } = await make('items', { name: 'Axe', of: { kind: 'combine', sounds: ['F', 'G'], chord: 'Dm7' } })
  for (const path of ['practice', 'practice?practise=items', 'practice?practise=quiz', `player?item=${id}`]) {
    await open(page, server.address + path)
    await page.waitForTimeout(400)
    if (path.includes('quiz')) await page.keyboard.press('Space')
    expect((await new AxeBuilder({ page }).analyze()).violations, path).toEqual([])
  }
  await context.close()
})
