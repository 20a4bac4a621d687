import { chromium } from '@playwright/test'

const [, , base, ...shots] = process.argv
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
for (const s of shots) {
  const [name, path, w = '1280', h = '800', scheme = 'light', act = ''] = s.split('~')
  const page = await browser.newPage({ viewport: { width: +w, height: +h }, colorScheme: scheme })
  page.on('console', (m) => {
    if (m.type() === 'error' || m.type() === 'warning') console.log(name, m.type(), m.text().slice(0, 300))
  })
  page.on('pageerror', (e) => console.log(name, 'pageerror', e.message))
  await page.goto(base + path)
  await page.waitForSelector('html[data-ready]')
  if (act) await new Function('page', `return (async()=>{${act}})()`)(page)
  await page.waitForTimeout(500)
  await page.screenshot({ path: `/tmp/shots/${name}.png` })
  await page.close()
}
await browser.close()
