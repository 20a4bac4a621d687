// npm run screenshots: one current picture of each main view, made from the demo's own data, into docs/screenshots/.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureChromium } from './debian.mjs'
import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs'

const at = (name, path, look = 'light', width = 1280, height = 800) => ({ name, path, look, width, height })
const PAIR = 'bar=15&beat=3&over=F+%26+G%2B'
const ROUTE = encodeURIComponent('{"families":["pentatonic"],"motion":"+1"}')
const BLOCKS = 'A half step up, four and four'
const SHOTS = [
  at('desk', 'desk?bar=13&beat=1&over=G+dorian'),
  at('desk-club', 'desk?bar=13&beat=1&over=G+dorian', 'dark'),
  at('desk-360', 'desk?bar=13&beat=1&over=G+dorian', 'light', 360, 760),
  at('charts', 'charts?bar=13&beat=1'),
  at('pairs', `pairs?${PAIR}&distance=2`),
  at('symmetry', 'symmetry?bar=15&beat=3&scale=Eb+half-whole'),
  at('route', `route?bar=13&beat=1&plan=${ROUTE}`),
  at('route-360', `route?bar=13&beat=1&plan=${ROUTE}`, 'light', 360, 1500),
  at('line', 'line?note=9&beside=fade'),
  at('make', 'line?make=make&bar=15&beat=3&led=half+below&shape=1+2+3+5'),
  at('reuse', 'line?make=reuse'),
  { ...at('band', 'line?note=9&write=on&beside=keys'), press: 'v' },
  at('stand-club', 'stand?bar=13&beat=1&over=G+dorian', 'dark'),
  at('practice', 'practice'),
  { ...at('take', 'practice?practise=takes'), take: 'Anchor Light, too long off the anchor' },
  { ...at('player-club', 'player', 'dark'), item: BLOCKS, press: 'Space', wait: 20_500 },
  { ...at('quiz', 'practice?practise=quiz&topic=by+ear'), press: 'Space' },
  at('log', 'log'),
  at('setup', 'set-up'),
]

await ensureInstalled()
await ensureBuilt()
ensureChromium()
const data = mkdtempSync(join(tmpdir(), 'crossfade-shots-'))
const demo = spawn('node', ['scripts/demo.mjs'], {
  cwd: ROOT,
  env: { ...process.env, HOST: '127.0.0.1', PORT: '0', CROSSFADE_DATA: join(data, 'demo') },
  stdio: ['ignore', 'pipe', 'inherit'],
})
const address = await new Promise((resolve, reject) => {
  demo.stdout.on('data', (chunk) => {
    const line = /^(http:\/\/\S+\/)$/m.exec(String(chunk))
    if (line) resolve(line[1])
  })
  demo.once('exit', (code) => reject(new Error(`the demo ended with ${code}`)))
})
const json = { 'content-type': 'application/json' }
await fetch(`${address}api/v1/settings`, {
  method: 'POST',
  headers: json,
  body: '{"name":"instrument","value":"concert"}',
})

const { chromium } = await import('@playwright/test')
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
const { items } = await (await fetch(`${address}api/v1/items?limit=200`)).json()
const { items: takes } = await (await fetch(`${address}api/v1/takes?limit=200`)).json()
const idOf = (rows, name) => rows.find((r) => r.name === name)?.id
for (const { name, path, look, width, height, press, item, take, wait } of SHOTS) {
  const page = await browser.newPage({ viewport: { width, height }, colorScheme: look, reducedMotion: 'reduce' })
  await page.goto(
    address + path + (item ? `?item=${idOf(items, item)}` : '') + (take ? `&take=${idOf(takes, take)}` : ''),
  )
  await page.waitForSelector('html[data-ready]')
  await page.evaluate(() => document.fonts.ready)
  await page.waitForTimeout(1200)
  if (press) await page.keyboard.press(press)
  await page.waitForTimeout(wait ?? 300)
  await page.screenshot({ path: join(ROOT, `docs/screenshots/${name}.png`) })
  await page.close()
}
await browser.close()
demo.kill('SIGTERM')
await new Promise((resolve) => demo.once('exit', resolve))
rmSync(data, { recursive: true, force: true })
