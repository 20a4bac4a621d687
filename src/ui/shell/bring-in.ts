import { go } from '../state/address/address.ts'
import { readIn } from '../state/charts/importing.ts'
import { say } from '../state/page/notices.ts'

const bring = (file: File): void => {
  if (/\.midi?$/i.test(file.name)) {
    go({ view: 'line' })
    return say('A MIDI file holds a line: bring it in with “Bring a line”.')
  }
  go({ view: 'charts' })
  void readIn(file)
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
    bring(file)
  }
  const paste = (e: ClipboardEvent): void => {
    if (isTyping(e.composedPath()[0] ?? e.target) || document.querySelector('dialog[open]')) return
    const file = e.clipboardData?.files[0] ?? fileOfText(e.clipboardData?.getData('text') ?? '')
    if (file) bring(file)
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
