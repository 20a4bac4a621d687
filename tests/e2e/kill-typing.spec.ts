import { expect, type Page, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { open } from './page.ts'
import { call } from './server.ts'

/** So many of them in every run; `KILLS` asks for more. */
const KILLS = Number(process.env.KILLS ?? 6)
const CHORDS = ['Fmaj7', 'Dm7', 'Gm7', 'C7', 'Am7', 'Bb6', 'A7', 'Ebmaj7', 'E7'] as const

const editor = (page: Page) => page.getByRole('textbox', { name: 'Chart text' })
const chartState = (page: Page) => page.getByRole('region', { name: 'Text' }).getByRole('status').last()
const takeUp = (page: Page) => page.getByRole('button', { name: 'Take it up', exact: true })

test('killed again and again while two tabs type: what was acknowledged is there, what was not is sent or offered back', async ({
  context,
}) => {
  test.setTimeout(60_000 + KILLS * 45_000)
  const data = emptyData()
  let server: Running = await startServer(data)
  const port = new URL(server.address).port
  const post = async (kind: string, body: object) => (await call(server.address, 'POST', kind, body)).body.id
  await post('settings', { name: 'instrument', value: 'concert' })
  const chart = await post('charts', { title: 'Squall', text: 'title = Squall\n| C6 |' })
  const under = await post('charts', { title: 'Lull', text: 'title = Lull\n| C6 | % | % | % |' })
  const line = await post('lines', {
    name: 'Gust',
    chartId: under,
    line: { notes: [{ at: 0, for: 480, pitch: 20 }] },
  })
  const kept = async () => ({
    bars: String((await call(server.address, 'GET', `charts/${chart}`)).body.text).split('|').length - 3,
    pitch: (await call(server.address, 'GET', `lines/${line}`)).body.line.notes[0].pitch as number,
  })
  /** What the server said it kept: bars of the chart, and the pitch of the line's note. */
  const acknowledged = { bars: 0, pitch: 20 }
  const listenTo = (page: Page) =>
    page.on('response', async (response) => {
      const request = response.request()
      if (request.method() !== 'PUT' || !response.ok()) return
      const sent = request.postDataJSON()
      if (sent.text) acknowledged.bars = Math.max(acknowledged.bars, sent.text.split('|').length - 3)
      if (sent.line?.notes) acknowledged.pitch = Math.max(acknowledged.pitch, sent.line.notes[0].pitch)
    })
  const openChart = async (page: Page) => {
    listenTo(page)
    await open(page, `${server.address}charts?chart=${chart}`)
    await expect(editor(page)).toContainText('C6')
  }
  const openLine = async (page: Page) => {
    listenTo(page)
    await open(page, `${server.address}line?chart=${under}&line=${line}&write=on`)
    await expect(page.getByRole('group', { name: 'Line' }).getByRole('button')).toHaveCount(1)
  }
  let [typing, writing] = [await context.newPage(), await context.newPage()]
  await openChart(typing)
  await openLine(writing)
  const typed = { bars: 0, pitch: 20 }
  const typeBar = async () => {
    await editor(typing).click()
    await typing.keyboard.press('Control+End')
    await typing.keyboard.type(` ${CHORDS[typed.bars % CHORDS.length]} |`)
    typed.bars++
  }
  const halfUp = async () => {
    await writing.getByRole('button', { name: 'The whole line a half step up' }).click()
    typed.pitch++
  }

  for (let kill = 0; kill < KILLS; kill++) {
    await typeBar()
    await halfUp()
    // From before anything is sent until after it was acknowledged.
    await typing.waitForTimeout((kill * 97) % 900)
    await server.end('SIGKILL')
    await typeBar()
    await halfUp()
    const isClosed = kill % 4 === 3
    if (isClosed) await Promise.all([typing.close(), writing.close()])
    server = await startServer(data, port)
    const before = { ...acknowledged }
    const now = await kept()
    expect(now.bars).toBeGreaterThanOrEqual(before.bars)
    expect(now.pitch).toBeGreaterThanOrEqual(before.pitch)
    if (isClosed) {
      ;[typing, writing] = [await context.newPage(), await context.newPage()]
      await openChart(typing)
      await openLine(writing)
      for (const page of [typing, writing]) await takeUp(page).click()
    }
    await expect.poll(kept, { timeout: 30_000 }).toEqual(typed)
    await expect(chartState(typing)).toHaveText('Kept.')
  }
  await server.end()
  removeData(data)
})
