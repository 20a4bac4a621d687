import { expect, type Page, type Route, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { ask, complaints, currentSpot, hearsNothing, ideas, open, strip } from './page.ts'
import { call } from './server.ts'

const TIDE = '| Fmaj7 | Dm7 | Gm7 | C7 |\n'
const data = emptyData()
let server: Running

test.beforeAll(async () => {
  server = await startServer(data)
  await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
})
test.afterAll(async () => {
  await server.end()
  removeData(data)
})

const api = (method: string, path: string, body?: unknown) => call(server.address, method, path, body)
const row = async (path: string) => (await api('GET', path)).body
const chart = async (title: string, text = TIDE): Promise<string> =>
  (await api('POST', 'charts', { title, text: `title = ${title}\n${text}` })).body.id
const notesFrom = (...pitches: readonly number[]) => pitches.map((pitch, i) => ({ at: i * 240, for: 240, pitch }))
const line = async (name: string, chartId: string | null, more: object = {}): Promise<string> =>
  (await api('POST', 'lines', { name, chartId, line: { notes: notesFrom(65, 67, 69) }, ...more })).body.id
const pitches = async (id: string): Promise<number[]> =>
  (await row(`lines/${id}`)).line.notes.map((n: { pitch: number }) => n.pitch)
const setting = async (name: string) =>
  (await row('settings?limit=200')).items.find((s: { name: string }) => s.name === name)?.value

const editor = (page: Page) => page.getByRole('textbox', { name: 'Chart text' })
const state = (page: Page) => page.getByRole('region', { name: 'Text' }).getByRole('status').last()
const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true })
const notes = (page: Page) => page.getByRole('group', { name: 'Line' }).getByRole('button')
const typeAtEnd = async (page: Page, text: string) => {
  await editor(page).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.type(text)
}
const onCharts = async (page: Page, id: string, more = '') => {
  await open(page, `${server.address}charts?chart=${id}${more}`)
  await expect(editor(page)).toContainText('|')
}
const onLine = async (page: Page, chartId: string, id: string) => {
  await open(page, `${server.address}line?chart=${chartId}&line=${id}&write=on`)
  await expect(notes(page)).toHaveCount(3)
}
const halfUp = (page: Page) => button(page, 'The whole line a half step up').click()
const pick = (page: Page, title: string) =>
  page.getByRole('combobox', { name: 'Chart', exact: true }).selectOption({ label: title })
/** Answers to writes of one kind come this much later. */
const slowly = (page: Page, path: string, ms: number) =>
  page.route(`**/api/v1/${path}`, async (r: Route) => {
    if (r.request().method() !== 'GET') await new Promise((go) => setTimeout(go, ms))
    await r.continue().catch(() => undefined)
  })
const restart = async () => {
  const port = new URL(server.address).port
  await server.end('SIGKILL')
  return async () => {
    server = await startServer(data, port)
  }
}

test.describe('edits of charts', () => {
  test('one chart typed into, another touched at once: both are kept', async ({ page }) => {
    const [a, b] = [await chart('Ebb One'), await chart('Ebb Two')]
    await onCharts(page, a)
    await typeAtEnd(page, ' Bbmaj7 |')
    await pick(page, 'Ebb Two')
    await expect(page.getByRole('heading', { name: 'Ebb Two' })).toBeVisible()
    await typeAtEnd(page, ' A7 |')
    await expect(state(page)).toHaveText('Kept.')
    await expect.poll(async () => (await row(`charts/${a}`)).text).toContain('Bbmaj7')
    expect((await row(`charts/${b}`)).text).toContain('A7')
  })

  test('a conflict on one chart leaves the others alone, and typing goes on in all of them', async ({ page }) => {
    await hearsNothing(page)
    const [a, b] = [await chart('Spring One'), await chart('Spring Two')]
    await onCharts(page, a)
    const theirs = { title: 'Spring One', text: 'title = Spring One\n| Fmaj7 | E7 |\n', version: 1 }
    await api('PUT', `charts/${a}`, theirs)
    await typeAtEnd(page, ' Bbmaj7 |')
    await expect(page.getByRole('alert')).toContainText('in the meantime')
    await typeAtEnd(page, ' Bb6 |')
    await expect(page.getByRole('region', { name: 'Yours' })).toContainText('Bbmaj7 | Bb6 |')
    await pick(page, 'Spring Two')
    await expect(page.getByRole('heading', { name: 'Spring Two' })).toBeVisible()
    await typeAtEnd(page, ' A7 |')
    await expect(state(page)).toHaveText('Kept.')
    expect((await row(`charts/${b}`)).text).toContain('A7')
    await pick(page, 'Spring One')
    await button(page, 'Keep this one').click()
    await expect(state(page)).toHaveText('Kept.')
    expect((await row(`charts/${a}`)).text).toContain('Bbmaj7 | Bb6 |')
    await typeAtEnd(page, ' Dm6 |')
    await expect.poll(async () => (await row(`charts/${a}`)).text).toContain('Bb6 | Dm6 |')
  })

  test('theirs can be taken after a conflict, and the editor shows it and types on', async ({ page }) => {
    await hearsNothing(page)
    const id = await chart('Neap')
    await onCharts(page, id)
    await api('PUT', `charts/${id}`, { title: 'Neap', text: 'title = Neap\n| Fmaj7 | E7 |\n', version: 1 })
    await typeAtEnd(page, ' Bbmaj7 |')
    await button(page, 'Take that one').click()
    await expect(editor(page)).toContainText('| Fmaj7 | E7 |')
    await typeAtEnd(page, ' Am7 |')
    await expect.poll(async () => (await row(`charts/${id}`)).text).toContain('E7 | Am7 |')
  })

  test('another tab changed something else: both changes stand, and nobody is asked', async ({ page }) => {
    const id = await chart('Two Things')
    await onCharts(page, id)
    const now = await row(`charts/${id}`)
    await api('PUT', `charts/${id}`, { ...now, tags: ['late set'] })
    await typeAtEnd(page, ' Bbmaj7 |')
    await expect(state(page)).toHaveText('Kept.')
    expect(await row(`charts/${id}`)).toMatchObject({ tags: ['late set'], text: expect.stringContaining('Bbmaj7') })
  })

  test('a second correction while the first is being kept is kept too', async ({ page }) => {
    const id = await chart('Two Words')
    await onCharts(page, id, '&bar=4')
    await slowly(page, 'charts/*', 900)
    await page.getByText('Say otherwise').click()
    await page.getByLabel('It is rather').selectOption('static dominant')
    await button(page, 'Say so').click()
    await page.waitForTimeout(200)
    await button(page, 'Split it in two').click()
    await expect
      .poll(async () => (await row(`charts/${id}`)).overrides)
      .toEqual([{ bar: 4, beat: 1, job: 'static dominant', split: 3 }])
  })

  test('a chart that cannot be opened is not the one on the screen, and is tried again', async ({ page }) => {
    const [a, b] = [await chart('Fog One'), await chart('Fog Two', '| Ebmaj7 | Abmaj7 |\n')]
    await onCharts(page, a)
    await page.route(`**/api/v1/charts/${b}`, (r) => r.abort())
    await pick(page, 'Fog Two')
    await expect(page.getByRole('alert').filter({ hasText: 'could not be opened' })).toBeVisible()
    await expect(editor(page)).toHaveCount(0)
    await expect(strip(page).getByText('Gm7')).toHaveCount(0)
    await page.unroute(`**/api/v1/charts/${b}`)
    await button(page, 'Try again').click()
    await expect(editor(page)).toContainText('Ebmaj7')
  })

  test('a chart removed elsewhere while one types: it says so, and what was typed can be kept anew', async ({
    page,
  }) => {
    await hearsNothing(page)
    const id = await chart('Overboard')
    await onCharts(page, id)
    await api('DELETE', `charts/${id}`)
    await typeAtEnd(page, ' Bbmaj7 |')
    await expect(page.getByRole('alert')).toContainText('removed elsewhere')
    await button(page, 'Keep it as a new one').click()
    await expect(state(page)).toHaveText('Kept.')
    const { items } = await row('charts?q=Overboard')
    expect(items).toHaveLength(1)
    expect(items[0].text).toContain('Bbmaj7')
  })

  test('keeping a chart fetches no others; a run of typing is one thing to undo', async ({ page }) => {
    const id = await chart('Quiet Work')
    await onCharts(page, id)
    await page.waitForTimeout(500)
    const asked: string[] = []
    page.on('request', (r) => r.method() === 'GET' && r.url().includes('/api/v1/charts') && asked.push(r.url()))
    for (const chord of ['Am7', 'Bb6', 'C9']) {
      await typeAtEnd(page, ` ${chord} |`)
      await expect(state(page)).toHaveText('Kept.')
    }
    expect(asked).toEqual([])
    expect((await row(`charts/${id}`)).text).toContain('Am7 | Bb6 | C9 |')
    await button(page, 'Undo').first().click()
    await expect.poll(async () => (await row(`charts/${id}`)).text).toBe(`title = Quiet Work\n${TIDE}`)
    await expect(editor(page)).not.toContainText('Am7')
    await expect(page.getByText(/^Undone: .*Quiet Work/)).toBeVisible()
  })
})

test.describe('a server that is gone, a browser that keeps nothing', () => {
  test('a browser that keeps nothing: charts are typed and kept, and Kept is said only when it is so', async ({
    page,
  }) => {
    await page.addInitScript(() => {
      Storage.prototype.setItem = () => {
        throw new DOMException('full', 'QuotaExceededError')
      }
    })
    const said = complaints(page)
    const id = await chart('Full Hold')
    await onCharts(page, id)
    await typeAtEnd(page, ' Bbmaj7 |')
    await expect(state(page)).toHaveText('Kept.')
    expect((await row(`charts/${id}`)).text).toContain('Bbmaj7')
    await page.route('**/api/v1/charts/*', (r) => r.abort())
    await typeAtEnd(page, ' A7 |')
    await expect(state(page)).toContainText('only in this tab')
    expect(said.filter((s) => !s.includes('net::ERR'))).toEqual([])
  })

  test('a browser that refuses storage altogether opens the charts', async ({ page }) => {
    await page.addInitScript(() => {
      Object.defineProperty(window, 'localStorage', {
        get: () => {
          throw new DOMException('refused', 'SecurityError')
        },
      })
    })
    const id = await chart('No Locker')
    await onCharts(page, id)
    await typeAtEnd(page, ' Bbmaj7 |')
    await expect(state(page)).toHaveText('Kept.')
    expect((await row(`charts/${id}`)).text).toContain('Bbmaj7')
  })

  test('while the server is dead tags, a job and two ideas are changed: all of it is kept when it answers', async ({
    page,
  }) => {
    const id = await chart('Becalmed')
    await onCharts(page, id, '&bar=4')
    const start = await restart()
    await page.getByLabel('Tags').fill('late set')
    await page.getByLabel('Tags').blur()
    await page.getByText('Say otherwise').click()
    await page.getByLabel('It is rather').selectOption('static dominant')
    await button(page, 'Say so').click()
    await expect(state(page)).toContainText('held in this browser')
    await page.keyboard.press('g')
    await page.keyboard.press('d')
    for (const over of ['B dorian over C7', 'Gb lydian over C7']) {
      await ask(page, over)
      await page.keyboard.press('k')
    }
    await start()
    await expect
      .poll(async () => await row(`charts/${id}`), { timeout: 30_000 })
      .toMatchObject({ tags: ['late set'], overrides: [{ bar: 4, beat: 1, job: 'static dominant' }] })
    await expect
      .poll(async () => (await row('ideas?limit=200')).items.map((i: { overlay: string }) => i.overlay).sort())
      .toEqual(['B dorian', 'Gb lydian'])
  })

  test('a line in hand stays in sight and can be written where the other lines cannot be fetched', async ({ page }) => {
    const id = await chart('Fog Bank')
    const l = await line('In Hand', id)
    const other = await line('Out of Reach', id)
    const lists = (url: URL): boolean => url.pathname.endsWith('/lines') && url.searchParams.has('chartId')
    await page.route(lists, (route) => route.abort())
    await onLine(page, id, l)
    await expect(page.getByRole('alert')).toContainText('The other lines could not be fetched')
    await halfUp(page)
    await expect.poll(() => pitches(l)).toEqual([66, 68, 70])
    await page.unroute(lists)
    await button(page, 'Try again').click()
    await expect(page.getByRole('alert')).toBeHidden()
    await expect(page.locator(`option[value="${other}"]`)).toHaveCount(1)
  })

  test('notes that a dead server did not take are sent when it answers, without another edit', async ({ page }) => {
    const id = await chart('Slack Water')
    const l = await line('Drift', id)
    await onLine(page, id, l)
    const start = await restart()
    await halfUp(page)
    await expect(page.getByText(/held in this browser/).first()).toBeVisible()
    await start()
    await expect.poll(() => pitches(l), { timeout: 30_000 }).toEqual([66, 68, 70])
  })

  test('a server that hangs and a tab that is closed: the notes are offered back', async ({ page, context }) => {
    const id = await chart('Long Wait')
    const l = await line('Hang', id)
    await onLine(page, id, l)
    server.process.kill('SIGSTOP')
    await halfUp(page)
    await page.waitForTimeout(300)
    await page.close()
    await (await restart())()
    const again = await context.newPage()
    await onLine(again, id, l)
    await button(again, 'Take it up').click()
    await expect.poll(() => pitches(l), { timeout: 30_000 }).toEqual([66, 68, 70])
  })

  test('what is held from earlier stays on offer while one types on, also after a reload', async ({
    page: first,
    context,
  }) => {
    const id = await chart('Two Drafts')
    await onCharts(first, id)
    const start = await restart()
    await typeAtEnd(first, ' Ebmaj7 |')
    await expect(state(first)).toContainText('held in this browser')
    await first.close()
    await start()
    const page = await context.newPage()
    await onCharts(page, id)
    await expect(button(page, 'Take it up')).toBeVisible()
    await typeAtEnd(page, ' A7 |')
    await expect(state(page)).toHaveText('Kept.')
    await page.reload()
    await button(page, 'Take it up').click()
    await expect(editor(page)).toContainText('Ebmaj7')
    await expect.poll(async () => (await row(`charts/${id}`)).text).toContain('Ebmaj7')
  })

  test('a view whose script does not load says so, and is tried again', async ({ page }) => {
    await open(page, `${server.address}desk?chart=${await chart('No Wind')}`)
    await page.route('**/SymmetryView*', (r) => r.abort())
    await page.keyboard.press('g')
    await page.keyboard.press('y')
    await expect(page.getByRole('alert')).toContainText('could not be loaded')
    await page.unroute('**/SymmetryView*')
    await button(page, 'Try again').click()
    await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible()
    await expect(page.getByRole('alert')).toHaveCount(0)
  })

  test('a worker that does not load says so, and is tried again', async ({ page }) => {
    const said = complaints(page)
    await page.route('**/ranking.worker*', (r) => r.abort())
    await open(page, `${server.address}desk?chart=${await chart('No Crew')}`)
    const failed = page.getByRole('alert').filter({ hasText: 'could not be ranked' })
    await expect(failed).toBeVisible()
    await page.unroute('**/ranking.worker*')
    await failed.getByRole('button', { name: 'Try again' }).click()
    await expect(page.getByRole('listbox', { name: 'Overlays' }).getByRole('option').first()).toBeVisible()
    expect(said.filter((s) => !s.includes('net::ERR') && !s.includes('worker'))).toEqual([])
  })
})

test.describe('lines, routes and ideas', () => {
  test('a line renamed and moved up at once: both are kept', async ({ page }) => {
    const id = await chart('Rename')
    const l = await line('Before', id)
    await onLine(page, id, l)
    await slowly(page, 'lines/*', 700)
    await page.getByLabel('Name of the line').fill('After')
    await page.getByLabel('Name of the line').press('Enter')
    await halfUp(page)
    await expect.poll(async () => (await row(`lines/${l}`)).name).toBe('After')
    await expect.poll(() => pitches(l)).toEqual([66, 68, 70])
    await expect(page.getByLabel('Name of the line')).toHaveValue('After')
  })

  test('a line that another tab changed is a choice, not a loss', async ({ page }) => {
    await hearsNothing(page)
    const id = await chart('Two Pens')
    const l = await line('Shared', id)
    await onLine(page, id, l)
    await api('PUT', `lines/${l}`, { ...(await row(`lines/${l}`)), line: { notes: notesFrom(60, 62, 64) } })
    await halfUp(page)
    await expect(page.getByRole('alert')).toContainText('in the meantime')
    await button(page, 'Keep this one').click()
    await expect.poll(() => pitches(l)).toEqual([66, 68, 70])
  })

  test('a line with a text of its own is the one that is shown, walked and edited', async ({ page }) => {
    const id = await chart('Own Water')
    const [theirs, own] = [
      await line('Of the chart', id),
      await line('Its own', null, { text: 'title = Own\n| Ebmaj7 | Abm7 |' }),
    ]
    await onLine(page, id, own)
    await expect(page.getByLabel('Name of the line')).toHaveValue('Its own')
    await halfUp(page)
    await expect.poll(() => pitches(own)).toEqual([66, 68, 70])
    expect(await pitches(theirs)).toEqual([65, 67, 69])
  })

  test('a line of another chart brings its chart; changing the chart shows that chart’s lines', async ({ page }) => {
    const [a, b] = [await chart('Far Bank'), await chart('Near Bank', '| Ebmaj7 | Abmaj7 |\n')]
    const [onA, onB] = [await line('Far line', a), await line('Near line', b)]
    await onLine(page, a, onB)
    await expect(page.getByLabel('Name of the line')).toHaveValue('Near line')
    await expect(strip(page).getByText('A♭maj7')).toBeVisible()
    await pick(page, 'Far Bank')
    await expect(page.getByLabel('Name of the line')).toHaveValue('Far line')
    await halfUp(page)
    await expect.poll(() => pitches(onA)).toEqual([66, 68, 70])
    expect(await pitches(onB)).toEqual([65, 67, 69])
  })

  test('what is kept with a chart is found however much is kept with others', async ({ page }) => {
    test.slow()
    const [a, b] = [await chart('Deep Hold'), await chart('Busy Quay')]
    const steps = [{ bar: 1, beat: 1, beats: 4, chord: 'Fmaj7', overlay: 'G major' }]
    await line('Down below', a)
    await api('POST', 'routes', { name: 'Old way', chartId: a, steps })
    await api('POST', 'ideas', { overlay: 'E phrygian', chord: 'Fmaj7', chartId: a, bar: 1, beat: 1 })
    for (let i = 0; i < 210; i++) {
      await Promise.all([
        line(`Crate ${i}`, b),
        api('POST', 'routes', { name: `Crate ${i}`, chartId: b, steps }),
        api('POST', 'ideas', { overlay: 'A aeolian', chord: 'Dm7', chartId: b, bar: 2, beat: 1 }),
      ])
    }
    await open(page, `${server.address}line?chart=${a}`)
    await expect(page.getByLabel('Name of the line')).toHaveValue('Down below')
    await open(page, `${server.address}route?chart=${a}&panel=kept`)
    await expect(page.getByLabel('Name of the route')).toHaveValue('Old way')
    await open(page, `${server.address}desk?chart=${a}`)
    await expect(ideas(page).first()).toContainText('E phrygian')
    await open(page, `${server.address}line?chart=${b}`)
    await expect(page.getByRole('combobox', { name: 'Which line' }).getByRole('option')).toHaveCount(210)
  })

  test('the route in hand is put away', async ({ page }) => {
    const id = await chart('Leave It')
    const steps = [{ bar: 1, beat: 1, beats: 4, chord: 'Fmaj7', overlay: 'Gb major' }]
    await api('POST', 'routes', { name: 'Upwind', chartId: id, steps, inHand: true })
    await open(page, `${server.address}desk?chart=${id}`)
    await expect(page.getByRole('heading', { name: 'G♭', exact: true })).toBeVisible()
    await button(page, /in hand: Upwind/).click()
    await button(page, 'In hand').click()
    await expect(button(page, /in hand: Upwind/)).toHaveCount(0)
    await page.keyboard.press('g')
    await page.keyboard.press('d')
    await expect(page.getByRole('heading', { name: 'G♭', exact: true })).toHaveCount(0)
  })

  test('listening to an instrument is begun once, however often the button is pressed', async ({ page }) => {
    await page.addInitScript(() => {
      const input = Object.assign(new EventTarget(), {
        ...{ id: '1', name: 'Dummy keys', manufacturer: '', type: 'input', state: 'connected' },
        ...{ connection: 'open', version: '1', onmidimessage: null as ((e: unknown) => void) | null },
        open: async () => input,
        close: async () => input,
      })
      const access = Object.assign(new EventTarget(), {
        ...{ inputs: new Map([['1', input]]), outputs: new Map(), sysexEnabled: false, onstatechange: null },
      })
      const later = () => new Promise((go) => setTimeout(() => go(access), 400))
      Object.assign(navigator, { requestMIDIAccess: later })
      Object.assign(window, {
        strike: (pitch: number) => {
          const event = Object.assign(new Event('midimessage'), { data: new Uint8Array([0x90, pitch, 90]) })
          input.onmidimessage?.(event)
          input.dispatchEvent(event)
        },
      })
    })
    const id = await chart('Keys In')
    const l = await line('Keys', id, { line: { notes: notesFrom(65) } })
    await open(page, `${server.address}line?chart=${id}&line=${l}&write=on`)
    await expect(notes(page)).toHaveCount(1)
    const listening = button(page, 'play it in')
    for (let i = 0; i < 3; i++) await listening.click()
    await expect(listening).toHaveAttribute('aria-pressed', 'true')
    await page.evaluate(() => (window as unknown as { strike: (p: number) => void }).strike(72))
    await expect(notes(page)).toHaveCount(2)
    await page.waitForTimeout(300)
    await expect(notes(page)).toHaveCount(2)
  })

  test('played, stopped and played again while the sound loads: one band, and one place where the music is', async ({
    page,
  }) => {
    const said = complaints(page)
    await page.addInitScript(() => {
      let frames = 0
      const real = window.requestAnimationFrame.bind(window)
      let callbacks = new Map<string, number>()
      window.requestAnimationFrame = (f) => {
        callbacks.set(f.name, (callbacks.get(f.name) ?? 0) + 1)
        return real(f)
      }
      const count = () => {
        frames++
        real(count)
      }
      real(count)
      Object.assign(window, {
        perFrame: async (): Promise<number> => {
          callbacks = new Map()
          const from = frames
          await new Promise((go) => setTimeout(go, 1000))
          return Math.max(0, ...callbacks.values()) / (frames - from)
        },
      })
    })
    await page.route('**/transport*', async (r) => {
      await new Promise((go) => setTimeout(go, 600))
      await r.continue()
    })
    await open(page, `${server.address}desk?chart=${await chart('Again and Again')}`)
    for (let i = 0; i < 5; i++) await page.keyboard.press('Space')
    await expect(button(page, 'Stop')).toBeVisible()
    await page.waitForTimeout(2500)
    const each = await page.evaluate(() => (window as unknown as { perFrame: () => Promise<number> }).perFrame())
    expect(each).toBeLessThan(1.5)
    await page.keyboard.press('Space')
    expect(said).toEqual([])
  })
})

test.describe('undo and what is typed', () => {
  test('two quick changes of one setting: the second stands', async ({ page }) => {
    await api('POST', 'settings', { name: 'clef', value: 'treble' })
    await slowly(page, 'settings*/**', 700)
    await open(page, `${server.address}set-up`)
    const clef = page.getByRole('combobox', { name: 'Clef' })
    await clef.selectOption('bass')
    await clef.selectOption('alto')
    await expect.poll(() => setting('clef')).toBe('alto')
    await expect(clef).toHaveValue('alto')
  })

  test('undo takes back a home scale that was put first, and leaves the chart; it names what it does', async ({
    page,
  }) => {
    const id = await chart('Whose Home')
    await onCharts(page, id, '&bar=4')
    await typeAtEnd(page, ' Bb6 |')
    await expect(state(page)).toHaveText('Kept.')
    await open(page, `${server.address}desk?chart=${id}&bar=4`)
    const home = page.getByLabel('Inside here')
    const before = await home.inputValue()
    await page.keyboard.press('h')
    await expect(home).not.toHaveValue(before)
    await page.keyboard.press('Control+z')
    await expect(home).toHaveValue(before)
    await expect(page.getByText(/^Undone: .*home scale/)).toBeVisible()
    expect((await row(`charts/${id}`)).text).toContain('Bb6')
    await page.keyboard.press('Control+z')
    await expect(page.getByText(/^Undone: .*Whose Home/)).toBeVisible()
    await expect.poll(async () => (await row(`charts/${id}`)).text).not.toContain('Bb6')
    await page.keyboard.press('Control+Shift+Z')
    await expect.poll(async () => (await row(`charts/${id}`)).text).toContain('Bb6')
  })

  test('a sketch that is left stays among the recent ones, until it is removed', async ({ page }) => {
    await open(page, `${server.address}desk?chart=${await chart('Shore')}`)
    await ask(page, 'Dm7 | G7 | Cmaj7')
    await expect(page.getByText('Sketch', { exact: true })).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(page.getByText('Sketch', { exact: true })).toHaveCount(0)
    await page.keyboard.press('g')
    await page.keyboard.press('c')
    const recent = page.getByRole('navigation', { name: 'Recent' })
    await recent.getByRole('button', { name: /^Dm7/ }).click()
    await expect(currentSpot(page)).toContainText('Dm7')
    await page.keyboard.press('Escape')
    await recent.getByRole('button', { name: /^Remove the sketch Dm7/ }).click()
    await page.reload()
    await expect(recent.getByRole('button', { name: /^Dm7/ })).toHaveCount(0)
  })

  test('a slider moved by many keys is one thing to undo', async ({ page }) => {
    await open(page, `${server.address}set-up?section=ears`)
    const slider = page.getByRole('slider', { name: 'A 9', exact: true })
    const before = await slider.inputValue()
    await slider.focus()
    for (let i = 0; i < 4; i++) {
      await page.keyboard.press('ArrowRight')
      await page.waitForTimeout(450)
    }
    await expect.poll(async () => (await setting('weights'))?.ninth).toBe(Number(before) + 4)
    await button(page, 'Undo').first().click()
    await expect(slider).toHaveValue(before)
  })
})
