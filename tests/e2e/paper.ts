import type { Page } from '@playwright/test'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'

/** The page as the browser prints it: the texts of each sheet, in their order, and how many sheets there are. */
export const printed = async (page: Page): Promise<readonly string[]> => {
  const data = new Uint8Array(await page.pdf({ format: 'A4', preferCSSPageSize: true }))
  const pdf = await getDocument({ data, useSystemFonts: false, verbosity: 0 }).promise
  const sheets: string[] = []
  for (let n = 1; n <= pdf.numPages; n++) {
    const { items } = await (await pdf.getPage(n)).getTextContent()
    sheets.push(items.map((i) => ('str' in i ? i.str : '')).join(' '))
  }
  return sheets
}
