import { useStore } from '@nanostores/react'
import { useEffect, useMemo, useState } from 'react'
import { carriedBy, deviceName, toGlyphs, usedIn } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { renameRow } from '../../state/kept/kept.ts'
import { fetchLatest, rowsIn } from '../../state/kept/lists.ts'
import type { RouteRow } from '../../state/kept/row-types.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'
import { removeRoute } from '../../state/route/routes.ts'
import { banDevice, goToSlot } from '../../state/route/steering.ts'
import { putAway, takeInHand } from '../../state/tune/in-hand.ts'
import { useOver } from '../overlay/use-over.ts'
import { CompareRoutes } from './CompareRoutes.tsx'
import sheet from './KeptRoutes.module.css'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

/** The last routes a player kept tell of a habit. */
const LAST = 5

const Overuse = ({ route, rows }: { readonly route: RouteProps['route']; readonly rows: readonly RouteRow[] }) => {
  const inRoute = route && carriedBy(usedIn(route.steps))
  const lately = carriedBy(rows.slice(0, LAST).flatMap((r) => usedIn(r.steps)))
  const line = (carrying: NonNullable<typeof lately>, where: string) => (
    <p className={sheet.overuse}>
      <span>
        {where}, <strong>{toGlyphs(deviceName(carrying.device))}</strong> carries {carrying.steps} of {carrying.of}{' '}
        colour steps.
      </span>
      <Button onClick={() => banDevice(deviceName(carrying.device))}>The best without it</Button>
    </p>
  )
  return (
    <>
      {inRoute && line(inRoute, 'In this route')}
      {lately && line(lately, `In the last ${Math.min(LAST, rows.length)} routes kept`)}
    </>
  )
}

const FORMATS = [
  ['text', 'text'],
  ['musicxml', 'MusicXML'],
  ['csv', 'CSV'],
] as const

const Row = ({
  row,
  address,
  inHand,
}: {
  readonly row: RouteRow
  readonly address: RouteProps['address']
  readonly inHand: boolean
}) => {
  const [name, setName] = useState(row.name)
  useEffect(() => setName(row.name), [row.name])
  return (
    <li className={sheet.kept} aria-current={inHand ? 'true' : undefined}>
      <input
        aria-label="Name of the route"
        value={name}
        maxLength={200}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => void renameRow('routes', row, name)}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      <span className={styles.tools}>
        <Button pressed={inHand} onClick={() => (inHand ? putAway() : void takeInHand(row))}>
          {inHand ? 'In hand' : 'Take in hand'}
        </Button>
        <Button
          pressed={address.against === row.id}
          onClick={() => go({ against: address.against === row.id ? null : row.id })}
        >
          Compare
        </Button>
        {FORMATS.map(([as, label]) => (
          <a key={as} href={`/api/v1/routes/${row.id}/export?as=${as}`} download>
            {label}
          </a>
        ))}
        <Button tone="quiet" onClick={() => void removeRoute(row)}>
          Remove
        </Button>
      </span>
    </li>
  )
}

/** The routes kept with this chart: shown, named, compared, taken along; and what carries most of them. */
export const KeptRoutes = (props: RouteProps) => {
  const { address, kept, openChart } = props
  const chartId = openChart.isSketch ? null : (kept.chart?.id ?? null)
  const { rows: here, fetching, again } = useOver('routes', chartId)
  const all = useStore($rows.routes, FIRST)
  useEffect(() => {
    void fetchLatest('routes')
  }, [])
  const rows = useMemo(() => rowsIn<'routes'>(all), [all])
  const against = rows.find((r) => r.id === address.against)
  const failed = fetching === 'failed' && (
    <p role="alert">
      The kept routes could not all be fetched. Nothing is lost. <Button onClick={again}>Try again</Button>
    </p>
  )
  if (failed && here.length === 0) return failed
  if (fetching === 'loading' && here.length === 0) return <p role="status">Fetching the kept routes …</p>
  const moved = props.route === null ? props.steps.filter((s) => s.was !== null) : []
  return (
    <>
      {failed}
      {moved.length > 0 && (
        <section aria-label="What moved">
          <p>The chart changed under the route in hand:</p>
          <ul className={styles.tools}>
            {moved.map(({ slot, was }) => (
              <li key={slot.index}>
                <Button onClick={() => goToSlot(slot)}>
                  bar {slot.bar}: {toGlyphs(was ?? '')} is now {toGlyphs(slot.chord.symbol)}
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Overuse route={props.route} rows={rows} />
      {here.length === 0 && <p>No route of this chart is kept yet. Choose one of the list and keep it (key k).</p>}
      <ul aria-label="Routes" className={sheet.keptList}>
        {here.map((row) => (
          <Row key={row.id} row={row} address={address} inHand={row.id === kept.route?.id} />
        ))}
      </ul>
      {against && <CompareRoutes {...props} row={against} />}
    </>
  )
}
