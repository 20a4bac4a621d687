import type { BrowserContext, Locator, Page } from '@playwright/test'

/** Goes to an address and waits until the page answers to keys. Collects what the browser complains of. */
export const open = async (page: Page, address: string): Promise<void> => {
  await page.goto(address)
  await page.waitForSelector('html[data-ready]')
}

/** Violations of the policy, failed scripts and errors of the page, as they come. */
export const complaints = (page: Page): readonly string[] => {
  const said: string[] = []
  page.on('console', (m) => m.type() === 'error' && said.push(m.text()))
  page.on('pageerror', (e) => said.push(e.message))
  return said
}

/** From now on what is changed elsewhere is not heard there, as where the way to the server is slow. */
export const hearsNothing = (of: Page | BrowserContext): Promise<unknown> =>
  of.route('**/api/v1/changes', (route) =>
    route.fulfill({ contentType: 'text/event-stream', body: 'retry: 3600000\n\n' }),
  )

/** Types a question into the ask bar, by key alone. */
export const ask = async (page: Page, question: string): Promise<void> => {
  await page.keyboard.press('/')
  await page.keyboard.type(question)
  await page.keyboard.press('Enter')
}

export const searchbox = (page: Page): Locator => page.getByRole('searchbox', { name: 'Ask' })
export const slope = (page: Page): Locator => page.getByRole('group', { name: 'Slope' })
export const slopeNotes = (page: Page): Locator => slope(page).getByRole('button')
/** What each note of the slope view says of itself, in the formula's order. */
export const slopeLabels = (page: Page): Promise<(string | null)[]> =>
  slopeNotes(page).evaluateAll((notes) => notes.map((n) => n.getAttribute('aria-label')))
export const strip = (page: Page): Locator => page.getByRole('list', { name: 'Strip' })
export const currentSpot = (page: Page): Locator => strip(page).locator('[aria-current="true"]')
export const ideas = (page: Page): Locator => page.getByRole('list', { name: 'Ideas' }).getByRole('listitem')

/** Two presses further apart than this are two; nearer ones may be the gesture that starts the music. */
const APART_MS = 450

/** Presses the pedal, once for each key, slowly enough that each press counts by itself. */
export const pedal = async (page: Page, ...keys: readonly ('PageDown' | 'PageUp')[]): Promise<void> => {
  for (const key of keys) {
    await page.keyboard.press(key)
    await page.waitForTimeout(APART_MS)
  }
}

/** Presses the pedal twice as a foot does, a fifth of a second apart by the events' own time. */
export const pedalTwice = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const now = performance.now()
    for (const timeStamp of [now, now + 200]) {
      const press = new KeyboardEvent('keydown', { key: 'PageDown', bubbles: true })
      Object.defineProperty(press, 'timeStamp', { value: timeStamp })
      document.body.dispatchEvent(press)
    }
  })

/** Music moves by its own clock, which stands still where the machine is busy: it is waited for longer. */
export const MUSIC = { timeout: 45_000 } as const
