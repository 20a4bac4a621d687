type Body = Readonly<Record<string, unknown>>
interface Row extends Body {
  readonly id: string
  readonly version: number
}

/** For tests: a server that keeps rows in memory as the real one does, and can be dead, slow or without undo. */
export interface StandIn {
  readonly rows: Map<string, Row>
  /** Each request as `METHOD path`, without its query. */
  readonly asked: string[]
  readonly steps: (string | null)[]
  dead: boolean
  /** Answers that are held back until this is called. */
  hold: boolean
  readonly release: () => void
  readonly put: (kind: string, id: string, fields: Body) => Row
  readonly fetch: (path: string, init?: RequestInit) => Promise<Response>
}

const AT = '2026-01-01T00:00:00.000Z'
const answer = (status: number, body: unknown): Response => new Response(JSON.stringify(body), { status })
const problem = (status: number, code: string, more: Body = {}): Response =>
  answer(status, { code, detail: code, ...more })

export const standIn = (): StandIn => {
  const rows = new Map<string, Row>()
  const history: {
    readonly key: string
    readonly before: Row | null
    after: Row | null
    readonly step: string | null
  }[] = []
  const undone: typeof history = []
  let waiting: (() => void)[] = []
  let seconds = 0

  const write = (key: string, after: Row | null, step: string | null): void => {
    const last = history.at(-1)
    const before = rows.get(key) ?? null
    if (after) rows.set(key, after)
    else rows.delete(key)
    if (step !== null && last?.step === step && last.key === key) last.after = after
    else history.push({ key, before, after, step })
    undone.length = 0
  }
  const bring = (way: 'undo' | 'redo'): Response => {
    const change = (way === 'undo' ? history : undone).pop()
    if (!change) return problem(409, `nothing_to_${way}`)
    ;(way === 'undo' ? undone : history).push(change)
    const image = way === 'undo' ? change.before : change.after
    const version = (rows.get(change.key)?.version ?? change.before?.version ?? change.after?.version ?? 0) + 1
    const row = image && { ...image, version }
    if (row) rows.set(change.key, row)
    else rows.delete(change.key)
    const [kind, id] = change.key.split('/')
    const action = change.before === null ? 'create' : change.after === null ? 'delete' : 'update'
    return answer(200, { kind, id, action, row })
  }
  const list = (kind: string, query: URLSearchParams): Response => {
    const [chartId, after, limit] = [
      query.get('chartId'),
      Number(query.get('after') ?? 0),
      Number(query.get('limit') ?? 50),
    ]
    const all = [...rows]
      .filter(([key, row]) => key.startsWith(`${kind}/`) && (chartId === null || row.chartId === chartId))
      .map(([, row]) => row)
      .sort((a, b) => (String(a.updatedAt) < String(b.updatedAt) ? 1 : -1))
    const to = after + limit
    return answer(200, { items: all.slice(after, to), next: to < all.length ? String(to) : null })
  }
  const serve = (method: string, url: URL, body: Body): Response => {
    const [, , , kind = '', id] = url.pathname.split('/')
    const step = url.searchParams.get('step')
    const key = `${kind}/${id ?? body.id}`
    const now = rows.get(key)
    if (kind === 'undo' || kind === 'redo') return bring(kind)
    if (method === 'GET')
      return id ? (now ? answer(200, now) : problem(404, 'not_found')) : list(kind, url.searchParams)
    if (method !== 'POST' && !now) return problem(404, 'not_found')
    if (method === 'DELETE') {
      write(key, null, null)
      return answer(200, { id })
    }
    if (typeof body.text === 'string' && body.text.includes('H7')) return problem(400, 'bad_text')
    if (method === 'POST' && now) return problem(409, 'id_taken', { current: now })
    if (now && body.version !== now.version) return problem(409, 'stale_version', { current: now })
    const updatedAt = new Date(Date.parse(AT) + seconds++ * 1000).toISOString()
    const row = { createdAt: AT, ...now, ...body, updatedAt, version: (now?.version ?? 0) + 1 } as unknown as Row
    write(key, row, step)
    return answer(method === 'POST' ? 201 : 200, row)
  }
  const made: StandIn = {
    rows,
    asked: [],
    steps: [],
    dead: false,
    hold: false,
    release: () => {
      made.hold = false
      for (const go of waiting) go()
      waiting = []
    },
    put: (kind, id, fields) => {
      const row = {
        createdAt: AT,
        updatedAt: AT,
        ...fields,
        id,
        version: (rows.get(`${kind}/${id}`)?.version ?? 0) + 1,
      }
      rows.set(`${kind}/${id}`, row)
      return row
    },
    fetch: async (path, init) => {
      const url = new URL(path, 'http://localhost')
      const method = init?.method ?? 'GET'
      made.asked.push(`${method} ${url.pathname.replace('/api/v1/', '')}`)
      made.steps.push(url.searchParams.get('step'))
      if (made.hold) await new Promise<void>((go) => waiting.push(go))
      if (made.dead) throw new TypeError('nothing answers')
      return serve(method, url, init?.body ? JSON.parse(String(init.body)) : {})
    },
  }
  return made
}
