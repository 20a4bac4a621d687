// Lines by sampled instruments, played into the browser as its microphone: how much of them a take holds.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { call } from '../e2e/server.ts'
import { emptyData, removeData, startServer } from '../serving.ts'
import { BANK, compared, INSTRUMENTS, inMs, lineOf, SCENES, type Struck, sampledWav } from './played.ts'

const TEMPO = 120
/** Ms of a tick at that tempo. */
const TICK = 60_000 / TEMPO / 960
const LEAD_MS = 4000
const RANGES: Readonly<Record<string, string>> = { guitar: 'guitar', 'upright bass': 'bass', saxophone: 'tenor' }

/** The take began at another moment than the file: by how much is what most notes agree on. */
const aligned = (struck: readonly Struck[], heard: readonly Struck[]): readonly Struck[] => {
  const moved = (by: number) => heard.map((h) => ({ ...h, at: h.at + by }))
  const shifts = heard
    .slice(0, 12)
    .flatMap((h) => struck.slice(0, 12).flatMap((s) => (s.pitch === h.pitch ? [s.at - h.at] : [])))
  const best = shifts
    .map((by) => ({ by, found: compared(struck, moved(by)).recall }))
    .sort((a, b) => b.found - a.found)[0]
  return moved(best?.by ?? 0)
}

if (!BANK) console.log('no sampled synthesiser here (fluidsynth and a bank of sounds)')
else {
  console.log('what a take holds of lines played into the browser as its microphone, of 64 notes:')
  const folder = mkdtempSync(join(tmpdir(), 'crossfade-microphone-'))
  const data = emptyData()
  const server = await startServer(data)
  const text = `tempo = ${TEMPO}\n| Dm7 | % | % | % |`
  const chartId = (await call(server.address, 'POST', 'charts', { title: 'Sound Check', text })).body.id
  await call(server.address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  for (const scene of SCENES)
    for (const { name, program, low, high } of INSTRUMENTS) {
      const line = lineOf(scene, { low, high }, program + 7)
      const lead = Math.round(LEAD_MS / (60_000 / scene.tempo / 960))
      const late = line.map((n) => ({ ...n, at: n.at + lead }))
      const wav = sampledWav(late, scene.tempo, program, folder)
      const struck = inMs(late, scene.tempo)
      const browser = await chromium.launch({
        executablePath: '/usr/bin/chromium',
        args: [
          ...['--no-sandbox', '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'],
          `--use-file-for-fake-audio-capture=${wav}%noloop`,
        ],
      })
      const page = await browser.newPage()
      await page.goto(`${server.address}practice?practise=takes&chart=${chartId}`)
      await page.waitForSelector('html[data-ready]')
      await page.getByLabel('Play it from').selectOption('microphone')
      await page.getByText('How I play in').click()
      await page.getByLabel('Range of').selectOption(RANGES[name] ?? 'any')
      await page.getByRole('button', { name: 'Record', exact: true }).click()
      await page.waitForTimeout((struck.at(-1)?.at ?? 0) + 4000)
      await page.getByRole('button', { name: 'Stop and keep' }).click()
      await page.getByRole('list', { name: 'What is told of it' }).waitFor({ timeout: 60_000 })
      const { items } = await (await fetch(`${server.address}api/v1/takes?limit=1`)).json()
      const heard = items[0].notes.map((n: Struck) => ({ ...n, at: n.at * TICK, for: n.for * TICK }))
      const { precision, recall } = compared(struck, aligned(struck, heard))
      console.log(`  ${name}, ${scene.name}: precision ${precision.toFixed(2)}, recall ${recall.toFixed(2)}`)
      await browser.close()
    }
  await server.end()
  removeData(data)
  rmSync(folder, { recursive: true })
}
