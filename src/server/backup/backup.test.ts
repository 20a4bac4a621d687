import { spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { openDatabase } from '../database.ts'
import { KIND_NAMES } from '../kinds.ts'
import { listRows } from '../lists.ts'
import { Problem } from '../problems.ts'
import { createRow, deleteRow, getRow, type Row, undo, updateRow } from '../rows.ts'
import { getSound, putSound, soundFolder } from '../sounds.ts'
import type { Database } from '../sql.ts'
import { addPart } from '../takes.ts'
import { damageSentence, findDamage } from './damage.ts'
import { clearPassing, keepBackup, keepBackupOfNews, listBackups } from './kept-backups.ts'
import type { Manner } from './merge.ts'
import { openBackup } from './read-backup.ts'
import { clearOldSounds, restore } from './restore.ts'
import { writeReadable } from './salvage.ts'
import { BACKED_UP } from './tables.ts'
import { stateOf, writeBackup } from './write-backup.ts'

const made: string[] = []
const newDirectory = (): string => {
  const directory = mkdtempSync(join(tmpdir(), 'crossfade-backup-'))
  made.push(directory)
  return directory
}
let here: Database
let there: Database
beforeAll(async () => {
  here = await openDatabase(newDirectory())
  there = await openDatabase(newDirectory())
})
afterAll(async () => {
  await here.close()
  await there.close()
  for (const directory of made) rmSync(directory, { recursive: true, force: true })
})

const ASKED = { occasion: 'asked for', mostSound: Number.POSITIVE_INFINITY, version: 'test' } as const
const empty = (db: Database) => db.query(`truncate ${BACKED_UP.map((t) => t.table).join(', ')}, changes`)
const emptied = async (db: Database) => {
  await empty(db)
  await db.query('update row_counts set rows = 0')
}

const chart = (title: string) => ({ title, text: `title = ${title}\n| Bbm7 | Eb7 |`, tags: ['ferry'] })
const note = { at: 0, for: 480, pitch: 62 }
const SOUND = Uint8Array.from({ length: 5000 }, (_, i) => (i * 7) % 256)

/** One row of each kind that leans on another, one that is deleted, one that was changed, a sound, a part of a take. */
const furnish = async (db: Database) => {
  const bow = await createRow(db, 'charts', chart('Bow Wave “ẞ”'))
  const gone = await createRow(db, 'charts', chart('Sunk'))
  const route = { name: 'Over', chartId: bow.id, steps: [{ bar: 1, beat: 1, overlay: 'Db+' }], inHand: true }
  const { id: routeId } = await createRow(db, 'routes', route)
  await createRow(db, 'lines', { name: 'Low', chartId: gone.id, line: { notes: [note] }, routeId, tags: [] })
  await createRow(db, 'ideas', {
    overlay: 'B dorian',
    chord: 'Eb7',
    next: 'Ab',
    tags: [],
    chartId: bow.id,
    bar: 1,
    beat: 2.5,
  })
  const item = {
    name: 'Round',
    of: { kind: 'overlay', overlay: 'E' },
    keys: 'fourths',
    tempo: { from: 60, to: 90, step: 4 },
  }
  const { id: itemId } = await createRow(db, 'items', { ...item, tags: [] })
  await createRow(db, 'log', { at: '2026-01-02T03:04:05.678Z', kind: 'word', itemId, text: 'tide\nturned' })
  const take = { name: 'First', chartId: bow.id, text: bow.text, tempo: 120, source: 'keys', notes: [note], tags: [] }
  const { id } = await createRow(db, 'takes', take)
  await putSound(db, id, 'audio/webm', 0, SOUND)
  await addPart(db, id, 3, [note])
  await createRow(db, 'settings', { name: 'instrument', value: 'alto' })
  await deleteRow(db, 'charts', gone.id)
  await updateRow(db, 'charts', bow.id, 1, { ...chart('Bow Wave'), overrides: [{ bar: 1, beat: 1, job: 'borrowed' }] })
  return { chart: bow.id, take: id }
}

const pathIn = (db: Database, name = 'backup.zip') => join(db.directory, name)
const backedUp = async (db: Database): Promise<string> => {
  await writeBackup(db, pathIn(db), ASKED)
  return pathIn(db)
}
const bring = async (db: Database, path: string, manner: Manner = 'replace') => {
  const backup = await openBackup(path, db.schemaVersion)
  try {
    await backup.verify()
    return await restore(db, backup, manner)
  } finally {
    backup.close()
  }
}
const everything = async (db: Database) =>
  Promise.all(BACKED_UP.map(({ table }) => db.query(`select row_to_json(t)::text as row from ${table} t order by 1`)))
const titles = async (db: Database) =>
  (await listRows(db, 'charts', { q: '', sort: 'title', limit: 200, after: null })).items.map((r) => r.title)
const refusal = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'brought in',
    (error: unknown) => (error instanceof Problem ? error.detail : `not a problem: ${error}`),
  )

/** The same backup with some of its members changed. */
const altered = (path: string, change: (members: Record<string, Uint8Array>) => void): string => {
  const members = unzipSync(readFileSync(path))
  change(members)
  const other = `${path}.altered.zip`
  writeFileSync(other, zipSync(members))
  return other
}

describe('a backup', () => {
  let ids: Awaited<ReturnType<typeof furnish>>
  let path: string
  beforeAll(async () => {
    ids = await furnish(here)
    path = await backedUp(here)
  })
  beforeEach(() => emptied(there))

  it('brings every row of every kind, deleted ones too, and every sound into empty data, the same to the bit', async () => {
    await bring(there, path)
    expect(await everything(there)).toEqual(await everything(here))
    expect(await there.snapshot(stateOf)).toBe(await here.snapshot(stateOf))
    const sound = await getSound(there, ids.take, null)
    expect(new Uint8Array(await sound.arrayBuffer())).toEqual(SOUND)
    expect(await findDamage(there)).toEqual([])
    const again = await backedUp(there)
    const [first, second] = [path, again].map((p) => unzipSync(readFileSync(p)))
    for (const { name } of BACKED_UP) expect(second?.[`${name}.json`]).toEqual(first?.[`${name}.json`])
  })

  it('is an open zip: JSON of each kind by the names of the interface, sounds, and a manifest that says what it holds', () => {
    const members = unzipSync(readFileSync(path))
    expect(Object.keys(members).sort()).toEqual(
      [...KIND_NAMES.map((k) => `${k}.json`), 'takeParts.json', 'backup.json', `sounds/${ids.take}.sound`].sort(),
    )
    const charts = JSON.parse(strFromU8(members['charts.json'] as Uint8Array)) as Row[]
    expect(charts.find((c) => c.id === ids.chart)).toMatchObject({ title: 'Bow Wave', tags: ['ferry'], version: 2 })
    const manifest = JSON.parse(strFromU8(members['backup.json'] as Uint8Array))
    expect(manifest).toMatchObject({ schema: here.schemaVersion, holds: { charts: 1, takes: 1 }, sounds: 1 })
  })

  it('replaces what is here, and lets nobody write over it unseen from a page that was open before', async () => {
    await bring(there, path)
    const { version } = await getRow(there, 'charts', ids.chart)
    const mine = await updateRow(there, 'charts', ids.chart, Number(version), chart('Mine'))
    await createRow(there, 'charts', chart('Afterwards'))
    await bring(there, path)
    expect(await titles(there)).toEqual(['Bow Wave'])
    const late = updateRow(there, 'charts', ids.chart, mine.version, chart('Late'))
    await expect(late).rejects.toMatchObject({ code: 'stale_version' })
    await expect(undo(there, null)).rejects.toMatchObject({ code: 'nothing_to_undo' })
  })

  it('merges: adds what is missing, keeps the later of two, brings back what was deleted, deletes nothing', async () => {
    const other = await createRow(there, 'charts', chart('Of my own'))
    await createRow(there, 'settings', { name: 'instrument', value: 'tenor' })
    const came = await bring(there, path, 'merge')
    expect(came).toMatchObject({ charts: { added: 2, replaced: 0 }, settings: { added: 0, left: 1 } })
    expect(await titles(there)).toEqual(['Bow Wave', 'Of my own'])
    const [setting] = (await listRows(there, 'settings', { q: '', sort: 'title', limit: 9, after: null })).items
    expect(setting).toMatchObject({ value: 'tenor' })

    const later = await updateRow(there, 'charts', ids.chart, 2, chart('Later here'))
    await deleteRow(there, 'takes', ids.take)
    expect(await bring(there, path, 'merge')).toMatchObject({
      charts: { added: 0, replaced: 0, left: 2 },
      takes: { replaced: 1 },
    })
    expect(await titles(there)).toEqual(['Later here', 'Of my own'])
    expect(await getRow(there, 'charts', ids.chart)).toMatchObject({ version: later.version })
    expect((await getSound(there, ids.take, null)).status).toBe(200)
    expect(await getRow(there, 'charts', other.id)).toMatchObject({ version: 1 })
    expect(await findDamage(there)).toEqual([])
  })

  it('is brought in whole or not at all: a row that refers to none leaves rows, sounds and folders as they were', async () => {
    await bring(there, path)
    const before = await everything(there)
    const folders = readdirSync(there.directory).sort()
    const backup = await openBackup(path, there.schemaVersion)
    const torn = {
      ...backup,
      async *rows(table: (typeof BACKED_UP)[number]) {
        if (table.name !== 'items') yield* backup.rows(table)
      },
    }
    expect(await refusal(restore(there, torn, 'replace'))).toMatch(/do not go together/)
    backup.close()
    expect(await everything(there)).toEqual(before)
    expect(readdirSync(there.directory).sort()).toEqual(folders)
    expect((await getSound(there, ids.take, null)).status).toBe(200)
  })

  it('leaves large sounds where they are, and finds them there again', async () => {
    await bring(there, path)
    const light = pathIn(there, 'light.zip')
    await writeBackup(there, light, { ...ASKED, mostSound: 100 })
    const backup = await openBackup(light, there.schemaVersion)
    expect(backup.manifest).toMatchObject({ sounds: 0, soundsLeft: 1 })
    backup.close()
    await deleteRow(there, 'takes', ids.take)
    await bring(there, light)
    expect(new Uint8Array(await (await getSound(there, ids.take, null)).arrayBuffer())).toEqual(SOUND)
    expect((await getRow(there, 'takes', ids.take)).sound).toMatchObject({ bytes: SOUND.length })
  })

  it('removes what a restore left that was cut off, and never the only sounds there are', async () => {
    await bring(there, path)
    const folder = (await soundFolder(there.directory, there)).split('/').at(-1) ?? ''
    mkdirSync(join(there.directory, 'sounds-0f'), { recursive: true })
    await clearOldSounds(there)
    expect(readdirSync(there.directory).filter((n) => n.startsWith('sounds'))).toEqual([folder])
    await there.query("update sound_folder set name = 'sounds'")
    await clearOldSounds(there)
    expect(readdirSync(there.directory).filter((n) => n.startsWith('sounds'))).toEqual([folder])
    await there.query('update sound_folder set name = $1', [folder])
  })

  it('lets be what another program that runs is at work on, in the same directory', async () => {
    const [alive, dead] = [process.ppid, spawnSync('true').pid]
    const paths = [alive, dead].flatMap((pid) => {
      const name = `${pid}-${randomUUID()}`
      return [`backups/passing/${name}.zip`, `backups/making-${name}`, `sounds-${name}`]
    })
    for (const path of paths) mkdirSync(join(there.directory, path), { recursive: true })
    await clearPassing(there.directory)
    await clearOldSounds(there)
    expect(paths.filter((path) => existsSync(join(there.directory, path)))).toEqual(paths.slice(0, 3))
    for (const path of paths) rmSync(join(there.directory, path), { recursive: true, force: true })
  })

  const REFUSED: readonly (readonly [string, RegExp, (members: Record<string, Uint8Array>) => void])[] = [
    [
      'a chart altered by hand',
      /charts\.json is damaged/,
      (m) => {
        m['charts.json'] = strToU8(strFromU8(m['charts.json'] as Uint8Array).replace('Bow', 'Sow'))
      },
    ],
    [
      'a sound cut short',
      /sound is damaged/,
      (m) => {
        const name = Object.keys(m).find((n) => n.startsWith('sounds/')) as string
        m[name] = (m[name] as Uint8Array).slice(0, 100)
      },
    ],
    [
      'a table missing',
      /lines\.json is missing/,
      (m) => {
        delete m['lines.json']
      },
    ],
    [
      'no manifest',
      /backup\.json is missing/,
      (m) => {
        delete m['backup.json']
      },
    ],
    [
      'a manifest altered',
      /backup\.json is damaged/,
      (m) => {
        m['backup.json'] = strToU8(strFromU8(m['backup.json'] as Uint8Array).replace('"sounds": 1', '"sounds": 2'))
      },
    ],
    [
      'a newer schema',
      /newer Crossfade \(schema 999/,
      (m) => {
        m['backup.json'] = strToU8(strFromU8(m['backup.json'] as Uint8Array).replace(/"schema": \d+/, '"schema": 999'))
      },
    ],
    [
      'another zip',
      /not a backup of Crossfade/,
      (m) => {
        m['backup.json'] = strToU8('{}')
      },
    ],
  ]
  it.each(REFUSED)('with %s is refused in words, and what is here stays', async (_, words, change) => {
    await createRow(there, 'charts', chart('Stays'))
    expect(await refusal(bring(there, altered(path, change)))).toMatch(words)
    expect(await titles(there)).toEqual(['Stays'])
  })

  it('that was mutated anywhere is refused or brings just what was backed up; nothing else ever comes of it', async () => {
    await createRow(there, 'charts', chart('Stays'))
    const whole = readFileSync(path)
    const mutation = fc.oneof(
      fc.record({ at: fc.nat(whole.length - 1), byte: fc.nat(255) }),
      fc.record({ cut: fc.nat(whole.length) }),
      fc.record({ from: fc.nat(whole.length), to: fc.nat(whole.length) }),
    )
    await fc.assert(
      fc.asyncProperty(fc.array(mutation, { minLength: 1, maxLength: 3 }), async (mutations) => {
        const file = mutations.reduce((bytes: Buffer, m) => {
          if ('byte' in m) {
            const other = Buffer.from(bytes)
            other[m.at % Math.max(1, bytes.length)] = m.byte
            return other
          }
          if ('cut' in m) return bytes.subarray(0, m.cut)
          return Buffer.concat([bytes.subarray(0, m.from), bytes.subarray(m.to)])
        }, whole)
        writeFileSync(pathIn(there, 'mutated.zip'), file)
        const verified = (async () => {
          const backup = await openBackup(pathIn(there, 'mutated.zip'), there.schemaVersion)
          await backup.verify().finally(() => backup.close())
        })()
        expect(await refusal(verified)).not.toMatch(/^not a problem/)
      }),
      { numRuns: 400 },
    )
    expect(await titles(there)).toEqual(['Stays'])
  })

  it('is kept by itself where anything was written since the last, ten of them at most', async () => {
    await emptied(here)
    await furnish(here)
    const first = await keepBackupOfNews(here, 'now and then', 'test')
    expect(await keepBackupOfNews(here, 'now and then', 'test')).toBeNull()
    await createRow(here, 'charts', chart('News'))
    expect(await keepBackupOfNews(here, 'at a clean stop', 'test')).not.toBeNull()
    for (let i = 0; i < 9; i++) await keepBackup(here, 'now and then', 'test')
    const kept = await listBackups(here)
    expect(kept.map((b) => b.name)).not.toContain(first)
    expect(kept).toHaveLength(10)
    expect(kept.at(-1)).toMatchObject({ occasion: 'at a clean stop', readable: true, holds: { charts: 2 }, sounds: 1 })
    mkdirSync(join(here.directory, 'backups'), { recursive: true })
    writeFileSync(join(here.directory, 'backups', '9999-broken.zip'), 'no zip')
    expect((await listBackups(here))[0]).toMatchObject({ readable: false })
  })
})

describe('damage', () => {
  it('is found where rows are missing that were counted as they were written', async () => {
    await emptied(there)
    await createRow(there, 'charts', chart('One'))
    await createRow(there, 'charts', chart('Two'))
    expect(await findDamage(there)).toEqual([])
    await there.query('alter table charts disable trigger all')
    await there.query("delete from charts where title = 'Two'")
    await there.query('alter table charts enable trigger all')
    expect(damageSentence(await findDamage(there))).toBe('The data is damaged: charts, 1 of 2 are there.')
  })
})

/** What a whole directory loses, and whether it is then refused, or opened and told as damaged. */
const DAMAGES: readonly (readonly [string, 'refused' | 'told', (pg: string, files: Record<string, string>) => void])[] =
  [
    ['its control file emptied', 'refused', (pg) => truncateSync(join(pg, 'global/pg_control'), 0)],
    ['no mark of its version', 'refused', (pg) => rmSync(join(pg, 'PG_VERSION'))],
    ['no journal', 'refused', (pg) => rmSync(join(pg, 'pg_wal'), { recursive: true })],
    [
      'all of it gone but the folder',
      'refused',
      (pg) => {
        rmSync(pg, { recursive: true })
        mkdirSync(pg)
      },
    ],
    ['its own list of tables cut', 'refused', (pg, { pg_class }) => truncateSync(join(pg, pg_class as string), 8192)],
    [
      'what it knows of its form cut',
      'refused',
      (pg, { schema_version }) => truncateSync(join(pg, schema_version as string), 0),
    ],
    ['charts cut to a page', 'told', (pg, { charts }) => truncateSync(join(pg, charts as string), 8192)],
    ['charts gone', 'told', (pg, { charts }) => rmSync(join(pg, charts as string))],
    ['a sign of a chart turned', 'told', (pg, { charts }) => flip(join(pg, charts as string), 9000)],
    ['an index turned', 'told', (pg, { charts_pk }) => flip(join(pg, charts_pk as string), 9000)],
  ]
const flip = (path: string, at: number): void => {
  const bytes = readFileSync(path)
  bytes[at] = (bytes[at] as number) ^ 0xff
  writeFileSync(path, bytes)
}

describe('a data directory with', () => {
  const [whole, blank] = [newDirectory(), newDirectory()]
  const files: Record<string, string> = {}
  beforeAll(async () => {
    const db = await openDatabase(whole)
    for (let i = 0; i < 60; i++) await createRow(db, 'charts', chart(`Chart ${i}`))
    await keepBackup(db, 'now and then', 'test')
    for (const name of ['charts', 'charts_pk', 'pg_class', 'schema_version'])
      files[name] =
        (await db.query<{ path: string }>('select pg_relation_filepath($1::regclass) as path', [name]))[0]?.path ?? ''
    await db.close()
    await (await openDatabase(blank)).close()
  })

  it.each(DAMAGES)('%s is %s, and its backup brings everything back', async (_, how, harm) => {
    const directory = newDirectory()
    cpSync(whole, directory, { recursive: true })
    harm(join(directory, 'pg'), files)
    if (how === 'refused') {
      await expect(openDatabase(directory)).rejects.toThrow(
        /is damaged and was not opened.* The last backup is .*--go-back/,
      )
      rmSync(join(directory, 'pg'), { recursive: true })
      cpSync(join(blank, 'pg'), join(directory, 'pg'), { recursive: true })
    }
    const db = await openDatabase(directory)
    try {
      if (how === 'told') expect(damageSentence(await findDamage(db))).toMatch(/^The data is damaged: charts, /)
      await writeReadable(db, pathIn(db), ASKED)
      const readable = await openBackup(pathIn(db), db.schemaVersion)
      await readable.verify()
      readable.close()
      const [kept] = await listBackups(db)
      await bring(db, join(directory, 'backups', kept?.name ?? ''))
      expect(await titles(db)).toHaveLength(60)
      expect(await findDamage(db)).toEqual([])
    } finally {
      await db.close()
    }
  })
})
