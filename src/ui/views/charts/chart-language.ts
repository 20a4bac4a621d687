import { type CompletionContext, type CompletionResult, snippetCompletion } from '@codemirror/autocomplete'
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language'
import { type Diagnostic, linter } from '@codemirror/lint'
import type { EditorView } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { CHORD_SPELLINGS, checkChart, HEADERS, proposeMend } from '../../../core/index.ts'
import { errorSentence } from './error-sentence.ts'

/** The chart text's grammar for the eye; what is right is for the core to say. */
const chartText = StreamLanguage.define<{ inHeader: boolean }>({
  startState: () => ({ inHeader: false }),
  token: (stream, state) => {
    if (stream.sol()) state.inHeader = false
    if (stream.match('//')) {
      stream.skipToEnd()
      return 'comment'
    }
    if (stream.sol() && stream.match(/\s*==.*/)) return 'heading'
    if (stream.sol() && stream.match(/\s*[A-Za-z]+\s*(?==)/)) {
      state.inHeader = true
      return 'keyword'
    }
    if (state.inHeader) {
      stream.skipToEnd()
      return null
    }
    if (stream.match(/\|:|:\||\|\||\|\]|\|/)) return 'punctuation'
    if (stream.match(/[1-9](?:[.,-]?[1-9])*\.(?=\s)/)) return 'number'
    if (stream.match(/:\d+(\.\d+)?/)) return 'number'
    if (stream.match(/\([^)|]*\|[^)]*\)|N\.?C\.?|%|[A-G][^\s|:]*/)) return 'atom'
    stream.next()
    return null
  },
})

const look = HighlightStyle.define([
  { tag: tags.comment, color: 'var(--soft)', fontStyle: 'italic' },
  { tag: tags.heading, fontWeight: '700', fontFamily: 'var(--head)' },
  { tag: tags.keyword, color: 'var(--soft)' },
  { tag: tags.punctuation, color: 'var(--soft)' },
  { tag: tags.number, color: 'var(--soft)' },
  { tag: tags.atom, fontWeight: '700' },
])

const diagnosticsOf = (view: EditorView): readonly Diagnostic[] => {
  const text = view.state.doc.toString()
  return checkChart(text).errors.map((e): Diagnostic => {
    const word = /^[^\s|]+/.exec(text.slice(e.at))?.[0] ?? ''
    const from = Math.min(e.at, text.length)
    const mend = proposeMend(text, e)
    return {
      from,
      to: Math.min(text.length, from + Math.max(1, word.length)),
      severity: 'error',
      message: errorSentence(e),
      actions: mend
        ? [
            {
              name: `Make it ${mend.becomes.trim() || 'nothing'}`,
              apply: (v) => v.dispatch({ changes: { from: mend.at, to: mend.end, insert: mend.becomes } }),
            },
          ]
        : [],
    }
  })
}

const complete = (context: CompletionContext): CompletionResult | null => {
  const chord = context.matchBefore(/[A-G][^\s|:]*/)
  if (chord) {
    const root = /^[A-G](?:bb|##|[b#])?/.exec(chord.text)?.[0] ?? ''
    return { from: chord.from, options: CHORD_SPELLINGS.map((s) => ({ label: root + s })), validFor: /^[A-G][^\s|:]*$/ }
  }
  const head = context.matchBefore(/^\s*[a-z]+/)
  if (!head || head.from !== context.state.doc.lineAt(head.from).from) return null
  return { from: head.from, options: HEADERS.map((h) => snippetCompletion(`${h} = \${}`, { label: h })) }
}

export const chartLanguage = [chartText, syntaxHighlighting(look)]
export const chartLinter = linter(diagnosticsOf, { delay: 120 })
export const completions = complete
