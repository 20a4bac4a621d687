import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import { carriedBy, deviceName, type KeptStep, readDevice, toGlyphs, type UsedStep } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../stores/place.ts'
import { $routes, $routesFailed, refreshRoutes, removeRoute, renameRoute } from '../../stores/routes.ts'
import type { RouteRow } from '../../stores/rows.ts'
import { banDevice } from '../../stores/steering.ts'
import { CompareRoutes } from './CompareRoutes.tsx'
import sheet from './KeptRoutes.module.css'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const usedIn = (steps: readonly KeptStep[]): readonly UsedStep[] =>
  steps.flatMap(({ device, fade, carries }) => {
    const read = device === undefined ? null : readDevice(device)
    return read && fade !== undefined && !carries ? [{ device: read, fade }] : []
  })

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

const Row = ({ row, place }: { readonly row: RouteRow; readonly place: RouteProps['place'] }) => {
  const [name, setName] = useState(row.name)
  useEffect(() => setName(row.name), [row.name])
  return (
    <li className={sheet.kept} aria-current={place.route === row.id ? 'true' : undefined}>
      <input
        aria-label="Name of the route"
        value={name}
        maxLength={200}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => void renameRoute(row, name)}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      <span className={styles.tools}>
        <Button pressed={place.route === row.id} onClick={() => go({ route: place.route === row.id ? null : row.id })}>
          Show
        </Button>
        <Button
          pressed={place.against === row.id}
          onClick={() => go({ against: place.against === row.id ? null : row.id })}
        >
          Compare
        </Button>
        <Button onClick={() => go({ view: 'stand', route: row.id })}>On the stand</Button>
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
  const { place, kept, desk } = props
  const rows = useStore($routes)
  const failed = useStore($routesFailed)
  useEffect(() => {
    void refreshRoutes()
  }, [])
  const chartId = desk.isSketch ? null : (kept.chart?.id ?? null)
  const here = (rows ?? []).filter((r) => r.chartId === chartId)
  const against = (rows ?? []).find((r) => r.id === place.against)
  if (failed)
    return (
      <div role="alert">
        <p>The kept routes could not be fetched. Nothing is lost.</p>
        <Button onClick={() => void refreshRoutes()}>Try again</Button>
      </div>
    )
  if (rows === null) return <p role="status">Fetching the kept routes …</p>
  return (
    <>
      <Overuse route={props.route} rows={rows} />
      {here.length === 0 && <p>No route of this chart is kept yet. Choose one of the list and keep it (key k).</p>}
      <ul aria-label="Routes" className={sheet.keptList}>
        {here.map((row) => (
          <Row key={row.id} row={row} place={place} />
        ))}
      </ul>
      {against && <CompareRoutes {...props} row={against} />}
    </>
  )
}
