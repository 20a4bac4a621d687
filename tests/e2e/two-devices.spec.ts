import { type BrowserContext, expect, type Page, test } from '@playwright/test'
import { currentSpot, ideas, MUSIC, open } from './page.ts'
import { call, serverOfFile } from './server.ts'

const server = serverOfFile()
const TEXT = 'title = Slack Tide\nkey = F\ntempo = 200\n| Fmaj7 | Gm7 | C7 | Fmaj7 | Dm7 | G7 | Gm7 | C7 |\n'
const made = async (kind: string, body: object): Promise<string> =>
  (await call(server.address, 'POST', kind, body)).body.id
const kept = async (path: string) => (await call(server.address, 'GET', path)).body
const editor = (page: Page) => page.getByRole('textbox', { name: 'Chart text' })

/** Two browsers that know nothing of each other. */
const devices = async (browser: { newContext: () => Promise<BrowserContext> }): Promise<readonly [Page, Page]> => {
  const [one, other] = await Promise.all([browser.newContext(), browser.newContext()])
  return [await one.newPage(), await other.newPage()]
}

test.beforeAll(() => made('settings', { name: 'instrument', value: 'concert' }))

test('what one device changes, makes and removes the other shows, and undo goes across', async ({ browser }) => {
  const id = await made('charts', { title: 'Slack Tide', text: TEXT })
  const [desk, stand] = await devices(browser)
  await open(desk, `${server.address}charts?chart=${id}`)
  await open(stand, `${server.address}stand?chart=${id}&bar=9`)
  await expect(stand.getByRole('heading', { level: 1 })).toHaveText('C7')
  await editor(desk).click()
  await desk.keyboard.press('Control+End')
  await desk.keyboard.type('Em7b5 |')
  await expect(stand.getByRole('heading', { level: 1 })).toHaveText('Em7♭5')
  await stand.goto(`${server.address}charts?chart=${id}`)
  await expect(editor(stand)).toContainText('Em7b5')
  await desk.keyboard.press('Escape')
  await desk.keyboard.press('Control+z')
  await expect(editor(stand)).not.toContainText('Em7b5')

  const other = await made('charts', { title: 'Wharf Cat', text: '| Cm7 |' })
  const rows = (page: Page) => page.getByRole('row', { name: 'Wharf Cat' })
  for (const page of [desk, stand]) await expect(rows(page)).toBeVisible()
  await call(server.address, 'DELETE', `charts/${other}`)
  for (const page of [desk, stand]) await expect(rows(page)).toBeHidden()
  await call(server.address, 'POST', 'undo')
  for (const page of [desk, stand]) await expect(rows(page)).toBeVisible()

  await open(stand, `${server.address}desk?chart=${id}`)
  await made('ideas', { overlay: 'Ab whole-half', chord: 'G7', chartId: id, bar: 6, beat: 1 })
  await expect(ideas(stand).filter({ hasText: 'A♭ whole-half' })).toBeVisible()
})

test('what another device changes while the editor is still on its way stands in it when it comes', async ({
  page,
}) => {
  const id = await made('charts', { title: 'Slow Lock', text: '| Fmaj7 | C7 |' })
  let letCome = (): void => undefined
  const asked = new Promise<void>((begun) =>
    page.route(/\/_astro\/editor\.[^/]+\.js$/, async (route) => {
      begun()
      await new Promise<void>((resolve) => {
        letCome = resolve
      })
      await route.continue()
    }),
  )
  await open(page, `${server.address}charts?chart=${id}`)
  await asked
  const { version } = await kept(`charts/${id}`)
  await call(server.address, 'PUT', `charts/${id}`, { title: 'Slow Lock', text: '| Abm7 | C7 |', version })
  await expect(currentSpot(page)).toContainText('A♭m7')
  letCome()
  await expect(editor(page)).toContainText('Abm7')
  await editor(page).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type(' Db7 |')
  await expect.poll(async () => (await kept(`charts/${id}`)).text).toBe('| Abm7 | C7 | Db7 |')
})

test('both type at one moment: nothing that was kept is lost, and who came second is asked', async ({ browser }) => {
  const id = await made('charts', { title: 'Cross Current', text: '| Fmaj7 | C7 |' })
  const pages = await devices(browser)
  for (const page of pages) {
    await open(page, `${server.address}charts?chart=${id}`)
    await editor(page).click()
    await page.keyboard.press('Control+End')
  }
  await Promise.all(pages.map((page, i) => page.keyboard.type([' Abmaj7 |', ' Dbmaj7 |'][i] ?? '')))
  const asked = async (): Promise<Page | undefined> => {
    for (const page of pages) if (await page.getByRole('button', { name: 'Keep this one' }).isVisible()) return page
    return undefined
  }
  await expect.poll(async () => (await asked()) !== undefined).toBe(true)
  await (await asked())?.getByRole('button', { name: 'Keep this one' }).click()
  const texts = () => Promise.all(pages.map((page) => editor(page).innerText()))
  await expect.poll(async () => new Set(await texts()).size).toBe(1)
  expect((await kept(`charts/${id}`)).text).toMatch(/ (Abmaj7|Dbmaj7) \|$/)
})

test('the stand goes along with the device that plays, and stays when it is told to', async ({ browser }) => {
  const id = await made('charts', { title: 'Ferry Bell', text: TEXT })
  const elsewhere = await made('charts', { title: 'Dry Dock', text: '| Ebmaj7 |' })
  const [plays, stand] = await devices(browser)
  await open(plays, `${server.address}desk?chart=${id}`)
  await open(stand, `${server.address}stand?chart=${elsewhere}`)
  const told = stand.getByRole('region', { name: 'Playing elsewhere' })
  await expect(told).toBeHidden()
  await plays.keyboard.press('Space')
  await expect(told).toContainText('Played elsewhere: Ferry Bell', MUSIC)
  await expect(stand.getByRole('heading', { level: 1 })).toHaveText('E♭maj7')
  await told.getByRole('button', { name: 'Go along' }).click()
  await expect(stand).toHaveURL(new RegExp(id))
  await expect.poll(async () => new URL(stand.url()).searchParams.get('bar'), MUSIC).not.toBe('1')
  const barOf = (page: Page) => Number(new URL(page.url()).searchParams.get('bar') ?? 1)
  await expect.poll(() => Math.abs(barOf(stand) - barOf(plays)), MUSIC).toBeLessThanOrEqual(1)

  await stand.reload()
  await expect(told).toContainText('Going along with Ferry Bell', MUSIC)
  await told.getByRole('button', { name: 'Stay here' }).click()
  await stand.goto(`${server.address}desk?chart=${id}&bar=1`)
  await expect(told).toContainText('Played elsewhere', MUSIC)
  await expect(currentSpot(stand)).toHaveAccessibleName(/^bar 1,/)
  await plays.keyboard.press('Space')
  await expect(told).toBeHidden(MUSIC)
})

test('a device that heard nothing for a while has everything as soon as it hears again', async ({ browser }) => {
  const id = await made('charts', { title: 'Long Tunnel', text: '| Fmaj7 |' })
  const [desk] = await devices(browser)
  await open(desk, `${server.address}charts?chart=${id}`)
  await expect(editor(desk)).toContainText('Fmaj7')
  await server.kill()
  await server.again()
  const { version } = await kept(`charts/${id}`)
  await call(server.address, 'PUT', `charts/${id}`, { title: 'Long Tunnel', text: '| F13sus4 |', version })
  await expect(editor(desk)).toContainText('F13sus4')
})
