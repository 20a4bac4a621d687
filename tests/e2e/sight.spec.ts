import AxeBuilder from '@axe-core/playwright'
import { expect, type Page, test } from '@playwright/test'
import { emptyData, removeData, startServer } from '../serving.ts'
import { ask, complaints, open } from './page.ts'
import { call, serverOfFile } from './server.ts'

const TEXT = 'title = Fenders\nkey = Ab\n== Rail\n| Ab6/9 | F7alt | Bbm11 Eb13b9 | (A|Bb) |'

/** A chart and an idea at its third bar. */
const fill = async (address: string): Promise<void> => {
  const chart = await call(address, 'POST', 'charts', { title: 'Fenders', text: TEXT })
  const idea = { overlay: 'E minor pentatonic', chord: 'Eb7', next: 'Abmaj7', chartId: chart.body.id, bar: 3, beat: 3 }
  await call(address, 'POST', 'ideas', idea)
  const abc = 'X:1\nM:4/4\nL:1/8\nK:C\n_A c _e f g f _e c | A _B _d e _g4 |'
  await call(address, 'POST', 'lines', { name: 'Bumper', chartId: chart.body.id, line: { abc } })
}

const server = serverOfFile(fill)

const FIGURES = ['slope', 'keyboard', 'fretboard', 'staff', 'table', 'why', 'compare', 'elsewhere', 'chord']

const findings = async (page: Page): Promise<readonly string[]> => {
  const { violations } = await new AxeBuilder({ page }).analyze()
  return violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.target.join(' ')}`))
}

for (const look of ['light', 'dark'] as const)
  test.describe(look === 'dark' ? 'in club' : 'in light', () => {
    test.use({ colorScheme: look })

    test('nothing stands in the way of anyone: empty, loaded, wrong, gone', async ({ page }) => {
      test.slow()
      const own = emptyData()
      const fresh = await startServer(own)
      const said = complaints(page)
      for (const view of ['desk', 'charts', 'pairs', 'symmetry', 'route', 'line', 'stand', 'set-up']) {
        await open(page, `${fresh.address}${view}`)
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
        expect(await findings(page), `${view}, empty`).toEqual([])
      }
      await fill(fresh.address)
      for (const figure of FIGURES) {
        await open(page, `${fresh.address}desk?bar=3&beat=3&over=Ab+whole-half&tray=Ab&tray=B%2B&figure=${figure}`)
        await expect(page.getByRole('heading', { name: 'A♭ whole-half' })).toBeVisible()
        await expect(page.getByRole('listbox', { name: 'Overlays' })).toBeVisible()
        if (figure === 'staff') await expect(page.getByRole('group', { name: 'Staff' })).toBeVisible()
        expect(await findings(page), figure).toEqual([])
      }
      await ask(page, 'Bb foo over Eb7')
      await expect(page.getByRole('alert')).toBeVisible()
      expect(await findings(page)).toEqual([])
      await open(page, `${fresh.address}desk?over=B+foo`)
      await expect(page.getByRole('alert')).toContainText('“foo” is not understood')
      expect(await findings(page)).toEqual([])
      await open(page, `${fresh.address}desk?chart=gone`)
      await expect(page.getByRole('alert')).toContainText('not here any more')
      expect(await findings(page)).toEqual([])
      expect(said).toEqual([])
      await fresh.end()
      removeData(own)
    })

    test('nor in the charts: a text that reads, one that does not, a file looked into', async ({ page }) => {
      test.slow()
      const said = complaints(page)
      const seen = async (what: string) => expect(await findings(page), what).toEqual([])
      await open(page, `${server.address}charts?bar=3`)
      const editor = page.getByRole('textbox', { name: 'Chart text' })
      await expect(editor).toContainText('Ab6/9')
      await seen('loaded')
      await editor.click()
      await page.keyboard.press('Control+End')
      await page.keyboard.type(' Hm7 |')
      await expect(page.getByRole('list', { name: 'What does not read' })).toBeVisible()
      await seen('wrong')
      for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z')
      for (const side of ['Instead', 'Laid over']) {
        await page.getByRole('button', { name: side }).click()
        await seen(side)
      }
      const buffer = Buffer.from('X:1\nT:Buoy\nK:C\n"C"C4 | "Q"D4 |')
      await page.getByLabel('Chart file').setInputFiles({ name: 'buoy.abc', mimeType: 'text/plain', buffer })
      await expect(page.getByRole('button', { name: 'Keep it' })).toBeVisible()
      await seen('a file')
      await open(page, `${server.address}charts?search=nothing`)
      await expect(page.getByText('No chart holds')).toBeVisible()
      await seen('nothing found')
      expect(said).toEqual([])
    })

    test('nor on the route: its panels, no route, a kept one compared, its sheet', async ({ page }) => {
      test.slow()
      const said = complaints(page)
      const seen = async (what: string) => expect(await findings(page), what).toEqual([])
      for (const panel of ['step', 'rules', 'recipes', 'seam', 'kept']) {
        await open(page, `${server.address}route?bar=3&beat=1&panel=${panel}`)
        await expect(page.getByText(/^best \d+, exact/)).toBeVisible()
        if (panel === 'seam') await expect(page.getByRole('group', { name: /^Held notes/ })).toBeVisible()
        await seen(panel)
      }
      await page.getByRole('region', { name: 'Chains' }).getByRole('row').getByRole('button').last().click()
      await page.getByRole('button', { name: 'Keep', exact: true }).click()
      const row = page.getByRole('list', { name: 'Routes' }).getByRole('listitem').first()
      await row.getByRole('button', { name: 'Take in hand' }).click()
      await row.getByRole('button', { name: 'Compare' }).click()
      await expect(page.getByRole('region', { name: 'Compared' })).toBeVisible()
      await seen('compared')
      await page.getByRole('button', { name: 'Print', exact: true }).click()
      await expect(page.locator('.paper').getByRole('listitem')).toHaveCount(4)
      await seen('print')
      await open(page, `${server.address}line`)
      await expect(page.getByRole('group', { name: 'Line' })).toBeVisible()
      await seen('line')
      await page.getByRole('button', { name: 'Bring a line' }).click()
      await seen('bring a line')
      await page.keyboard.press('Escape')
      await page.keyboard.press('v')
      await expect(page.getByRole('region', { name: 'Band' })).toBeVisible()
      await seen('band')
      for (const beside of ['note', 'fade', 'table', 'placement', 'keys', 'neck']) {
        await open(page, `${server.address}line?write=on&tab=on&bar=2&note=9&beside=${beside}`)
        await expect(page.getByRole('textbox', { name: 'Degrees' })).toBeVisible()
        await seen(`line, ${beside}`)
      }
      for (const half of ['make', 'make&shape=1+x', 'vary', 'reuse']) {
        await open(page, `${server.address}line?bar=2&make=${half}`)
        await expect(page.getByRole('region', { name: /Drafts|Vary|Reuse/ })).toBeVisible()
        await seen(`line, ${half}`)
      }
      await page.getByRole('button', { name: 'Print', exact: true }).click()
      await expect(page.locator('.paper').getByText('Bumper')).toBeAttached()
      await seen('a line on paper')
      const plan = encodeURIComponent('{"motion":"+1","scope":"throughout","fadeMax":3}')
      await open(page, `${server.address}route?plan=${plan}`)
      await expect(page.getByRole('alert')).toContainText('No route keeps to all of this')
      await seen('no route')
      expect(said).toEqual([])
    })

    test('nor in pairs, symmetry, stand, set-up and the dialogs', async ({ page }) => {
      test.slow()
      const said = complaints(page)
      const seen = async (what: string) => expect(await findings(page), what).toEqual([])
      for (const part of ['map', 'derive', 'play']) {
        await open(page, `${server.address}pairs?bar=3&beat=3&over=Ab+%26+Bb%2B&distance=2&part=${part}`)
        if (part === 'play') await expect(page.getByRole('group', { name: 'Staff' })).toBeVisible()
        await seen(part)
      }
      for (const path of ['symmetry?bar=3&beat=3&scale=F+half-whole', 'stand?bar=3&beat=3&over=Ab+altered', 'set-up']) {
        await open(page, server.address + path)
        await seen(path)
      }
      await page.keyboard.press('?')
      await expect(page.getByRole('dialog', { name: 'Shapes and keys' })).toBeVisible()
      await seen('legend')
      await open(page, `${server.address}desk?bar=3&beat=3&hold=9&avoid=11&fadeMin=99`)
      await expect(page.getByText('Nothing can match')).toBeVisible()
      await page.getByRole('button', { name: 'More' }).click()
      await seen('filters')
      await page.keyboard.press('o')
      await expect(page.getByRole('dialog', { name: 'School' })).toBeVisible()
      await seen('school')
      await page.keyboard.press('Escape')
      await page.getByRole('button', { name: 'Print' }).click()
      await page.getByLabel('What', { exact: true }).selectOption('twelve')
      await expect(page.locator('.paper').getByRole('group')).toHaveCount(12)
      await seen('print')
      expect(said).toEqual([])
    })
  })

const SHIPPED = ['Familjen Grotesk', 'Atkinson Hyperlegible Next', 'DejaVu Sans', 'Noto Music', 'Bravura', 'Academico']

test('every glyph comes from a font that ships with the program', async ({ page }) => {
  await open(page, `${server.address}desk?bar=3&beat=3&over=Ab+whole-half&figure=staff`)
  await expect(page.getByRole('group', { name: 'Staff' })).toBeVisible()
  await expect(page.getByRole('listbox', { name: 'Overlays' }).getByRole('option').first()).toBeVisible()
  await page.evaluate(() => document.fonts.ready)
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('DOM.enable')
  await cdp.send('CSS.enable')
  const { root } = await cdp.send('DOM.getDocument', { depth: -1 })
  const { nodeIds } = await cdp.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: 'body *' })
  const used = new Map<string, number>()
  for (const nodeId of nodeIds) {
    const { fonts } = await cdp.send('CSS.getPlatformFontsForNode', { nodeId })
    for (const f of fonts) {
      const name = `${f.familyName}${f.isCustomFont ? '' : ' (of the system)'}`
      used.set(name, (used.get(name) ?? 0) + f.glyphCount)
    }
  }
  expect(used.size).toBeGreaterThan(2)
  expect([...used.keys()].filter((name) => !SHIPPED.some((s) => name === s || name === `${s} Variable`))).toEqual([])
  expect([...used.keys()].some((name) => name.startsWith('DejaVu Sans'))).toBe(true)
})

test('an injected inline script is refused', async ({ page }) => {
  await open(page, server.address)
  const ran = await page.evaluate(async () => {
    const refused = new Promise((resolve) =>
      document.addEventListener('securitypolicyviolation', () => resolve('refused')),
    )
    const script = document.createElement('script')
    script.textContent = 'window.injected = true'
    document.body.append(script)
    return [await refused, 'injected' in window]
  })
  expect(ran).toEqual(['refused', false])
})

const PLACES = [
  'desk?bar=3&beat=3&over=Ab+whole-half',
  ...FIGURES.slice(1).map((f) => `desk?bar=3&beat=3&over=Ab+whole-half&tray=Ab&tray=B%2B&figure=${f}`),
  ...['map', 'derive', 'play'].map((p) => `pairs?bar=3&beat=3&over=Ab+%26+Bb%2B&distance=2&part=${p}`),
  'charts?bar=3&beat=3',
  'symmetry?bar=3&beat=3&scale=F+half-whole',
  'stand?bar=3&beat=3&over=Ab+altered',
  'set-up',
  ...['step', 'rules', 'recipes', 'seam', 'kept'].map((p) => `route?bar=3&beat=1&panel=${p}`),
  'line?note=10',
]

for (const width of [360, 768, 1280])
  test(`at ${width} wide nothing sticks out, and no type is too small`, async ({ page }) => {
    await page.setViewportSize({ width, height: 760 })
    for (const place of PLACES) {
      await open(page, server.address + place)
      if (/staff|play/.test(place)) await expect(page.getByRole('group', { name: 'Staff' })).toBeVisible()
      expect(await page.evaluate(() => document.documentElement.scrollWidth), place).toBeLessThanOrEqual(width)
      const small = () =>
        page.evaluate(() =>
          [...document.querySelectorAll('body *')]
            .filter(
              (e) =>
                [...e.childNodes].some((c) => c.nodeType === 3 && c.textContent?.trim()) &&
                e.getClientRects().length > 0 &&
                !e.closest('[aria-hidden="true"]:has(.vf-stave)'),
            )
            .map((e) => {
              const drawn = e instanceof SVGTextElement ? (e.getScreenCTM()?.a ?? 1) : 1
              return { text: e.textContent ?? '', size: Number.parseFloat(getComputedStyle(e).fontSize) * drawn }
            })
            .filter(({ size }) => size < 12.9),
        )
      await expect.poll(small, { message: place }).toEqual([])
    }
    await open(page, server.address + PLACES[0])
    for (const name of ['Keep', 'Hear', 'Play', 'Undo'])
      await expect(page.getByRole('button', { name, exact: true })).toBeVisible()
  })
