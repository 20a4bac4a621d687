import { readFileSync } from 'node:fs'
import { expect, type Page, test } from '@playwright/test'
import { ask, currentSpot, ideas, open, slopeLabels } from './page.ts'
import { call, serverOfFile } from './server.ts'

const WALTZ = readFileSync(new URL('../../demo/charts/4-gangway-waltz.txt', import.meta.url), 'utf8')
const STATIC = 'title = Spare Rope\nmetre = 5/4\n| Ab13 | Ab13 | Ab13 Fm7 | Ab7 |'

let waltz: string
let rope: string
const server = serverOfFile(async (address) => {
  waltz = (await call(address, 'POST', 'charts', { title: 'Gangway Waltz', text: WALTZ })).body.id
  rope = (await call(address, 'POST', 'charts', { title: 'Spare Rope', text: STATIC })).body.id
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
})

const rows = (page: Page) => page.getByRole('listbox', { name: 'Overlays' }).getByRole('option')
const setting = async (name: string, value: unknown): Promise<void> => {
  const { items } = (await call(server.address, 'GET', 'settings?limit=200')).body
  const row = items.find((s: { name: string }) => s.name === name)
  if (row) await call(server.address, 'PUT', `settings/${row.id}`, { name, value, version: row.version })
  else await call(server.address, 'POST', 'settings', { name, value })
}

/** Presses keys one by one and counts them: what a player's hand does. */
const presses = (page: Page) => {
  let count = 0
  return {
    press: async (...keys: string[]) => {
      for (const key of keys) {
        await page.keyboard.press(key)
        count++
      }
    },
    count: () => count,
  }
}

for (const [where, at] of [
  ['the waltz’s dominant', () => `desk?chart=${waltz}&bar=8&beat=1`],
  ['a static dominant of a chart just typed', () => `desk?chart=${rope}&bar=2&beat=1`],
] as const)
  test(`from a wish to a kept overlay in fourteen keys: ${where}`, async ({ page }) => {
    await open(page, server.address + at())
    await expect(rows(page).first()).toBeVisible()
    const before = await ideas(page).count()
    const hand = presses(page)
    // Degrees: 9 wanted, 11 refused, #11 wanted; down to the first row; keep.
    await hand.press('f', 'ArrowRight', '+', 'ArrowRight', 'ArrowRight', 'ArrowRight', '-', 'ArrowRight', '+')
    await expect(page.getByText('holds 9 and ♯11, no 11')).toBeVisible()
    await expect(page).toHaveURL(/hold=9%2C%2311&avoid=11/)
    await hand.press('ArrowDown')
    const heard = await slopeLabels(page)
    const degrees = heard.map((label) => label?.split(', ')[1])
    expect(degrees).toContain('9')
    expect(degrees).toContain('♯11')
    expect(degrees).not.toContain('11')
    await expect(rows(page).first()).toHaveAttribute('aria-selected', 'true')
    await hand.press('k')
    await expect(ideas(page)).toHaveCount(before + 1)
    expect(hand.count()).toBeLessThanOrEqual(14)
    await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
    const [kept] = (await call(server.address, 'GET', 'ideas')).body.items
    const [, name] = (await rows(page).first().textContent())?.match(/^([A-G][♭♯]?)/) ?? []
    expect(
      kept.overlay
        .replace('b', '♭')
        .replace('#', '♯')
        .startsWith(name ?? '?'),
    ).toBe(true)
  })

test('filters answer at each key, live in the address, and say which to drop when nothing is left', async ({
  page,
}) => {
  await open(page, `${server.address}desk?chart=${waltz}&bar=8&beat=1&hold=9,%2311&avoid=11`)
  const count = async () => Number((await page.getByText(/^\d+ of \d+$/).textContent())?.split(' ')[0])
  await expect(rows(page).first()).toBeVisible()
  const all = await count()
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('button', { name: 'pentatonics', exact: true }).click()
  await expect.poll(count).toBeLessThan(all)
  await page.getByRole('searchbox', { name: 'Find by name' }).fill('zither')
  await expect(page.getByText('Nothing can match all of this at once.')).toBeVisible()
  const drop = page.getByRole('button', { name: /^Drop “.*zither.*”: \d+ (is|are) left$/ })
  const left = Number(/: (\d+)/.exec((await drop.textContent()) ?? '')?.[1])
  await page.reload()
  await expect(page.getByRole('searchbox', { name: 'Find by name' })).toHaveValue('zither')
  await drop.click()
  await expect.poll(count).toBe(left)
  await page.getByRole('button', { name: 'Clear' }).click()
  await expect.poll(count).toBeGreaterThan(1500)
  await page.getByLabel('Order').selectOption('landing')
  await expect.poll(async () => Number(/\d+$/.exec((await rows(page).first().textContent()) ?? ''))).toBeGreaterThan(80)
})

test('a question about pairs or about degrees goes to where it is answered', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${waltz}&bar=8&beat=1`)
  await ask(page, 'what holds b9 13 over Db7')
  await expect(page).toHaveURL(/sketch=%7C\+Db7\+%7C.*hold=b9%2C13/)
  await expect(page.getByText('holds ♭9 and 13')).toBeVisible()
  await ask(page, 'pairs over Db7')
  await expect(page).toHaveURL(/\/pairs\?.*Db7/)
  await expect(page.getByRole('grid', { name: 'Pairs by quality' })).toBeVisible()
  await page.keyboard.press('Escape')
  await ask(page, 'pairs over A7')
  await expect(page).not.toHaveURL(/sketch=%7C\+A7\+%7C\+Dmaj7/)
})

const PITCHES: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }
const pcOf = (name: string): number =>
  [...name].reduce((pc, sign) => pc + ({ '♯': 1, '♭': -1, '𝄪': 2, '𝄫': -2 }[sign] ?? PITCHES[sign] ?? 0), 120) % 12

/** Name, degree and pitch of every place that a figure marks. */
const placesOf = (page: Page, figure: string) =>
  page
    .getByRole('group', { name: figure })
    .locator('[data-pitch]')
    .evaluateAll((all) =>
      all
        .map((e) => ({
          label: (e.getAttribute('aria-label') ?? '').split(', '),
          pitch: Number(e.getAttribute('data-pitch')),
        }))
        .filter(({ label }) => label[1] !== 'not in it')
        .map(({ label, pitch }) => ({ name: label[0] ?? '', degree: label[1] ?? '', pitch })),
    )

for (const [who, settings, up] of [
  ['concert', { instrument: 'concert', clef: 'treble', tuning: 'E2 A2 D3 G3 B3 E4', leftHanded: false }, 0],
  ['a B♭ instrument', { instrument: 'bb' }, 2],
  ['an E♭ instrument', { instrument: 'eb' }, 9],
  ['a bass clef', { instrument: 'concert', clef: 'bass' }, 0],
  ['a left-handed five-string bass', { clef: 'bass', tuning: 'B0 E1 A1 D2 G2', leftHanded: true }, 0],
] as const)
  test(`names, keys, frets and staff agree for ${who}`, async ({ page }) => {
    for (const [name, value] of Object.entries(settings)) await setting(name, value)
    await open(page, `${server.address}desk?chart=${waltz}&bar=16&beat=2.5&over=A+%26+B%2B`)
    const spelled = (await slopeLabels(page)).map((l) => l?.split(', ').slice(0, 2).join(' '))
    const written = (spelled as string[]).map((s) => pcOf(s.split(' ')[0] ?? ''))
    expect(new Set(written)).toEqual(new Set([9, 1, 4, 11, 3, 7].map((pc) => (pc + up) % 12)))
    for (const [key, figure] of [
      ['2', 'Keyboard'],
      ['3', 'Fretboard'],
      ['4', 'Staff'],
    ] as const) {
      await page.keyboard.press(key)
      await expect(page.getByRole('group', { name: figure })).toBeVisible()
      const places = await placesOf(page, figure)
      expect(places.length).toBeGreaterThanOrEqual(6)
      for (const p of places) expect(p.pitch % 12, `${figure}: ${p.name}`).toBe(pcOf(p.name))
      expect(new Set(places.map((p) => `${p.name} ${p.degree}`))).toEqual(new Set(spelled))
    }
    if ('leftHanded' in settings && settings.leftHanded) {
      await page.keyboard.press('3')
      const necks = page.getByRole('group', { name: 'Fretboard' }).locator('[data-pitch]')
      const where = await necks.evaluateAll((all) =>
        all.map((e) => ({
          string: Number(/string (\d)/.exec(e.getAttribute('aria-label') ?? '')?.[1]),
          fret: Number(/fret (\d+)/.exec(e.getAttribute('aria-label') ?? '')?.[1] ?? 0),
          pitch: Number(e.getAttribute('data-pitch')),
          x: e.getBoundingClientRect().x,
        })),
      )
      const open5 = [23, 28, 33, 38, 43]
      for (const w of where) expect(w.pitch).toBe((open5[5 - w.string] ?? 0) + w.fret)
      for (const a of where)
        for (const b of where) if (a.string === b.string && a.fret < b.fret) expect(a.x).toBeGreaterThan(b.x)
    }
  })

test('a school changes roles before one’s eyes, with the reason, and is taken back', async ({ page }) => {
  await setting('instrument', 'concert')
  await open(page, `${server.address}desk?chart=${waltz}&bar=16&beat=2.5&over=A+mixolydian`)
  expect(await slopeLabels(page)).toContain('D, 11, suspension, fade 30')
  await page.keyboard.press('o')
  const dialog = page.getByRole('dialog', { name: 'School' })
  await expect(dialog.getByText('Most teachers let the 4 pass only')).toBeVisible()
  await expect(dialog).toContainText('D, suspension at 30, becomes extension at 20')
  await dialog.getByRole('radio', { name: /^colour/ }).click()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await expect.poll(() => slopeLabels(page)).toContain('D, 11, extension, fade 20')
  await expect(page.getByRole('status')).toContainText('becomes extension at 20; the fade goes from 16 to 12')
  await page.reload()
  expect(await slopeLabels(page)).toContain('D, 11, extension, fade 20')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => slopeLabels(page)).toContain('D, 11, suspension, fade 30')
})

test('another home scale is put first on the spot, said, in the address, and given back', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${waltz}&bar=16&beat=2.5&over=A+altered`)
  await page.keyboard.press('h')
  await expect(page.getByRole('status')).toContainText(/Home is A .*\. .* moves from/)
  await expect(page).toHaveURL(/home=A/)
  await expect(page.getByText('Inside here, yours')).toBeVisible()
  await page.getByLabel(/Inside here/).selectOption('A mixolydian')
  await expect(page).not.toHaveURL(/home=/)
  await page.keyboard.press('ArrowRight')
  await expect(currentSpot(page)).toHaveAccessibleName('bar 17, beat 1, Bm7')
})

test('tray, why, mends and where else answer by keys', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${waltz}&bar=16&beat=2.5&over=A+%26+B%2B`)
  await page.keyboard.press('t')
  await ask(page, 'C minor pentatonic')
  await page.keyboard.press('t')
  await page.getByRole('button', { name: /^Tray 2/ }).click()
  const tray = page.getByRole('region', { name: 'Compare' })
  await expect(tray).toContainText('All hold D♯ and G (underlined).')
  await expect(tray).toContainText('Only A & B+ has A, C♯, E and B.')
  await page.reload()
  await expect(tray).toContainText('All hold')
  await tray.getByRole('button', { name: 'Take A & B+ out of the tray' }).click()
  await expect(page).not.toHaveURL(/tray=A/)
  await page.keyboard.press('w')
  const why = page.getByRole('region', { name: 'Why this number' })
  const said = (await why.textContent()) ?? ''
  const [, fade, share, mean, worst] =
    /Fade (\d+) = (\d+) % of the mean .* = ([\d.]+), and \d+ % of the worst, (\d+)/.exec(said) ?? []
  const sum = (Number(share) * Number(mean) + (100 - Number(share)) * Number(worst)) / 100
  expect(Math.abs(Number(fade) - sum)).toBeLessThan(0.6)
  await page.keyboard.press('1')
  await ask(page, 'A ionian')
  await page.keyboard.press('m')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('A ionian')
  await page.getByRole('button', { name: 'Elsewhere' }).click()
  const elsewhere = page.getByRole('region', { name: 'Where else' })
  await elsewhere
    .getByRole('button', { name: /bar \d+/ })
    .nth(3)
    .click()
  await expect(currentSpot(page)).not.toHaveAccessibleName(/bar 16, beat 2/)
})

test('notes pressed on the keyboard, the neck or the staff become a named overlay', async ({ page }) => {
  await setting('clef', 'treble')
  await setting('leftHanded', false)
  await setting('tuning', 'E2 A2 D3 G3 B3 E4')
  await open(page, `${server.address}desk?sketch=%7C+C7+%7C+F+%7C&over=C&figure=keyboard`)
  await page.keyboard.press('n')
  const keys = page.getByRole('group', { name: 'Keyboard' })
  const title = page.getByRole('heading', { level: 1 })
  await keys.locator('[data-pitch="69"]').click()
  await expect(title).toHaveText('C6 arpeggio')
  await keys.locator('[data-pitch="62"]').focus()
  await page.keyboard.press('Enter')
  await expect(title).toHaveText('C major pentatonic')
  await page.keyboard.press('3')
  await page.getByRole('group', { name: 'Fretboard' }).locator('[data-pitch="42"]').click()
  await expect(
    page
      .getByRole('group', { name: 'Fretboard' })
      .getByRole('button', { name: /^F♯, ♯11/ })
      .first(),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(ideas(page).first()).toContainText('over C7')
  await page.keyboard.press('4')
  await page.getByRole('group', { name: 'Staff' }).getByRole('button', { name: /^F♯/ }).click()
  await expect(title).toHaveText('C major pentatonic')
})

test('the pair map is walked by keys; a pair is derived, played and copied', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await open(page, `${server.address}pairs?chart=${waltz}&bar=16&beat=2.5&over=A+%26+B%2B&distance=2`)
  const grid = page.getByRole('grid', { name: 'Pairs by quality' })
  await expect(grid.locator('[aria-pressed="true"]')).toHaveAccessibleName(/^major and \+: A & B\+, fade 16/)
  await grid.locator('[aria-pressed="true"]').focus()
  await page.keyboard.press('ArrowDown')
  await expect(grid.locator('[aria-pressed="true"]')).toHaveAccessibleName(/^minor and \+/)
  await page.keyboard.press('4')
  await expect(grid.locator('[aria-pressed="true"]')).toHaveAccessibleName(/^minor and \+/)
  await expect(page).toHaveURL(/distance=4/)
  const first = await page.getByRole('heading', { level: 1 }).textContent()
  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(first ?? '')
  await expect(page.getByRole('list', { name: 'Pairs' }).getByRole('button', { pressed: true })).toHaveCount(1)

  await page.getByRole('button', { name: 'Derive' }).click()
  await page.getByRole('textbox', { name: 'From' }).fill('D ionian')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: /^no 4 \(G\)/ }).click()
  await expect(page.getByText('Bm, first inversion')).toBeVisible()
  await page.getByRole('textbox', { name: 'From' }).fill('D chromatic')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('six, seven or eight notes')
  await page.getByRole('button', { name: 'Lay Bm & A' }).click()
  await page.getByRole('navigation', { name: 'Parts' }).getByRole('button', { name: 'Play' }).click()
  await expect(page.getByText(/^1 of \d+: Bm, root position/)).toBeVisible()
  await page.getByRole('button', { name: '5–3–1' }).click()
  await page.getByRole('button', { name: 'Copy as text' }).click()
  await expect(page.getByRole('status')).toContainText('Copied')
  const copied = await page.evaluate(() => navigator.clipboard.readText())
  expect(copied.split('\n')[2]).toMatch(/\tBm\troot position\tF♯\d D\d B\d$/)
})

test('a symmetric scale shows what it holds and the dominants behind it, and goes to the Desk', async ({ page }) => {
  await open(page, `${server.address}symmetry?chart=${waltz}&bar=8&beat=1&scale=F+half-whole`)
  await expect(page.getByText('24 triads and')).toBeVisible()
  await expect(
    page.getByText('It comes back every three semitones, so there are only three different ones.'),
  ).toBeVisible()
  await expect(page.getByText('Behind G♭dim7 stand four dominants')).toBeVisible()
  for (const dominant of ['F7(♭9)', 'A♭7(♭9)', 'B7(♭9)', 'D7(♭9)'])
    await expect(page.getByRole('button', { name: dominant, exact: true })).toBeVisible()
  await expect(page.getByText('it hears 1 ♭9 ♯9 3 ♯11 5 13 ♭7').first()).toBeVisible()
  await page.getByLabel('Scale').selectOption('whole tone')
  await page.getByRole('button', { name: 'the other one: F♯ whole tone' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('F♯ whole tone')
  await page.getByRole('button', { name: 'B♭+', exact: true }).click()
  await expect(page).toHaveURL(/\/desk\?/)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('B♭+')
})

test('my ears: a slider answers at once, is kept, undone, and set back', async ({ page }) => {
  await open(page, `${server.address}set-up?section=ears&chart=${waltz}&bar=16&beat=2.5&over=A+altered`)
  const ears = page.getByRole('region', { name: 'My ears' })
  await expect(ears).toContainText('fade 32')
  const slider = ears.getByRole('slider', { name: 'An altered ♭9' })
  await slider.focus()
  for (let i = 0; i < 40; i++) await page.keyboard.press('ArrowRight')
  await expect(ears).toContainText(/fade 4\d/)
  await expect
    .poll(async () => JSON.stringify((await call(server.address, 'GET', 'settings')).body))
    .toContain('"b9":90')
  await open(page, `${server.address}desk?chart=${waltz}&bar=16&beat=2.5&over=A+altered`)
  expect(await slopeLabels(page)).toContain('B♭, ♭9, altered, fade 90')
  await open(page, `${server.address}set-up?section=ears&chart=${waltz}&bar=16&beat=2.5&over=A+altered`)
  await page.getByRole('button', { name: 'Back to the usual ears' }).click()
  await expect(ears).toContainText('fade 32')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(ears).toContainText(/fade 4\d/)
  await page.getByRole('button', { name: 'Back to the usual ears' }).click()
  await expect(ears).toContainText('fade 32')
  await page.getByRole('button', { name: 'Strings' }).click()
  await page.getByLabel('Tuning').selectOption('own')
  await page.getByLabel('Open strings from the lowest').fill('D2 A2 H3')
  await expect(page.getByRole('alert')).toContainText('“H3” is no open string')
})

test('the stand is reached and left by a key, walked by the pedal, and g s is still Set-up', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${waltz}&bar=8&beat=1`)
  await page.keyboard.press('s')
  await expect(page).toHaveURL(/\/stand\?/)
  await expect(page.getByRole('region', { name: 'Chord' })).toContainText('A7')
  await page.keyboard.press('PageDown')
  await expect(page.getByRole('region', { name: 'Chord' })).toContainText('Gmaj7')
  const name = page.getByRole('group', { name: 'Slope' }).locator('text').first()
  await expect.poll(() => name.evaluate((t) => Number.parseFloat(getComputedStyle(t).fontSize))).toBeGreaterThan(22)
  await page.keyboard.press('s')
  await expect(page).toHaveURL(/\/desk\?/)
  await page.keyboard.press('g')
  await page.keyboard.press('s')
  await expect(page).toHaveURL(/\/set-up\?/)
})

test('a pair in twelve keys prints on one page, its two triads told apart without colour', async ({ page }) => {
  await open(page, `${server.address}desk?chart=${waltz}&bar=8&beat=1&over=A+%26+B%2B`)
  await page.getByRole('button', { name: 'Print' }).click()
  const dialog = page.getByRole('dialog', { name: 'Print a sheet' })
  await dialog.getByLabel('For').selectOption('eb')
  await dialog.getByLabel('Clef').selectOption('bass')
  const sheet = page.locator('.paper')
  await expect(sheet.getByRole('group')).toHaveCount(12)
  await expect(sheet).toContainText('F♯ & G♯+ over F♯7')
  const fills = await sheet
    .getByRole('group')
    .first()
    .getByRole('button')
    .evaluateAll((all) => all.map((b) => getComputedStyle(b.querySelector('path') as Element).fill))
  const [solid, hollow] = [fills.filter((_, i) => i % 2 === 0), fills.filter((_, i) => i % 2 === 1)]
  const grey = (rgb = '') => (rgb.match(/\d+/g) ?? []).slice(0, 3).reduce((sum, n) => sum + Number(n) / 3, 0)
  for (const h of hollow) for (const s of solid) expect(grey(h) - grey(s)).toBeGreaterThan(100)
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
})
