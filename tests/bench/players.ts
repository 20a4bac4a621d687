// Fifty players at once, on a directory and on a PostgreSQL server: what they wait, how much goes wrong, what is held. MINUTES=10 for the long one.
import { cpus } from 'node:os'
import { hasPostgres, startPostgres } from '../postgres.ts'
import { emptyData, removeData, startServer } from '../serving.ts'
import { seeded } from './seeded.ts'

const PLAYERS = 50
const MINUTES = Number(process.env.MINUTES ?? 1)
const CHORDS = ['Dm7', 'G7', 'Cmaj7', 'Eb7', 'Abmaj7', 'F#m7b5', 'B7alt', 'Em7', 'A7', 'Dmaj7']
const OVERLAYS = ['B dorian', 'Gb lydian', 'E minor pentatonic', 'Ab whole-half', 'D half-whole']
const text = Array.from({ length: 32 }, (_, i) => `| ${CHORDS[i % CHORDS.length]} `).join('')

interface Answer {
  readonly status: number
  readonly body: { readonly id?: string; readonly version?: number; readonly tags?: readonly string[] }
}

const share = (sorted: readonly number[], at: number): string =>
  (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * at))] ?? 0).toFixed(0).padStart(4)

const play = async (where: string, env: Readonly<Record<string, string>>): Promise<void> => {
  const data = emptyData()
  const server = await startServer(data, '0', [], env)
  const waits: Record<string, number[]> = { health: [], read: [], write: [], compute: [] }
  const wrong = new Map<string, number>()
  const ask = async (kind: string, method: string, path: string, body?: unknown): Promise<Answer> => {
    const from = performance.now()
    const answer = await fetch(`${server.address}api/v1/${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    })
    const read = (await answer.json()) as Answer['body']
    waits[kind]?.push(performance.now() - from)
    const what = `${answer.status} ${path.split('?')[0]}`
    if (!answer.ok) wrong.set(what, (wrong.get(what) ?? 0) + 1)
    return { status: answer.status, body: read }
  }
  const until = performance.now() + MINUTES * 60_000
  const isOver = (): boolean => performance.now() > until
  const player = async (n: number): Promise<void> => {
    const next = seeded(n + 1)
    const pick = <T>(of: readonly T[]): T => of[Math.floor(next() * of.length)] as T
    const { id } = (await ask('write', 'POST', 'charts', { title: `Player ${n}`, text })).body
    let { version } = (await ask('read', 'GET', `charts/${id}`)).body
    for (let i = 0; !isOver(); i++) {
      await new Promise((resolve) => setTimeout(resolve, 300 + next() * 1200))
      const what = next()
      const over = encodeURIComponent(`${pick(OVERLAYS)} over ${pick(CHORDS)} to ${pick(CHORDS)}`)
      if (what < 0.4) await ask('compute', 'GET', `ask?q=${over}`)
      else if (what < 0.5) await ask('compute', 'GET', `overlays?chord=${encodeURIComponent(pick(CHORDS))}&limit=20`)
      else if (what < 0.6) await ask('compute', 'POST', 'charts/analyse', { text })
      else if (what < 0.75) await ask('read', 'GET', 'charts?limit=50&fields=title,tags')
      else if (what < 0.88)
        await ask('write', 'POST', 'ideas', { overlay: pick(OVERLAYS), chord: pick(CHORDS), note: `${n} ${i}` })
      else
        version = (await ask('write', 'PUT', `charts/${id}`, { title: `Player ${n}`, text, tags: [`${i}`], version }))
          .body.version
    }
  }
  const memory: number[] = []
  const watch = async (): Promise<void> => {
    while (!isOver()) {
      await ask('health', 'GET', 'health')
      memory.push(server.memory() / 1024 / 1024)
      await new Promise((resolve) => setTimeout(resolve, 200))
    }
  }
  await Promise.all([watch(), ...Array.from({ length: PLAYERS }, (_, n) => player(n))])
  const all = Object.values(waits).reduce((sum, w) => sum + w.length, 0)
  console.log(`  ${where}: ${all} answers, ${(all / MINUTES / 60).toFixed(1)} a second`)
  for (const [kind, found] of Object.entries(waits)) {
    const sorted = found.toSorted((a, b) => a - b)
    console.log(
      `    ${kind.padEnd(8)} p50 ${share(sorted, 0.5)} ms, p99 ${share(sorted, 0.99)} ms, worst ${share(sorted, 1)} ms of ${found.length}`,
    )
  }
  const third = Math.floor(memory.length / 3)
  const mean = (of: readonly number[]): string => (of.reduce((sum, m) => sum + m, 0) / of.length).toFixed(0)
  console.log(
    `    memory: ${mean(memory.slice(0, third))} MB in the first third, ${mean(memory.slice(third, 2 * third))}, ${mean(memory.slice(2 * third))} in the last`,
  )
  console.log(`    what went wrong: ${[...wrong].map(([what, n]) => `${n} × ${what}`).join(', ') || 'nothing'}`)
  await server.end()
  removeData(data)
}

console.log(
  `${PLAYERS} players for ${MINUTES} min (${cpus().length} × ${cpus()[0]?.model}; /health p99 at most 100 ms):`,
)
await play('in a directory', {})
if (hasPostgres) {
  const postgres = await startPostgres()
  await play('on a PostgreSQL server', { DATABASE_URL: postgres.newDatabase() })
  postgres.end()
} else console.log('  PostgreSQL is not installed here')
