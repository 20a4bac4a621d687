import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, expect, type Page, test } from '@playwright/test'
import { listen, takePeak } from './listen.ts'
import { complaints, MUSIC, open } from './page.ts'
import { call, serverOfFile } from './server.ts'

const RATE = 48_000
const LEAD_S = 4
const APART_S = 0.5
const LINE = [62, 65, 69, 72, 71, 67, 64, 60, 63, 66, 70, 73, 70, 66, 69, 65]

/** A line of plain tones as a sound file: what somebody plays in front of the microphone. */
const wavOf = (pitches: readonly number[]): Buffer => {
  const count = Math.round((LEAD_S + pitches.length * APART_S + 6) * RATE)
  const bytes = Buffer.alloc(44 + count * 2)
  bytes.write('RIFF')
  bytes.writeUInt32LE(36 + count * 2, 4)
  bytes.write('WAVEfmt ', 8)
  bytes.writeUInt32LE(16, 16)
  bytes.writeUInt16LE(1, 20)
  bytes.writeUInt16LE(1, 22)
  bytes.writeUInt32LE(RATE, 24)
  bytes.writeUInt32LE(RATE * 2, 28)
  bytes.writeUInt16LE(2, 32)
  bytes.writeUInt16LE(16, 34)
  bytes.write('data', 36)
  bytes.writeUInt32LE(count * 2, 40)
  for (const [i, pitch] of pitches.entries()) {
    const [from, length] = [Math.round((LEAD_S + i * APART_S) * RATE), 0.38 * RATE]
    const hz = 440 * 2 ** ((pitch - 69) / 12)
    for (let k = 0; k < length; k++) {
      const level = 0.35 * Math.min(1, k / 500, (length - k) / 1200)
      const x = level * (Math.sin((2 * Math.PI * hz * k) / RATE) + 0.3 * Math.sin((4 * Math.PI * hz * k) / RATE))
      bytes.writeInt16LE(Math.round(x * 28_000), 44 + (from + k) * 2)
    }
  }
  return bytes
}

let chart = ''
const server = serverOfFile(async (address) => {
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  const text = 'title = Fog Signal\ntempo = 120\n| Dm7 | % | % | % |'
  chart = (await call(address, 'POST', 'charts', { title: 'Fog Signal', text })).body.id
})

const folder = mkdtempSync(join(tmpdir(), 'crossfade-microphone-'))
const wav = join(folder, 'line.wav')
const everyNote = join(folder, 'every-note.wav')
test.beforeAll(() => {
  writeFileSync(wav, wavOf(LINE))
  writeFileSync(everyNote, wavOf(Array.from({ length: 12 }, (_, i) => 60 + i)))
})
test.afterAll(() => rmSync(folder, { recursive: true }))

/** A browser whose microphone hears a file, or is refused. */
const withMicrophone = async (args: readonly string[], work: (page: Page) => Promise<void>): Promise<void> => {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--use-fake-device-for-media-stream', ...args],
  })
  try {
    await work(await browser.newPage({ viewport: { width: 1280, height: 800 } }))
  } finally {
    await browser.close()
  }
}
const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true })
const running = (page: Page) => page.getByRole('region', { name: 'Record a take' }).getByRole('status')
const place = () => `${server.address}practice?practise=takes&chart=${chart}`

test('a line in front of the microphone: its notes are found, its sound is kept and heard again, here and after a restart', async () => {
  test.slow()
  let heard: readonly number[] = []
  const once = () =>
    withMicrophone(
      ['--use-fake-ui-for-media-stream', `--use-file-for-fake-audio-capture=${wav}%noloop`],
      async (page) => {
        const said = complaints(page)
        await listen(page)
        await open(page, place())
        await page.getByLabel('Play it from').selectOption('microphone')
        await button(page, 'Record').click()
        await expect(running(page)).toContainText('notes', MUSIC)
        await expect(page.getByRole('meter', { name: 'Level of the microphone' })).toBeVisible()
        await running(page)
          .filter({ hasText: `${LINE.length} notes` })
          .waitFor(MUSIC)
          .catch(() => undefined)
        await page.waitForTimeout(500)
        await button(page, 'Stop and keep').click()
        await expect(page.getByRole('list', { name: 'What is told of it' })).toBeVisible(MUSIC)
        const [take] = (await call(server.address, 'GET', 'takes')).body.items
        heard = take.notes.map((n: { pitch: number }) => n.pitch)
        if (heard.join() !== LINE.join()) return void (await call(server.address, 'DELETE', `takes/${take.id}`))
        // Half a second from one to the next: 960 ticks at 120. A busy machine may hand on one block of sound late.
        const apart = take.notes.slice(1).map((n: { at: number }, i: number) => n.at - take.notes[i].at)
        const usual = apart.toSorted((a: number, b: number) => a - b)[apart.length >> 1]
        expect(Math.abs(usual - 960)).toBeLessThan(960 * 0.05)
        expect(take.sound.bytes).toBeGreaterThan(10_000)

        await server.kill()
        await server.again()
        await page.reload()
        await button(page, 'with the band').click()
        await takePeak(page)
        await button(page, 'Listen to all of it').click()
        await expect.poll(() => takePeak(page), MUSIC).toBeGreaterThan(0.01)
        await page.keyboard.press('Space')

        await page.getByText('Save or remove it').click()
        const saved = page.waitForEvent('download')
        await button(page, 'WAV').click()
        expect((await saved).suggestedFilename()).toMatch(/\.wav$/)
        await page.getByRole('button', { name: /Remove the sound/ }).click()
        await expect(page.getByText('The sound is removed; the notes stay.')).toBeVisible()
        // What was being fetched as the server was killed.
        expect(said.filter((s) => !/ERR_CONNECTION|Failed to load|network error/.test(s))).toEqual([])
      },
    )
  // On a machine that stalls, the simulated microphone swallows what it should have played: then it is heard once more.
  for (let i = 0; i < 2 && heard.join() !== LINE.join(); i++) await once()
  expect(heard).toEqual(LINE)
})

test('the quiz is answered by a note in front of the microphone', async () => {
  await withMicrophone(
    ['--use-fake-ui-for-media-stream', `--use-file-for-fake-audio-capture=${everyNote}`],
    async (page) => {
      await open(page, `${server.address}practice?practise=quiz&topic=note`)
      await button(page, 'Begin').click()
      const question = page.getByRole('region', { name: 'Question' })
      await expect(question.getByRole('status')).toBeEmpty()
      await button(page, 'Answer by playing (microphone)').click()
      await expect(question.getByRole('status')).not.toBeEmpty(MUSIC)
      await button(page, 'Next question').click()
      await expect(question.getByRole('status')).not.toBeEmpty(MUSIC)
    },
  )
})

test('a microphone that is refused is told in words, and nothing begins', async () => {
  await withMicrophone(['--deny-permission-prompts'], async (page) => {
    await open(page, place())
    await page.getByLabel('Play it from').selectOption('microphone')
    await button(page, 'Record').click()
    await expect(page.getByText(/The microphone was refused|There is no microphone/)).toBeVisible(MUSIC)
    await expect(button(page, 'Record')).toBeEnabled()
  })
})
