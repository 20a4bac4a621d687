import { expect, type Page, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { listen, takePeak } from './listen.ts'
import { plugIn, strike } from './midi.ts'
import { complaints, currentSpot, MUSIC, open } from './page.ts'
import { call } from './server.ts'
import { readWav } from './wav.ts'

const data = emptyData()
let server: Running
let wharf: string

test.beforeAll(async () => {
  server = await startServer(data)
  await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  const text = 'title = Wharf\n| Gmaj7 | Dm7 | G7 | Cmaj7 |'
  wharf = (await call(server.address, 'POST', 'charts', { title: 'Wharf', text })).body.id
})
test.afterAll(async () => {
  await server.end()
  removeData(data)
})

const TUNE = 'X:1\nM:4/4\nL:1/8\nK:C\nz2 A ^F G4 | D F A c B A F E | G _A _B =B _d =d e f | e4 z4 |'
const notes = (page: Page) => page.getByRole('group', { name: 'Line' }).getByRole('button')
const verdict = (page: Page) => page.getByRole('list', { name: 'Your school' }).getByRole('listitem')
const bring = async (page: Page, name: string, text: string) => {
  await page.getByRole('button', { name: 'Bring a line' }).click()
  const dialog = page.getByRole('dialog', { name: 'Bring a line' })
  await dialog.getByLabel('Name').fill(name)
  await dialog.getByLabel('ABC or MusicXML').fill(text)
  await dialog.getByRole('button', { name: 'Look into it' }).click()
  return dialog
}

test('a tune is brought, taken apart, walked by its sentences, judged beside another school, exported and brought again', async ({
  page,
}) => {
  const said = complaints(page)
  await open(page, `${server.address}line?chart=${wharf}`)
  await expect(page.getByText('No line lies over this chart yet.')).toBeVisible()
  const dialog = await bring(page, 'To the crane', TUNE)
  await expect(dialog.getByRole('status')).toContainText('20 notes.')
  await dialog.getByRole('button', { name: 'Keep it' }).click()
  await expect(notes(page)).toHaveCount(20)
  await expect(notes(page).first()).toHaveAccessibleName('note 1, A, 9, extension, fade 15, enclosure, bar 1, beat 2')
  await expect(notes(page).nth(11)).toHaveAccessibleName(/^note 12, G, 1, chord, fade 0, symmetric run G half-whole/)
  await verdict(page)
    .getByRole('button', { name: /^The notes in bar 1, beats 2–[\d½]+ enclose G \(the 1 of Gmaj7\)\.$/ })
    .click()
  await expect(page.getByRole('region', { name: 'Note' })).toContainText('note 1, bar 1, beat 2')
  await verdict(page)
    .getByRole('button', { name: /^[·✓!]? ?The notes (from|in) bar .* are heard as G half-whole/ })
    .click()
  await expect(page).toHaveURL(/note=12/)
  await page.keyboard.press('ArrowRight')
  await expect(notes(page).nth(12)).toHaveAttribute('aria-current', 'true')
  await page.keyboard.press('PageDown')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 4, beat 1, Cmaj7')
  await expect(notes(page).nth(19)).toHaveAttribute('aria-current', 'true')
  await page.getByRole('combobox', { name: 'Beside it' }).selectOption('a strict arranger')
  await expect(page.getByRole('list', { name: 'a strict arranger' }).getByRole('listitem').first()).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByText('Files')
      .click()
      .then(() => page.getByRole('link', { name: 'MusicXML' }).click()),
  ])
  expect(file.suggestedFilename()).toBe('To the crane.musicxml')
  const [sound] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'WAV', exact: true }).click(),
  ])
  expect(sound.suggestedFilename()).toMatch(/\.wav$/)
  expect(readWav(await sound.path()).samples.some((x) => x > 0.01)).toBe(true)
  const { readFile } = await import('node:fs/promises')
  const before = await notes(page).evaluateAll((all) => all.map((n) => n.getAttribute('aria-label')))
  const again = await bring(page, 'Again', await readFile(await file.path(), 'utf8'))
  await again.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the line' })).toHaveValue('Again')
  await expect(notes(page)).toHaveCount(20)
  expect(await notes(page).evaluateAll((all) => all.map((n) => n.getAttribute('aria-label')))).toEqual(before)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('combobox', { name: 'Which line' }).getByRole('option')).toHaveCount(1)
  expect(said).toEqual([])
})

test('a MIDI file is looked into, its voice and bar chosen, and a wrong first beat mended and undone', async ({
  page,
}) => {
  const line = { abc: TUNE }
  const made = await call(server.address, 'POST', 'lines', { name: 'Hoist', text: '| Gmaj7 |', line })
  const file = Buffer.from(
    await (await fetch(`${server.address}api/v1/lines/${made.body.id}/export?as=midi`)).arrayBuffer(),
  )
  await open(page, `${server.address}line?chart=${wharf}`)
  await page.getByRole('button', { name: 'Bring a line' }).click()
  const dialog = page.getByRole('dialog', { name: 'Bring a line' })
  await dialog.getByLabel('Line file').setInputFiles({ name: 'hoist.mid', mimeType: 'audio/midi', buffer: file })
  await expect(dialog.getByRole('status')).toContainText('20 notes.')
  await dialog.getByRole('combobox', { name: 'Brought to' }).selectOption('sixteenths')
  await dialog.getByRole('combobox', { name: 'It begins with' }).selectOption('2')
  await dialog.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the line' })).toHaveValue('hoist')
  await expect(notes(page).first()).toHaveAccessibleName(/bar 2, beat 2$/)
  await page.getByRole('button', { name: 'Place', exact: true }).click()
  await page.getByRole('button', { name: '← beat' }).click()
  await expect(notes(page).first()).toHaveAccessibleName(/bar 2, beat 1$/)
  await page.keyboard.press('Control+z')
  await expect(notes(page).first()).toHaveAccessibleName(/bar 2, beat 2$/)
})

test('of a tune with voices the melody is read, another is one key away, and its spelling is kept into every file', async ({
  page,
}) => {
  const tune = 'X:1\nT:Davit\nL:1/4\nV:1 name="Reed"\nV:2 name="Keel"\nK:Db\nV:1\n_ccef|_g4|\nV:2\nD,_G,,D,_G,,|D,4|\n'
  await open(page, `${server.address}line?chart=${wharf}`)
  await page.getByRole('button', { name: 'Bring a line' }).click()
  const dialog = page.getByRole('dialog', { name: 'Bring a line' })
  const file = { name: 'davit.abc', mimeType: 'text/plain', buffer: Buffer.from(tune, 'utf16le') }
  await dialog.getByLabel('Line file').setInputFiles(file)
  const voices = dialog.getByRole('group', { name: 'Which voice' })
  await expect(voices.getByRole('radio', { name: /^Reed/ })).toBeChecked()
  await voices.getByRole('radio', { name: /^Reed/ }).focus()
  await page.keyboard.press('ArrowDown')
  await expect(voices.getByRole('radio', { name: /^Keel/ })).toBeChecked()
  await expect(dialog.getByRole('status')).toContainText('Reed (5 notes)')
  await page.keyboard.press('ArrowUp')
  await expect(dialog.getByRole('status')).toContainText('5 notes.')
  await dialog.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the line' })).toHaveValue('davit')
  await expect
    .poll(async () => (await call(server.address, 'GET', 'lines?q=davit')).body.items[0]?.line.notes[0])
    .toEqual({
      ...{ at: 0, for: 960, pitch: 71, name: 'Cb' },
    })
  const { id } = (await call(server.address, 'GET', 'lines?q=davit')).body.items[0]
  const abc = await (await fetch(`${server.address}api/v1/lines/${id}/export?as=abc`)).text()
  expect(abc).toContain('_c')
  expect(await (await fetch(`${server.address}api/v1/lines/${id}/export?as=csv`)).text()).toContain('0,960,71,Cb,5')
})

const dropFile = (page: Page, name: string, bytes: readonly number[]) =>
  page.evaluate(
    ([file, data]) => {
      const dataTransfer = new DataTransfer()
      dataTransfer.items.add(new File([Uint8Array.from(data)], file))
      window.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }))
    },
    [name, bytes] as const,
  )

test('a file that is dropped goes where it belongs, wherever one is', async ({ page }) => {
  const { id } = (await call(server.address, 'POST', 'lines', { name: 'Hawser', chartId: wharf, line: { abc: TUNE } }))
    .body
  const midi = await (await fetch(`${server.address}api/v1/lines/${id}/export?as=midi`)).arrayBuffer()
  const bytes = (text: string) => [...new TextEncoder().encode(text)]
  const dialog = page.getByRole('dialog', { name: 'Bring a line' })
  await open(page, `${server.address}desk?chart=${wharf}`)
  await dropFile(page, 'hawser.mid', [...new Uint8Array(midi)])
  await expect(dialog.getByRole('status')).toContainText('20 notes.')
  await expect(dialog.getByLabel('Name')).toHaveValue('hawser')
  await page.keyboard.press('Escape')

  await open(page, `${server.address}charts?chart=${wharf}`)
  await dropFile(page, 'winch.abc', bytes(TUNE))
  await expect(dialog.getByRole('status')).toContainText('20 notes.')
  await page.keyboard.press('Escape')

  await dropFile(page, 'winch.abc', bytes(TUNE.replace('z2', '"G"z2')))
  await expect(dialog.getByRole('status')).toContainText('20 notes.')
  await page.keyboard.press('Escape')

  await dropFile(page, 'capstan.txt', bytes('title = Capstan\n| Dm7 | G7 |'))
  await expect(page.getByRole('dialog', { name: 'From capstan.txt' })).toContainText('2 bars')
})

test('what is no line is refused in words, and nothing is lost', async ({ page }) => {
  await open(page, `${server.address}line?chart=${wharf}`)
  const dialog = await bring(page, 'No line', 'this is no tune')
  await expect(dialog.getByRole('alert')).toContainText('no ABC tune')
  await expect(dialog.getByLabel('ABC or MusicXML')).toHaveValue('this is no tune')
})

const BARE = 'title = Quay\ntempo = 240\n| Dm7 | G7 | Cmaj7 | Cmaj7 |'
const degrees = (page: Page) => page.getByRole('textbox', { name: 'Degrees' })
const labels = (page: Page) => notes(page).evaluateAll((all) => all.map((n) => n.getAttribute('aria-label') ?? ''))
const type = async (page: Page, words: string) => {
  await degrees(page).click()
  for (const word of words.split(' ')) {
    const before = (await labels(page)).length
    await degrees(page).fill(word)
    await page.keyboard.press('Enter')
    if (/\d/.test(word) && !word.startsWith(':')) await expect(notes(page)).toHaveCount(before + 1)
  }
}
const begin = async (page: Page, text = BARE): Promise<string> => {
  const chart = (await call(server.address, 'POST', 'charts', { title: 'Quay', text })).body.id
  await open(page, `${server.address}line?chart=${chart}`)
  await page.getByRole('button', { name: 'New line' }).click()
  await expect(degrees(page)).toBeVisible()
  return chart
}

test('a line is written by degrees, moved by keys, tapped on staff and keys, and each step is undone', async ({
  page,
}) => {
  const said = complaints(page)
  await begin(page)
  await type(page, 'b3 5 b7 9 :1/3 1 b3 5')
  expect((await labels(page)).map((l) => l.split(', ').slice(1, 3).join(' '))).toEqual([
    'F ♭3',
    'A 5',
    'C ♭7',
    'E 9',
    'D 1',
    'F ♭3',
    'A 5',
  ])
  await degrees(page).fill('5 h3')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“h3” is not understood')
  await expect(degrees(page)).toHaveValue('5 h3')
  await degrees(page).fill('')
  await page.keyboard.press('ArrowUp')
  await expect(notes(page).nth(6)).toHaveAccessibleName(/B♭, ♭13/)
  await page.keyboard.press('Shift+ArrowDown')
  await expect(notes(page).nth(6)).toHaveAccessibleName(/B♭, ♭13/)
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Backspace')
  await expect(notes(page)).toHaveCount(6)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(notes(page)).toHaveCount(7)
  await page.getByRole('button', { name: 'The whole line a half step up' }).click()
  await expect(notes(page).first()).toHaveAccessibleName(/^note 1, F♯, 3/)
  await page.getByRole('button', { name: 'Keys', exact: true }).click()
  const keyboard = page.getByRole('group', { name: 'Keyboard' })
  await notes(page).last().click()
  await keyboard.getByRole('button', { name: /^A, 5/ }).first().click()
  await expect(notes(page)).toHaveCount(8)
  await expect(notes(page).last()).toHaveAccessibleName(/A, 5/)
  const band = (await page.getByRole('group', { name: 'Line' }).boundingBox()) ?? { x: 0, y: 0 }
  await page.mouse.click(band.x + 700, band.y + 75)
  await expect(notes(page)).toHaveCount(9)
  const keptNotes = async () => (await call(server.address, 'GET', 'lines')).body.items[0].line.notes.length
  await expect.poll(keptNotes).toBe(9)
  await page.reload()
  await page.waitForSelector('html[data-ready]')
  await expect(notes(page)).toHaveCount(9)
  expect(said).toEqual([])
})

test('an instrument plays a line in, one note after another', async ({ page }) => {
  await plugIn(page)
  await begin(page)
  await page.getByRole('button', { name: 'play it in' }).click()
  await expect(page.getByRole('button', { name: 'play it in' })).toHaveAttribute('aria-pressed', 'true')
  for (const pitch of [62, 65, 69]) {
    await strike(page, pitch)
  }
  await expect(notes(page)).toHaveCount(3)
  expect((await labels(page)).map((l) => l.split(', ')[1])).toEqual(['D', 'F', 'A'])
})

test('a line is played while the view changes, a note changed and the verdict with it, undone, exported, brought again', async ({
  page,
}) => {
  await listen(page)
  const said = complaints(page)
  await begin(page)
  await type(page, ':1 1 5 b3 b7 5 3 b7 1 :4 3')
  await expect(verdict(page).getByRole('button', { name: /^It ends on E \(the 3 of Cmaj7\)/ })).toBeVisible()
  await page.keyboard.press('Tab')
  await notes(page).first().focus()
  await page.keyboard.press('Enter')
  await page.locator('body').click({ position: { x: 5, y: 300 } })
  await page.keyboard.press('Space')
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.005)
  await expect(currentSpot(page)).toHaveAccessibleName(/bar [234]/, MUSIC)
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.005)
  await page.getByRole('link', { name: 'Line' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await notes(page).last().click()
  await degrees(page).click()
  await page.keyboard.press('ArrowUp')
  await expect(
    verdict(page).getByRole('button', { name: /^The line ends on F \(the 11 of Cmaj7\), a suspension/ }),
  ).toBeVisible()
  const fault = verdict(page).filter({ hasText: 'The line ends on F' })
  await fault.getByRole('button', { name: /^Dispute/ }).click()
  await expect(fault).toContainText('You: not so.')
  await page.reload()
  await page.waitForSelector('html[data-ready]')
  await expect(fault).toContainText('You: not so.')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(fault).not.toContainText('You: not so.')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(verdict(page).getByRole('button', { name: /^It ends on E \(the 3 of Cmaj7\)/ })).toBeVisible()
  const before = await labels(page)
  await page.getByText('Files').click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'MIDI', exact: true }).click(),
  ])
  const { readFile } = await import('node:fs/promises')
  const buffer = await readFile(await file.path())
  await page.getByRole('button', { name: 'Bring a line' }).click()
  const dialog = page.getByRole('dialog', { name: 'Bring a line' })
  await dialog.getByLabel('Line file').setInputFiles({ name: 'quay.mid', mimeType: 'audio/midi', buffer })
  await dialog.getByRole('combobox', { name: 'of chorus' }).selectOption('2')
  await dialog.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the line' })).toHaveValue('quay')
  expect(await labels(page)).toEqual(before)
  await page.getByRole('button', { name: 'Place', exact: true }).click()
  await expect(page.getByRole('combobox', { name: 'of chorus' })).toHaveValue('2')
  await page.getByRole('combobox', { name: 'Bring it to another grid' }).selectOption('triplets')
  await expect(page.getByRole('status').filter({ hasText: 'Brought to the grid.' })).toBeVisible()
  expect(said).toEqual([])
})

test('a cell is kept as an idea and cut out; the fade is drawn beside the route that planned it', async ({ page }) => {
  const chart = await begin(page)
  const steps = [
    { bar: 1, beat: 1, overlay: 'D dorian', fade: 10 },
    { bar: 2, beat: 1, overlay: 'Db major pentatonic', fade: 80 },
  ]
  await call(server.address, 'POST', 'routes', { name: 'Out and in', chartId: chart, steps })
  await type(page, '1 b3 5 b7 9 b7 5 b3')
  await notes(page).first().click()
  await page.getByRole('button', { name: /^Keep .* as an idea$/ }).click()
  await expect
    .poll(async () => (await call(server.address, 'GET', `ideas?limit=1`)).body.items[0])
    .toMatchObject({ chord: 'Dm7', bar: 1, beat: 1 })
  await page.getByRole('button', { name: 'Place', exact: true }).click()
  await page.getByRole('combobox', { name: 'Planned by the route' }).selectOption('Out and in')
  await expect(page.getByRole('status').filter({ hasText: 'Attached.' })).toBeVisible()
  await page.getByRole('button', { name: 'Fade', exact: true }).click()
  await expect(page.getByRole('img', { name: /over what Out and in planned/ })).toBeVisible()
  await page.getByRole('button', { name: 'Note', exact: true }).click()
  await page.getByRole('button', { name: 'Cut it out as a line' }).click()
  await expect(page.getByRole('combobox', { name: 'Which line' }).getByRole('option')).toHaveCount(2)
})

test('a chorus of sixteenths is taken apart aside, with all of it in one thin picture, and walked', async ({
  page,
}) => {
  const text = `title = Long quay\n${Array.from({ length: 8 }, () => '| Dm7 | G7 | Cmaj7 | A7alt |').join('\n')}`
  const chartId = (await call(server.address, 'POST', 'charts', { title: 'Long quay', text })).body.id
  const all = Array.from({ length: 512 }, (_, i) => ({ at: i * 240, for: 240, pitch: 60 + ((i * 7 + (i >> 3)) % 19) }))
  await call(server.address, 'POST', 'lines', { name: 'Tide table', chartId, line: { notes: all } })
  await open(page, `${server.address}line?chart=${chartId}&note=500`)
  await expect(notes(page)).toHaveCount(512)
  await expect(notes(page).nth(499)).toHaveAttribute('aria-current', 'true')
  await page.keyboard.press('ArrowRight')
  await expect(notes(page).nth(500)).toHaveAttribute('aria-current', 'true')
  await expect(page).toHaveURL(/note=501/)
  await page.getByRole('combobox', { name: 'Beside it' }).selectOption('an angular player')
  await expect(page.getByRole('list', { name: 'an angular player' }).getByRole('listitem').first()).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('ArrowDown')
  await expect(verdict(page).locator('[aria-pressed="true"]').first()).toBeVisible()
})
