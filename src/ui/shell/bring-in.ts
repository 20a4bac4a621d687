import { $address, go } from '../state/address/address.ts'
import { $importing, dropImported, readIn } from '../state/charts/importing.ts'
import { $lineFile } from '../state/line/lines.ts'
import { say } from '../state/page/notices.ts'

const bringLine = (file: File, why: string): void => {
  go({ view: 'line' })
  $lineFile.set(file)
  say($address.get()?.chart ? why : 'A line lies over a chart: open one, and bring it again.')
}

/** A score or a tune is a line where one looks at lines; else a chart, unless it holds no chords. */
const bring = async (file: File): Promise<void> => {
  const isMusic = /\.(abc|xml|musicxml|mxl|midi?)$/i.test(file.name)
  if (isMusic && $address.get()?.view === 'line') return bringLine(file, 'It is looked into as a line.')
  go({ view: 'charts' })
  await readIn(file)
  const answer = $importing.get()?.answer
  if (!answer || answer.ok || answer.code !== 'no_chords') return
  dropImported()
  bringLine(file, 'It holds no chords, so it is looked into as a line.')
}

/** What pasted text is, by how it begins; null for a few words that are no chart. */
const fileOfText = (text: string): File | null => {
  const name = /^\s*</.test(text) ? 'pasted.musicxml' : /^X:/m.test(text) ? 'pasted.abc' : 'pasted.txt'
  const isChart = name !== 'pasted.txt' || text.includes('|')
  return isChart ? new File([text], name) : null
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('input, textarea, select, [contenteditable="true"]') !== null

/** Reads a file that is dropped anywhere, or pasted; gives what stops it. */
export const listenForFiles = (): (() => void) => {
  const over = (e: DragEvent): void => {
    if (e.dataTransfer?.types.includes('Files')) e.preventDefault()
  }
  const drop = (e: DragEvent): void => {
    const file = e.dataTransfer?.files[0]
    if (!file || e.defaultPrevented) return
    e.preventDefault()
    void bring(file)
  }
  const paste = (e: ClipboardEvent): void => {
    if (isTyping(e.composedPath()[0] ?? e.target) || document.querySelector('dialog[open]')) return
    const file = e.clipboardData?.files[0] ?? fileOfText(e.clipboardData?.getData('text') ?? '')
    if (file) void bring(file)
  }
  window.addEventListener('dragover', over)
  window.addEventListener('drop', drop)
  window.addEventListener('paste', paste)
  return () => {
    window.removeEventListener('dragover', over)
    window.removeEventListener('drop', drop)
    window.removeEventListener('paste', paste)
  }
}
