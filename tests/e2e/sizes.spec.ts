import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { boardFerry } from './ferry.ts'
import { wrongIn } from './frame.ts'
import { complaints, hearsNothing, open } from './page.ts'
import { serverOfFile } from './server.ts'

const SIZES = [
  { width: 1280, height: 800, touch: false },
  { width: 1366, height: 640, touch: false },
  { width: 1024, height: 600, touch: false },
  { width: 1024, height: 768, touch: true },
  { width: 768, height: 1024, touch: true },
  { width: 390, height: 844, touch: true },
  { width: 360, height: 640, touch: true },
] as const

const PAIR = 'bar=15&beat=3&over=F+%26+G%2B'
const VIEWS = {
  desk: 'desk?bar=13&beat=1&over=G+dorian',
  'desk of a pair': `desk?${PAIR}&figure=staff`,
  charts: 'charts?bar=13&beat=1',
  pairs: `pairs?${PAIR}&distance=2`,
  'pairs derived': `pairs?${PAIR}&part=derive`,
  'pairs played': `pairs?${PAIR}&part=play`,
  symmetry: 'symmetry?bar=15&beat=3&scale=Eb+half-whole',
  route: 'route?bar=13&beat=1',
  line: 'line?note=9',
  make: 'line?make=make&of=here&bar=15&beat=3&over=F+%26+G%2B',
  vary: 'line?make=vary&vary=rhythm',
  reuse: 'line?make=reuse',
  'set-up': 'set-up',
  telephones: 'set-up?section=telephones',
  stand: 'stand?bar=13&beat=1',
  practice: 'practice',
  'practice items': 'practice?practise=items',
  quiz: 'practice?practise=quiz&topic=further+out+by+ear',
  takes: 'practice?practise=takes',
  take: 'practice?practise=takes&take=Anchor+Light%2C+too+long+off+the+anchor',
  'two takes':
    'practice?practise=takes&take=Anchor+Light%2C+too+long+off+the+anchor&otherTake=Anchor+Light%2C+ten+bars+with+sound',
  player: 'player?item=A+half+step+up%2C+four+and+four',
  log: 'log',
  'log course': 'log?logged=course',
  'log entries': 'log?logged=entries',
  'log kept': 'log?logged=kept',
} as const

const ids = new Map<string, string>()
const server = serverOfFile(async (address) => {
  const { charts, items, takes } = await boardFerry(address)
  for (const [title, id] of [...charts, ...items, ...takes]) ids.set(title, id)
})
/** Items and takes stand in the table by their names. */
const placed = (path: string): string =>
  path.replace(/\b(item|take|otherTake)=([^&]+)/g, (whole, field: string, name: string) => {
    const id = ids.get(decodeURIComponent(name.replaceAll('+', ' ')))
    return id ? `${field}=${id}` : whole
  })

for (const look of ['light', 'dark'] as const)
  for (const [view, path] of Object.entries(VIEWS))
    test(`${view} in ${look === 'dark' ? 'club' : 'light'} fits every window`, async ({ browser }) => {
      test.slow()
      const context = await browser.newContext({ colorScheme: look, reducedMotion: 'reduce' })
      const page = await context.newPage()
      await hearsNothing(page)
      await page.setViewportSize(SIZES[0])
      await open(
        page,
        `${server.address}${placed(path)}${path.includes('?') ? '&' : '?'}chart=${ids.get('Pier Eleven')}`,
      )
      if (view === 'quiz') await page.keyboard.press('Space')
      await page.waitForLoadState('networkidle')
      const found: string[] = []
      for (const { width, height, touch } of SIZES) {
        await page.setViewportSize({ width, height })
        await page.waitForTimeout(250)
        const fits = width >= 1024
        found.push(...(await wrongIn(page, { fits, touch })).map((what) => `${view}, ${width} × ${height}: ${what}`))
        // All of it takes forty minutes: asked for by hand, as are the pictures.
        if (process.env.AXE)
          for (const { id, nodes } of (await new AxeBuilder({ page }).analyze()).violations)
            found.push(`${view}, ${width} × ${height}: ${id} at ${nodes.map((n) => n.target).join(', ')}`)
        if (process.env.SHOTS)
          await page.screenshot({
            path: `${process.env.SHOTS}/${view.replaceAll(' ', '-')}-${look}-${width}x${height}.png`,
          })
      }
      await context.close()
      expect(found).toEqual([])
    })

test('no width between a telephone and a wide screen makes a figure fail', async ({ browser }) => {
  test.slow()
  const page = await browser.newPage({ viewport: { width: 1300, height: 760 }, reducedMotion: 'reduce' })
  const said = complaints(page)
  for (const path of ['desk of a pair', 'pairs played', 'symmetry', 'line'] as const) {
    for (const figure of path === 'desk of a pair' ? ['slope', 'keyboard', 'fretboard'] : ['']) {
      const more = figure === '' ? '' : `&figure=${figure}`
      await open(
        page,
        `${server.address}${VIEWS[path].replace('&figure=staff', '')}&chart=${ids.get('Pier Eleven')}${more}`,
      )
      for (let width = 1300; width >= 340; width -= 31) {
        await page.setViewportSize({ width, height: 760 })
        await page.waitForTimeout(30)
      }
    }
  }
  await page.close()
  expect(said).toEqual([])
})
