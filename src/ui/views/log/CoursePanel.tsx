import { useStore } from '@nanostores/react'
import { useEffect, useMemo, useState } from 'react'
import { carriedBy, deviceName, toGlyphs, usedIn } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { fetchLatest, rowsIn } from '../../state/kept/lists.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'
import { $course, $practised, askCourse } from '../../state/practice/figures.ts'
import { banDevice } from '../../state/route/steering.ts'
import { keyWords } from '../overlay/key-words.ts'
import { useCards, useItems } from '../overlay/use-practice.ts'
import type { ViewProps } from '../view.ts'
import { CoursePicture } from './CoursePicture.tsx'
import type { Course } from './course-chart.ts'
import styles from './LogView.module.css'
import { TakesCourse } from './TakesCourse.tsx'
import { dayText } from './words.ts'

const LAST_ROUTES = 5

/** Which device carries most of the routes kept last, and the way to the next best without it. */
const Overuse = () => {
  const routes = rowsIn<'routes'>(useStore($rows.routes, FIRST))
  useEffect(() => void fetchLatest('routes'), [])
  const carrying = carriedBy(routes.slice(0, LAST_ROUTES).flatMap((r) => usedIn(r.steps)))
  if (!carrying) return null
  return (
    <p>
      In the last {Math.min(LAST_ROUTES, routes.length)} routes kept,{' '}
      <strong>{toGlyphs(deviceName(carrying.device))}</strong> carries {carrying.steps} of {carrying.of} colour steps.{' '}
      <Button
        onClick={() => {
          go({ view: 'route' })
          banDevice(deviceName(carrying.device))
        }}
      >
        The best without it
      </Button>
    </p>
  )
}

const DAYS = 30

/** Minutes a day, the share of clean rounds, and the tempo of one card. */
export const CoursePanel = ({ openChart }: ViewProps) => {
  const { value, state, why } = useStore($course)
  const practised = useStore($practised)
  const cards = useCards()
  const items = useItems()
  const played = useMemo(() => cards.filter((c) => c.rounds > 1 && c.best !== null), [cards])
  const [chosen, setChosen] = useState<string | null>(null)
  const card =
    played.find((c) => `${c.itemId} ${c.key}` === chosen) ?? played.toSorted((a, b) => b.rounds - a.rounds)[0]
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same
  useEffect(() => void askCourse(DAYS, card?.itemId ?? '', card?.key ?? ''), [practised, card?.itemId, card?.key])
  const days = value?.days ?? []
  const tempo = value?.tempo ?? []
  const labels = useMemo(() => days.map((d) => d.day.slice(8)), [days])
  const minutes = useMemo((): Course => ({ labels, bars: days.map((d) => d.minutes) }), [labels, days])
  const clean = useMemo(
    (): Course => ({ labels, line: days.map((d) => (d.clean === null ? null : Math.round(d.clean * 100))), most: 100 }),
    [labels, days],
  )
  const tempos = useMemo(
    (): Course => ({
      labels: tempo.map((p) => dayText(p.at)),
      line: tempo.map((p) => p.tempo),
      open: tempo.map((p) => !p.clean),
    }),
    [tempo],
  )
  if (!value)
    return state === 'failed' ? (
      <p role="alert">The course could not be worked out: {why}</p>
    ) : (
      <p role="status">Working out the figures …</p>
    )
  const nameOf = (itemId: string): string => items.find((i) => i.id === itemId)?.name ?? ''
  return (
    <div className={styles.course}>
      <CoursePicture
        title="Minutes a day"
        course={minutes}
        heads={['day', 'minutes', 'rounds']}
        rows={days.map((d) => [d.day, d.minutes.toFixed(1), String(d.rounds)])}
      />
      <CoursePicture
        title="Clean rounds of a hundred"
        course={clean}
        heads={['day', 'clean']}
        rows={days.map((d) => [d.day, d.clean === null ? '–' : String(Math.round(d.clean * 100))])}
      />
      {card && (
        <div>
          <Select
            label="Tempo of"
            value={`${card.itemId} ${card.key}`}
            options={played.map((c) => ({
              value: `${c.itemId} ${c.key}`,
              label: `${nameOf(c.itemId)} in ${keyWords(c.key, openChart)}`,
            }))}
            onPick={setChosen}
          />
          <CoursePicture
            title="Tempo, clean rounds filled"
            course={tempos}
            heads={['when', 'tempo', 'clean']}
            rows={tempo.map((p, i) => [`${i + 1}, ${dayText(p.at)}`, String(p.tempo), p.clean ? 'yes' : 'no'])}
          />
        </div>
      )}
      <section aria-label="Habits" className={styles.habits}>
        <h2>Habits</h2>
        <TakesCourse openChart={openChart} />
        <Overuse />
        {value.confusions.map((c) => (
          <p key={`${c.topic} ${c.right} ${c.given}`}>
            {toGlyphs(c.right)} taken for {toGlyphs(c.given)}, {c.times} of {c.asked}
          </p>
        ))}
      </section>
    </div>
  )
}
