import { useStore } from '@nanostores/react'
import { formatDistanceToNow } from 'date-fns'
import { lazy, Suspense, useEffect, useState } from 'react'
import { Button } from '../../parts/Button.tsx'
import {
  $door,
  letOneIn,
  openDoor,
  readDoor,
  rename,
  revoke,
  shutDoor,
  type Telephone,
} from '../../state/kept/telephones.ts'
import setup from './SetupView.module.css'
import styles from './Telephones.module.css'

const QrPicture = lazy(() => import('../../figures/QrPicture.tsx'))

/** Whether one came in by the code is looked at so often while this is open. */
const LOOKED_EVERY = 2000

const minutesLeft = (until: string): string => {
  const minutes = Math.max(1, Math.ceil((new Date(until).getTime() - Date.now()) / 60_000))
  return minutes === 1 ? 'one minute' : `${minutes} minutes`
}

const Code = ({
  digits,
  until,
  addresses,
}: {
  readonly digits: string
  readonly until: string
  readonly addresses: readonly string[]
}) => {
  const [address, ...others] = addresses
  return (
    <div className={styles.code}>
      {address && (
        <Suspense fallback={<div className={styles.place} />}>
          <QrPicture
            text={`${address}door?code=${digits}`}
            label="The address and the code, for the telephone’s camera"
          />
        </Suspense>
      )}
      <div className={styles.ways}>
        {address ? (
          <p>
            Point the telephone’s camera at the picture. Or open <strong className={styles.address}>{address}</strong>{' '}
            on it and type:
          </p>
        ) : (
          <p role="alert">
            This machine is in no network of a house, so no telephone can find it. Join one; the address comes up here.
          </p>
        )}
        <p className={styles.digits}>
          {digits.slice(0, 4)} {digits.slice(4)}
        </p>
        <p className={setup.soft}>Good for one telephone, and for {minutesLeft(until)}.</p>
        {others.length > 0 && <p className={setup.soft}>If that address does not answer: {others.join(', ')}</p>}
      </div>
    </div>
  )
}

const Device = ({ device }: { readonly device: Telephone }) => {
  const [name, setName] = useState(device.name)
  const keep = (): void => {
    if (name.trim() !== '' && name.trim() !== device.name) void rename(device.id, name.trim())
    else setName(device.name)
  }
  return (
    <li>
      <input
        aria-label={`Name of ${device.name}`}
        value={name}
        maxLength={60}
        onChange={(e) => setName(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />
      <span>used {formatDistanceToNow(new Date(device.usedAt), { addSuffix: true })}</span>
      <Button aria-label={`Let ${device.name} in no longer`} onClick={() => void revoke(device.id)}>
        No longer
      </Button>
    </li>
  )
}

const Open = () => {
  const door = useStore($door)
  useEffect(() => {
    void readDoor()
    const timer = setInterval(() => document.visibilityState === 'visible' && void readDoor(), LOOKED_EVERY)
    return () => clearInterval(timer)
  }, [])
  if (door === null) return <p role="status">Looking at the door …</p>
  if (!door.ok)
    return (
      <p role="alert">
        {door.code === 'only_here' ? 'Another telephone is let in at the machine that Crossfade runs on.' : door.detail}
      </p>
    )
  const { open, addresses, code, shutUntil, devices } = door.value
  return (
    <>
      <p role="status">
        {open
          ? 'The door is open: what was let in comes in, from this house’s network; everyone else is asked for a code.'
          : 'The door is shut: this machine alone comes in.'}
      </p>
      {shutUntil !== null && <p role="alert">Ten wrong codes came. No code is taken for a minute.</p>}
      {code && <Code {...code} addresses={addresses} />}
      <div className={styles.buttons}>
        <Button tone="strong" onClick={() => void letOneIn()}>
          {code ? 'A new code' : 'Let a telephone in'}
        </Button>
        {open && <Button onClick={() => void shutDoor()}>Shut the door</Button>}
        {!open && devices.length > 0 && <Button onClick={() => void openDoor()}>Open it for those below</Button>}
      </div>
      <h3>Let in</h3>
      {devices.length === 0 ? (
        <p>None yet.</p>
      ) : (
        <ul className={styles.devices} aria-label="Telephones that were let in">
          {devices.map((d) => (
            <Device key={d.id} device={d} />
          ))}
        </ul>
      )}
    </>
  )
}

/** Lets telephones and tablets of the house in, one by one. */
export const Telephones = () => (
  <section className={setup.block} aria-label="Telephones">
    <h2>Telephones</h2>
    <p>A telephone or tablet on the stand shows and plays what this machine keeps.</p>
    <Open />
    <p className={setup.soft}>
      What goes over the house’s network is not encrypted. Open the door only where you trust the network.
    </p>
  </section>
)
