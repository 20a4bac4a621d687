import { expect, test } from '@playwright/test'
import { ask, complaints, MUSIC, open, strip } from './page.ts'
import { printed } from './paper.ts'
import { call, serverOfFile } from './server.ts'

const TEXT = 'title = Hawser\n| Dm7 | G7 | Cmaj7 | Am7 |'
const OTHER = 'title = Capstan\n| Fm7 | Bb7 | Ebmaj7 | C7 |'
const ids = new Map<string, string>()
const server = serverOfFile(async (address) => {
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  for (const text of [TEXT, OTHER]) {
    const title = text.slice(8, text.indexOf('\n'))
    ids.set(title, (await call(address, 'POST', 'charts', { title, text })).body.id)
  }
})

test('a route laid by hand becomes a line by keys: heard, walked, kept, used again, printed, undone', async ({
  page,
}) => {
  test.slow()
  const said = complaints(page)
  await open(page, `${server.address}desk?chart=${ids.get('Hawser')}`)
  for (const overlay of ['A minor pentatonic', 'Bb minor pentatonic', 'B minor pentatonic']) {
    await ask(page, overlay)
    await expect(page.getByRole('heading', { name: overlay.replace('b ', '♭ ') })).toBeVisible()
    await page.locator('body').click({ position: { x: 5, y: 790 } })
    await page.keyboard.press('l')
    await page.keyboard.press('ArrowRight')
  }
  await page.keyboard.press('e')
  const drafts = page.getByRole('region', { name: 'Drafts' }).getByRole('listitem')
  await expect(drafts.first()).toBeVisible()
  const choose = async (label: string, value: string) => page.getByLabel(label, { exact: true }).selectOption(value)
  await choose('Made of', 'laid')
  await page.getByLabel('Figure', { exact: true }).focus()
  await choose('Figure', '1 2 3')
  await choose('Rhythm', '1/8t')
  await choose('Ending', '3')
  const line = page.getByRole('group', { name: 'Line' })
  // Three bars of triplets and the home scale of the fourth, and the note they land on.
  await expect(line.getByRole('button')).toHaveCount(49)
  const shown = async () =>
    (await line.getByRole('button').evaluateAll((all) => all.map((n) => n.getAttribute('aria-label')))).join('\n')
  const first = await shown()
  expect(first.split('\n')[0]).toMatch(/^note 1, [ACDEG], /)
  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await page.keyboard.press('ArrowDown')
  await expect(drafts.nth(1).getByRole('button')).toHaveAttribute('aria-current', 'true')
  await expect.poll(shown).not.toBe(first)
  const second = await shown()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible(MUSIC)
  await page.keyboard.press('Escape')
  await page.keyboard.press('k')
  await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
  await expect.poll(shown).toBe(second)
  const kept = (await call(server.address, 'GET', 'lines')).body.items
  expect(kept).toHaveLength(1)
  expect(kept[0]).toMatchObject({ name: '1 2 3 on what is laid', chartId: ids.get('Hawser') })

  await page.getByRole('button', { name: 'Vary' }).click()
  await page.getByRole('button', { name: 'octave', exact: true }).click()
  await page.getByRole('button', { name: 'Use: an octave down' }).click()
  await expect(page.getByText('Varied: an octave down.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect.poll(shown).toBe(second)

  await page.getByRole('button', { name: 'Print', exact: true }).click()
  await page.getByLabel('For', { exact: true }).selectOption('eb')
  const paper = page.locator('.paper')
  await expect(paper.locator('svg text').filter({ hasText: 'Bm7' }).first()).toBeAttached()
  await page.waitForTimeout(500)
  const sheet = (await printed(page)).join(' ').replaceAll(/ (?=[♯♭])|(?<=[♯♭]) /g, '')
  for (const chord of ['Bm7', 'E7', 'Amaj7', 'F♯m7']) expect(sheet).toContain(chord)
  await page.keyboard.press('Escape')
  expect(said).toEqual([])
})

test('a lick is used again in another chart, put at its place, and taken back by name', async ({ page }) => {
  const said = complaints(page)
  const notes = [64, 68, 71, 74, 72, 69, 66, 64].map((pitch, i) => ({ at: i * 480, for: 480, pitch }))
  const text = 'title = Lick\n| Am6 |'
  const chart = (await call(server.address, 'POST', 'charts', { title: 'Lick', text })).body.id
  await call(server.address, 'POST', 'lines', { name: 'Splice', chartId: chart, line: { notes } })
  await open(page, `${server.address}line?chart=${chart}&make=reuse`)
  const reuse = page.getByRole('region', { name: 'Reuse' })
  await expect(reuse).toContainText('Notes 1–4 imply E7; Notes 5–8 imply Am6.')
  await expect(reuse).toContainText('From the 9 of D7, the dominant chord a fourth above')
  const lines = () => call(server.address, 'GET', 'lines').then((r) => r.body.items.length)
  const before = await lines()
  await reuse.getByRole('button', { name: 'Keep it from A', exact: true }).click()
  await expect(page.getByLabel('Name of the line')).toHaveValue('Splice, from A')
  await expect.poll(lines).toBe(before + 1)
  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await page.keyboard.press('Control+z')
  await expect.poll(lines).toBe(before)
  await open(page, `${server.address}line?chart=${chart}&make=reuse`)
  await reuse.getByRole('button', { name: 'Study by minor thirds' }).click()
  await expect(page.getByLabel('Name of the line')).toHaveValue('Splice over Am6, 12 keys by minor thirds')
  await expect(page.getByRole('group', { name: 'Line' }).getByRole('button')).toHaveCount(12 * 8)
  await expect(strip(page).getByRole('listitem').nth(1)).toHaveAccessibleName(/Cm6/)
  expect(said).toEqual([])
})

test('a sketch is made a line of; a figure that does not read says where', async ({ page }) => {
  const said = complaints(page)
  await open(page, server.address)
  await ask(page, '| Cmaj7 | Ebmaj7 | Abmaj7 | Db7 |')
  await expect(strip(page).getByRole('listitem')).toHaveCount(4)
  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await page.keyboard.press('e')
  const drafts = page.getByRole('region', { name: 'Drafts' }).getByRole('listitem')
  await expect(drafts.first()).toBeVisible()
  const figure = page.getByLabel('Figure in places')
  await figure.fill('1 3 x')
  await expect(page.getByRole('alert')).toContainText('“x” is no place')
  await figure.fill('1 3 5 7')
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await page.keyboard.press('k')
  await expect(page.getByLabel('Name of the line')).toHaveValue(/^1 3 5 7 on/)
  expect(said).toEqual([])
})

test('a long making is stopped and taken up again, and the page answers meanwhile', async ({ page }) => {
  test.slow()
  const said = complaints(page)
  const text = `title = Long tow\n${'| Dm7 G7 | Ebm7 Ab7 | Cmaj7 A7alt | Fm7 Bb7 '.repeat(150)}|`
  const chart = (await call(server.address, 'POST', 'charts', { title: 'Long tow', text })).body.id
  await open(page, `${server.address}line?chart=${chart}&make=make&of=home&shape=1&goes=free&value=1%2F16`)
  const drafts = page.getByRole('region', { name: 'Drafts' })
  await drafts.getByRole('button', { name: 'Stop making' }).click()
  await expect(drafts.getByText('Stopped.')).toBeVisible()
  await drafts.getByRole('button', { name: 'Make again' }).click()
  await expect(drafts.getByText('Making …')).toBeVisible()
  await page.getByLabel('Figure', { exact: true }).selectOption('1 2 3 5')
  await page.getByLabel('Rhythm', { exact: true }).selectOption('1/4')
  await page.getByLabel('Path', { exact: true }).selectOption('up')
  await expect(drafts.getByRole('listitem').first()).toBeVisible({ timeout: 60_000 })
  expect(said).toEqual([])
})
