import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { expect, test } from '@playwright/test'
import { emptyData, removeData, startServer } from '../serving.ts'
import { open } from './page.ts'
import { call } from './server.ts'

const CHORDS = ['Dm7', 'G7alt', 'Cmaj7', 'F#m7b5', 'B7', 'Ebmaj7']
const bars = (n: number): string =>
  Array.from({ length: n }, (_, i) => `| ${CHORDS[i % 6]} ${CHORDS[(i * 5 + 1) % 6]} `).join('')

test('charts and lines as long as they may be open, are walked through, and leave the page free', async ({ page }) => {
  const data = emptyData()
  const server = await startServer(data)
  const make = async (path: string, body: object) => (await call(server.address, 'POST', path, body)).body.id
  const long = await make('charts', { title: 'Long weir', text: bars(2000) })
  const notes = Array.from({ length: 8192 }, (_, i) => ({ at: i * 240, for: 240, pitch: 55 + ((i * 7) % 24) }))
  const short = await make('charts', { title: 'Weir', text: bars(8) })
  const line = await make('lines', { name: 'Wake', chartId: short, line: { notes } })

  await open(page, `${server.address}desk?chart=${long}`)
  const strip = page.getByRole('list', { name: 'Strip' })
  await expect(strip.getByRole('button', { name: 'bar 1, beat 1, Dm7' })).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(page).toHaveURL(/beat=3/)
  await page.keyboard.press('End')
  await expect(strip.getByRole('button', { name: /^bar 2000, beat 3/ })).toBeVisible()
  expect(await strip.getByRole('listitem').count()).toBeLessThan(200)
  await expect(strip.getByRole('listitem').last()).toHaveAttribute('aria-setsize', '4000')

  await open(page, `${server.address}line?chart=${short}&line=${line}`)
  const band = page.getByRole('group', { name: 'Line' })
  await expect(band.getByRole('button').first()).toBeVisible()
  expect(await band.getByRole('button').count()).toBeLessThan(400)
  await page.keyboard.press('ArrowRight')
  await expect(page).toHaveURL(/note=/)
  await server.end()
  removeData(data)
})

test('what was kept before there was a bound says so in its place, can be saved, and can be removed', async ({
  page,
}) => {
  const data = emptyData()
  const before = await startServer(data)
  const make = async (path: string, body: object) => (await call(before.address, 'POST', path, body)).body.id
  const chart = await make('charts', { title: 'Old weir', text: '| C |' })
  const other = await make('charts', { title: 'Weir', text: '| Dm7 | G7 |' })
  const line = await make('lines', { name: 'Wake', chartId: other, line: { notes: [{ at: 0, for: 480, pitch: 60 }] } })
  await before.end()
  const text = `| ${'C '.repeat(300)}|${'%|'.repeat(1000)}`
  const far = { notes: [{ at: 100_000_000, for: 480, pitch: 60 }] }
  const pg = await PGlite.create(join(data, 'pg'))
  await pg.query('update charts set text = $2, updated_at = clock_timestamp() where id = $1', [chart, text])
  await pg.query('update lines set line = $2::jsonb where id = $1', [line, JSON.stringify(far)])
  await pg.close()

  const server = await startServer(data)
  await open(page, server.address)
  await expect(page.getByRole('heading', { name: 'This chart does not read' })).toBeVisible()
  await expect(page.getByText('at most 64 chords in a bar')).toBeVisible()
  const saved = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save it as a file' }).click()
  expect((await saved).suggestedFilename()).toBe('Old weir.txt')
  await page.getByRole('button', { name: 'Remove it' }).click()
  await expect(page.getByRole('heading', { name: 'This chart does not read' })).toBeHidden()
  expect((await call(server.address, 'GET', `charts/${chart}`)).status).toBe(404)

  await open(page, `${server.address}line?chart=${other}&line=${line}`)
  await expect(page.getByText(/Wake is longer than 8,192 notes or 2,000 bars/)).toBeVisible()
  expect((await call(server.address, 'GET', `lines/${line}/export?as=midi`)).status).toBe(400)
  await page.getByRole('main').getByRole('button', { name: 'Remove it' }).click()
  await expect(page.getByText('No line lies over this chart yet')).toBeVisible()
  await server.end()
  removeData(data)
})
