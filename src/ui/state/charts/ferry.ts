import { addRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { openFromLibrary } from './library.ts'

type Over = Readonly<Record<string, unknown>> & { readonly chart: string }

/** The ferry band's own files, fetched only when they are asked for. */
const CHARTS = import.meta.glob<string>('../../../../demo/charts/*.txt', { query: '?raw', import: 'default' })
const OVER = import.meta.glob<readonly Over[]>('../../../../demo/{ideas,routes,lines}.json', { import: 'default' })

const EMPTY = {
  ideas: { next: null, note: null, tags: [] },
  routes: { note: null, chartVersion: null, rules: null, inHand: false },
  lines: { text: null, tags: [], disputed: null, played: null, routeId: null },
} as const

const kindOf = (path: string): keyof typeof EMPTY =>
  (/(ideas|routes|lines)\.json$/.exec(path)?.[1] ?? 'ideas') as keyof typeof EMPTY

/** Keeps the ferry band's charts with what lies over them, and opens the first. */
export const loadFerry = async (): Promise<void> => {
  try {
    const paths = Object.keys(CHARTS).sort()
    const texts = await Promise.all(paths.map((p) => CHARTS[p]?.() ?? ''))
    const ids = new Map<string, string>()
    for (const text of texts) {
      const title = /^title = (.+)$/m.exec(text)?.[1] ?? 'Ferry'
      ids.set(title, addRow('charts', { title, text, tags: ['ferry'], overrides: null }))
    }
    for (const [path, load] of Object.entries(OVER)) {
      const kind = kindOf(path)
      for (const { chart, ...row } of await load())
        addRow(kind, { ...EMPTY[kind], ...row, chartId: ids.get(chart) ?? null } as never)
    }
    const [first] = ids.values()
    if (first) openFromLibrary(first)
    say('The ferry band’s charts are in the library.')
  } catch {
    say('The ferry band’s charts could not be loaded. Nothing is lost.')
  }
}
