import { expect, type Page, test } from '@playwright/test'
import { complaints, currentSpot, open } from './page.ts'
import { call, emptyData, type Running, removeData, startServer } from './server.ts'

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
  await verdict(page).getByRole('button', { name: 'Notes 1-2 enclose G (the 1 of Gmaj7).' }).click()
  await expect(page.getByRole('region', { name: 'Note' })).toContainText('note 1, bar 1, beat 2')
  await verdict(page)
    .getByRole('button', { name: /^[·✓!]? ?Notes 12-19 are heard as G half-whole/ })
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
    page.getByRole('link', { name: 'MusicXML' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('To the crane.musicxml')
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
  await dialog.getByLabel('or a file').setInputFiles({ name: 'hoist.mid', mimeType: 'audio/midi', buffer: file })
  await expect(dialog.getByRole('status')).toContainText('20 notes.')
  await expect(dialog.getByRole('combobox', { name: 'Which voice' })).toContainText('Hoist, channel 1: 20 notes')
  await dialog.getByRole('combobox', { name: 'Brought to' }).selectOption('sixteenths')
  await dialog.getByRole('combobox', { name: 'It begins with' }).selectOption('2')
  await dialog.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the line' })).toHaveValue('hoist')
  await expect(notes(page).first()).toHaveAccessibleName(/bar 2, beat 2$/)
  await page.getByRole('button', { name: '← beat' }).click()
  await expect(notes(page).first()).toHaveAccessibleName(/bar 2, beat 1$/)
  await page.keyboard.press('Control+z')
  await expect(notes(page).first()).toHaveAccessibleName(/bar 2, beat 2$/)
})

test('what is no line is refused in words, and nothing is lost', async ({ page }) => {
  await open(page, `${server.address}line?chart=${wharf}`)
  const dialog = await bring(page, 'No line', 'this is no tune')
  await expect(dialog.getByRole('alert')).toContainText('no ABC tune')
  await expect(dialog.getByLabel('ABC or MusicXML')).toHaveValue('this is no tune')
})
