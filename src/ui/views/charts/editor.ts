import { autocompletion, completionKeymap } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { lintKeymap } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view'
import { chartLanguage, chartLinter, completions } from './chart-language.ts'

export interface Editor {
  /** Puts another text in its place; it is not told to `onText`. */
  readonly setText: (text: string) => void
  readonly text: () => string
  readonly replace: (at: number, end: number, becomes: string) => void
  readonly selection: () => { readonly at: number; readonly end: number }
  /** Several changes at once, undone together; places are those before any of them. */
  readonly changeAll: (changes: readonly { at: number; end: number; becomes: string }[]) => void
  /** Puts the cursor at the end of the text. */
  readonly focusEnd: () => void
  readonly destroy: () => void
}

const THEME = EditorView.theme({
  '&': { height: '100%', color: 'var(--ink)', fontSize: '17px' },
  '&.cm-focused': { outline: '3px solid var(--ink)', outlineOffset: '-1px' },
  '.cm-scroller': { fontFamily: 'var(--text)', lineHeight: '1.7', overflow: 'auto' },
  '.cm-content': { caretColor: 'var(--ink)', padding: '8px 0' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '2px' },
  '.cm-gutters': { background: 'transparent', color: 'var(--soft)', border: '0', fontSize: '13px' },
  '.cm-activeLine': { background: 'color-mix(in srgb, var(--sunk) 55%, transparent)' },
  '.cm-activeLineGutter': { background: 'transparent' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': {
    background: 'color-mix(in srgb, var(--ink) 22%, transparent) !important',
  },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--ink) 2px',
    textUnderlineOffset: '5px',
  },
  '.cm-tooltip': { background: 'var(--panel)', color: 'var(--ink)', border: '1.5px solid var(--ink)' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { background: 'var(--ink)', color: 'var(--panel)' },
  '.cm-diagnostic': { borderLeft: '4px solid var(--ink)' },
  '.cm-diagnosticAction': { background: 'var(--ink)', color: 'var(--panel)', fontSize: '15px', padding: '4px 10px' },
})

/**
 * Typing over a selection is done here: a browser that does it itself leaves inline styles where lines join, which the
 * page's policy refuses.
 */
const typedOver = EditorView.domEventHandlers({
  beforeinput: (event, view) => {
    const { inputType, data, isComposing } = event
    if (inputType !== 'insertText' || data === null || isComposing || view.state.selection.main.empty) return false
    event.preventDefault()
    view.dispatch({ ...view.state.replaceSelection(data), userEvent: 'input.type', scrollIntoView: true })
    return true
  },
})

/** The chart editor in a shadow root of its own, so that its styles need no exception from the page's policy. */
export const mountEditor = (
  host: HTMLElement,
  text: string,
  onText: (text: string) => void,
  onPlace: (at: number) => void,
): Editor => {
  const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' })
  let quiet = false
  const extensions = [
    lineNumbers(),
    history(),
    drawSelection(),
    highlightActiveLine(),
    EditorView.lineWrapping,
    typedOver,
    EditorView.contentAttributes.of({
      'aria-label': 'Chart text',
      spellcheck: 'false',
      autocapitalize: 'off',
      // It takes the focus by itself; what is to scroll by keys has to say so.
      tabindex: '0',
    }),
    ...chartLanguage,
    chartLinter,
    autocompletion({ override: [completions], icons: false }),
    keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap, ...lintKeymap]),
    EditorView.updateListener.of((update) => {
      if (update.docChanged && !quiet) onText(update.state.doc.toString())
      else if (update.selectionSet && !quiet) onPlace(update.state.selection.main.head)
    }),
    THEME,
  ]
  const stateOf = (doc: string) => EditorState.create({ doc, extensions })
  const view = new EditorView({ state: stateOf(text), parent: root, root })
  return {
    setText: (next) => {
      if (next === view.state.doc.toString()) return
      quiet = true
      view.setState(stateOf(next))
      quiet = false
    },
    text: () => view.state.doc.toString(),
    replace: (at, end, becomes) => {
      view.dispatch({ changes: { from: at, to: end, insert: becomes }, scrollIntoView: true })
      view.focus()
    },
    selection: () => {
      const { from, to } = view.state.selection.main
      return { at: from, end: to }
    },
    changeAll: (changes) => {
      view.dispatch({ changes: changes.map(({ at, end, becomes }) => ({ from: at, to: end, insert: becomes })) })
    },
    focusEnd: () => {
      view.dispatch({ selection: { anchor: view.state.doc.length }, scrollIntoView: true })
      view.focus()
    },
    destroy: () => view.destroy(),
  }
}
