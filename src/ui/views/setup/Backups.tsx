import { useStore } from '@nanostores/react'
import { format } from 'date-fns'
import { useEffect } from 'react'
import { howMany } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Dialog } from '../../parts/Dialog.tsx'
import {
  $backups,
  $looked,
  bringIn,
  type Holds,
  type KeptBackup,
  leaveLooked,
  lookInto,
  readBackups,
} from '../../state/kept/backups.ts'
import { KINDS } from '../../state/kept/kinds.ts'
import type { KindName } from '../../state/kept/row-types.ts'
import styles from './Backups.module.css'
import setup from './SetupView.module.css'

/** The order in which kinds are told. */
const TOLD: readonly KindName[] = ['charts', 'routes', 'lines', 'ideas', 'takes', 'items', 'log', 'settings']
const rowsOf = (kind: KindName, n: number): string =>
  kind === 'log' && n !== 1 ? `${n} entries of the log` : howMany(n, KINDS[kind].noun)

/** What a backup holds, in words. */
const holdsWords = ({ holds, sounds, soundsLeft }: Holds): string => {
  const all = [
    ...TOLD.flatMap((kind) => (holds[kind] ? [rowsOf(kind, holds[kind])] : [])),
    ...(sounds > 0 ? [howMany(sounds, 'sound')] : []),
    ...(soundsLeft > 0 ? [`the ${howMany(soundsLeft, 'sound')} beside it`] : []),
  ]
  return all.length === 0 ? 'nothing yet' : all.join(', ')
}

const momentWords = (at: string): string => format(new Date(at), 'd MMM yyyy, H:mm')

const Kept = ({ backup }: { readonly backup: KeptBackup }) => {
  const { name, made, occasion, holds } = backup
  if (!backup.readable || made === undefined || holds === undefined)
    return (
      <li>
        <strong>{name}</strong>
        <span>It does not read: it is damaged.</span>
      </li>
    )
  const told = momentWords(made)
  return (
    <li>
      <strong>{told}</strong>
      <span>
        {occasion}: {holdsWords(backup as Holds)}
      </span>
      <Button aria-label={`Go back to ${told}`} onClick={() => void lookInto(told, name)}>
        Go back to this
      </Button>
    </li>
  )
}

const List = () => {
  const backups = useStore($backups)
  useEffect(() => void readBackups(), [])
  if (backups === null) return <p role="status">Reading the backups …</p>
  if (!backups.ok) return <p role="alert">The backups could not be read. {backups.detail}</p>
  const { items, damage } = backups.value
  return (
    <>
      {damage !== null && (
        <div role="alert" className={styles.damage}>
          <p>{damage} What still reads can be saved, and a backup from before can be brought back.</p>
          <a className={styles.file} href="/api/v1/backup?readable=true" download>
            Save what still reads
          </a>
        </div>
      )}
      {items.length === 0 ? (
        <p>None yet: the first is made when the program is stopped, or after an hour.</p>
      ) : (
        <ul className={styles.list} aria-label="Backups beside the data">
          {items.map((b) => (
            <Kept key={b.name} backup={b} />
          ))}
        </ul>
      )}
    </>
  )
}

const Look = () => {
  const looked = useStore($looked)
  const { answer = null, coming = false } = looked ?? {}
  return (
    <Dialog title={`Backup: ${looked?.name ?? ''}`} open={looked !== null} onClose={leaveLooked}>
      {answer === null && <p role="status">Reading it through …</p>}
      {answer && !answer.ok && (
        <div role="alert">
          <p>{answer.detail}</p>
          <p>Nothing was brought in, and nothing changed.</p>
        </div>
      )}
      {answer?.ok && (
        <div className={styles.looked}>
          <p>
            Made on {momentWords(answer.value.made)}. It holds {holdsWords(answer.value)}. Every part of it is as it was
            written.
          </p>
          <p>What is here now is backed up first, so that you can go back to it.</p>
          <div className={styles.ways}>
            <Button tone="strong" disabled={coming} onClick={() => void bringIn('replace')}>
              Put it in place of what is here
            </Button>
            <Button disabled={coming} onClick={() => void bringIn('merge')}>
              Add it to what is here
            </Button>
            <Button disabled={coming} onClick={leaveLooked}>
              Leave it
            </Button>
          </div>
          <p className={setup.soft}>
            Adding deletes nothing: what is missing here comes in, and of two the one changed last stays.
          </p>
          {coming && <p role="status">Bringing it in …</p>}
        </div>
      )}
    </Dialog>
  )
}

/** Everything that is kept as one file, and the ways back. */
export const Backups = () => (
  <section className={setup.block} aria-label="Backup">
    <h2>Backup</h2>
    <p>
      One open file holds everything you keep: charts, routes, lines, ideas, takes with their sound, what you practise,
      the log and the settings.
    </p>
    <div className={styles.ways}>
      <a className={styles.file} href="/api/v1/backup" download>
        Save a backup
      </a>
      <label className={styles.file}>
        Bring in a backup …
        <input
          type="file"
          accept=".zip,application/zip"
          onChange={(e) => {
            const [file] = e.target.files ?? []
            if (file) void lookInto(file.name, file)
            e.target.value = ''
          }}
        />
      </label>
    </div>
    <h3>Kept by the program itself</h3>
    <p className={setup.soft}>
      Now and then and when it is stopped, where anything changed; the last ten. They lie beside the data, on the same
      disk: save one elsewhere now and then.
    </p>
    <List />
    <Look />
  </section>
)
