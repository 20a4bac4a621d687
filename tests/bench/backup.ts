// A large library backed up and restored, to the bit; and thousands of damaged backups looked into.
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { emptyData, removeData, startServer } from '../serving.ts'
import { seeded } from './seeded.ts'

const CHARTS = Number(process.env.CHARTS ?? 10_000)
const LINES = Number(process.env.LINES ?? 2000)
const SOUNDS = 50
const MUTATED = Number(process.env.MUTATED ?? 10_000)
const SOUND_BYTES = 1024 * 1024

const random = seeded(7)
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B']
const KINDS = ['maj7', 'm7', '7', 'm7b5', '7(b9)', '6']
const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
const chartText = (title: string): string =>
  `title = ${title}\n${Array.from({ length: 8 }, () => `| ${Array.from({ length: 4 }, () => `${pick(ROOTS)}${pick(KINDS)}`).join(' | ')} |`).join('\n')}`

const place = mkdtempSync(join(tmpdir(), 'crossfade-bench-backup-'))
const [here, there] = [emptyData(), emptyData()]

const filled = await startServer(here)
const post = async (path: string, body: object): Promise<string> => {
  const answer = await fetch(`${filled.address}api/v1/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  const row = (await answer.json()) as { id: string }
  if (!answer.ok) throw new Error(JSON.stringify(row))
  return row.id
}
const inBatches = async (count: number, work: (n: number) => Promise<unknown>): Promise<void> => {
  for (let n = 0; n < count; n += 8)
    await Promise.all(Array.from({ length: Math.min(8, count - n) }, (_, i) => work(n + i)))
}
await inBatches(CHARTS, (n) => post('charts', { title: `Lock ${n}`, text: chartText(`Lock ${n}`) }))
const notes = () =>
  Array.from({ length: 64 }, (_, i) => ({ at: i * 480, for: 480, pitch: 60 + Math.floor(random() * 20) }))
await inBatches(LINES, (n) => post('lines', { name: `Rope ${n}`, text: chartText('Rope'), line: { notes: notes() } }))
for (let n = 0; n < SOUNDS; n++) {
  const text = chartText('Take')
  const id = await post('takes', { name: `Take ${n}`, text, tempo: 120, source: 'keys', notes: notes() })
  const body = Buffer.alloc(SOUND_BYTES)
  for (let i = 0; i < body.length; i += 4) body.writeUInt32LE(Math.floor(random() * 2 ** 32), i)
  await fetch(`${filled.address}api/v1/takes/${id}/sound`, {
    method: 'PUT',
    headers: { 'content-type': 'audio/webm' },
    body,
  })
}

const seconds = (from: number): string => `${((performance.now() - from) / 1000).toFixed(1)} s`
const backUp = async (address: string, path: string): Promise<string> => {
  const from = performance.now()
  const answer = await fetch(`${address}api/v1/backup`)
  writeFileSync(path, Buffer.from(await answer.arrayBuffer()))
  return seconds(from)
}
const [first, second] = [join(place, 'first.zip'), join(place, 'second.zip')]
const took = await backUp(filled.address, first)
console.log(
  `${CHARTS} charts, ${LINES} lines, ${SOUNDS} sounds: backed up in ${took}, ${(statSync(first).size / 1e6).toFixed(0)} MB; server ${(filled.memory() / 1e6).toFixed(0)} MB`,
)
await filled.end()

const empty = await startServer(there)
const restore = (path: string, query = '') =>
  fetch(`${empty.address}api/v1/restore${query}`, {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: readFileSync(path),
  })
const from = performance.now()
const answer = await restore(first)
console.log(
  `restored into an empty directory in ${seconds(from)}: ${answer.status}; server ${(empty.memory() / 1e6).toFixed(0)} MB`,
)
await backUp(empty.address, second)
const { unzipSync } = await import('fflate')
const [a, b] = [first, second].map((path) => unzipSync(readFileSync(path)))
const names = Object.keys(a ?? {}).filter((name) => name !== 'backup.json')
const differing = names.filter(
  (name) => Buffer.compare(Buffer.from(a?.[name] ?? []), Buffer.from(b?.[name] ?? [])) !== 0,
)
console.log(`backed up again: ${names.length} parts, ${differing.length} of them differ by a bit or more`)
await empty.end()

const small = await startServer(emptyData())
await fetch(`${small.address}api/v1/charts`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ title: 'Lock', text: chartText('Lock') }),
})
const whole = Buffer.from(await (await fetch(`${small.address}api/v1/backup`)).arrayBuffer())
const answers = new Map<string, number>()
let slowest = 0
for (let n = 0; n < MUTATED; n++) {
  const bytes = Buffer.from(whole)
  for (let i = 0; i <= random() * 4; i++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256)
  const cut = random() < 0.2 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes
  const begun = performance.now()
  const { status } = await fetch(`${small.address}api/v1/restore`, {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: cut,
  })
  slowest = Math.max(slowest, performance.now() - begun)
  answers.set(String(status), (answers.get(String(status)) ?? 0) + 1)
}
const { items } = (await (await fetch(`${small.address}api/v1/charts`)).json()) as { items: { title: string }[] }
console.log(
  `${MUTATED} damaged backups brought in: ${[...answers].map(([status, n]) => `${n} × ${status}`).join(', ')}; slowest ${slowest.toFixed(0)} ms; afterwards ${items.map((i) => i.title).join(', ')} is there; server ${(small.memory() / 1e6).toFixed(0)} MB`,
)
await small.end()
rmSync(place, { recursive: true })
for (const data of [here, there]) removeData(data)
