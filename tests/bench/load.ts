// Eight clients that ask the heaviest things there are, and how long a small question waits meanwhile.
import { emptyData, removeData, startServer } from '../serving.ts'

const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
const KINDS = ['m7', '7', 'maj7', 'm7b5', '7alt', '7#11', '6', 'm6']
const chordAt = (i: number): string => `${ROOTS[(i * 5) % 12]}${KINDS[(i * 3 + (i >> 3)) % 8]}`
const wandering = (bars: number): string =>
  Array.from({ length: bars }, (_, i) => `| ${chordAt(2 * i)} ${chordAt(2 * i + 1)} `).join('')

const SECONDS = 20
const CLIENTS = 8
const data = emptyData()
const server = await startServer(data)
const api = (path: string): string => `${server.address}api/v1/${path}`
const post = (path: string, body: unknown, signal: AbortSignal | null = null): Promise<Response> =>
  fetch(api(path), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal,
  })

const notes = Array.from({ length: 8192 }, (_, i) => ({ at: i * 240, for: 240, pitch: 55 + ((i * 7) % 24) }))
const chart = (await (await post('charts', { title: 'Weir', text: wandering(512) })).json()) as { id: string }
const line = (await (await post('lines', { name: 'Weir', chartId: chart.id, line: { notes } })).json()) as {
  id: string
}

type Ask = (i: number, signal: AbortSignal) => Promise<Response>
const HEAVIEST: readonly Ask[] = [
  (i, signal) => fetch(api(`overlays?chord=${encodeURIComponent(chordAt(i))}&next=F&limit=200`), { signal }),
  (i, signal) => fetch(api(`pairs?chord=${encodeURIComponent(chordAt(i))}&next=F&limit=200`), { signal }),
  (_, signal) => post('routes/plan', { text: wandering(256), motion: 'contrary', limit: 100 }, signal),
  (_, signal) =>
    post('routes/plan', { text: wandering(64), motion: '+1', motionScope: 'throughout', loop: true }, signal),
  (_, signal) => post('lines/audit', { text: wandering(512), line: { notes } }, signal),
  (_, signal) => fetch(api(`lines/${line.id}/export?as=musicxml`), { signal }),
  (_, signal) => fetch(api(`lines/${line.id}/export?as=midi&band=true`), { signal }),
  (_, signal) => post('charts/analyse', { text: wandering(2000) }, signal),
]

const timed = async (path: string): Promise<number> => {
  const from = performance.now()
  const answer = await fetch(api(path))
  await answer.arrayBuffer()
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
  return performance.now() - from
}

interface Waits {
  readonly median: number
  readonly p99: number
  readonly worst: number
  readonly count: number
}
const waitsOf = (all: readonly number[]): Waits => {
  const sorted = [...all].sort((a, b) => a - b)
  const at = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0
  return { median: at(0.5), p99: at(0.99), worst: sorted.at(-1) ?? 0, count: sorted.length }
}

/** Small questions one after another for some seconds. */
const waits = async (path: string, seconds: number): Promise<Waits> => {
  const all: number[] = []
  for (const until = performance.now() + seconds * 1000; performance.now() < until; ) {
    all.push(await timed(path))
    await new Promise((resolve) => setTimeout(resolve, 5))
  }
  return waitsOf(all)
}

const SMALL = { '/health': 'health', '/ask': 'ask?q=B%20dorian%20over%20Eb7%20to%20Abmaj7' } as const
const print = (what: string, { median, p99, worst, count }: Waits): void =>
  console.log(
    `  ${what.padEnd(24)} median ${median.toFixed(1).padStart(6)} ms, p99 ${p99.toFixed(0).padStart(4)} ms, worst ${worst.toFixed(0).padStart(4)} ms of ${count}`,
  )

await new Promise((resolve) => setTimeout(resolve, 4000))
const first = performance.now()
await (await post('lines/audit', { text: wandering(32), line: { notes: notes.slice(0, 512) } })).arrayBuffer()
console.log(
  `a 32-bar chorus of sixteenths taken apart over HTTP, the first of a fresh server: ${(performance.now() - first).toFixed(0)} ms`,
)
console.log(`a small question while ${CLIENTS} clients ask the heaviest (p99 at most 100 ms, worst at most 300 ms):`)
for (const [name, path] of Object.entries(SMALL)) print(`${name}, idle`, await waits(path, 4))

const over = new AbortController()
const answers = new Map<number, number>()
const clients = Array.from({ length: CLIENTS }, async (_, c) => {
  for (let i = c; !over.signal.aborted; i++) {
    const ask = HEAVIEST[i % HEAVIEST.length] as Ask
    const answer = await ask(i, over.signal).catch(() => null)
    await answer?.arrayBuffer().catch(() => null)
    if (answer) answers.set(answer.status, (answers.get(answer.status) ?? 0) + 1)
  }
})
const loaded = await Promise.all(
  Object.entries(SMALL).map(async ([name, path]) => [name, await waits(path, SECONDS)] as const),
)
over.abort()
await Promise.all(clients)
for (const [name, found] of loaded) print(`${name}, loaded`, found)
const told = [...answers].map(([status, n]) => `${n} × ${status}`).join(', ')
console.log(
  `  the ${CLIENTS} clients got ${told}; the program then held ${(server.memory() / 1024 / 1024).toFixed(0)} MB`,
)

const since = performance.now()
const longest = post('routes/plan', {
  text: wandering(256),
  motion: 'contrary',
  motionScope: 'throughout',
  loop: true,
}).catch(() => null)
await new Promise((resolve) => setTimeout(resolve, 500))
const stopping = performance.now()
await server.end()
await longest
console.log(
  `  SIGTERM ${((stopping - since) / 1000).toFixed(1)} s into the longest plan: ended after ${(performance.now() - stopping).toFixed(0)} ms (at most 2000)`,
)
removeData(data)
