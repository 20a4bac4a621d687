import { useEffect, useRef } from 'react'
import { Table } from '../../parts/Table.tsx'
import { say } from '../../state/page/notices.ts'
import type { Course } from './course-chart.ts'
import styles from './LogView.module.css'

/** A course as a picture, and as a table under it. */
export const CoursePicture = ({
  title,
  course,
  heads,
  rows,
}: {
  readonly title: string
  readonly course: Course
  readonly heads: readonly string[]
  readonly rows: readonly (readonly string[])[]
}) => {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    let wanted = true
    let stop = () => {}
    void import('./course-chart.ts').then(
      ({ drawCourse }) => {
        if (wanted && canvas.current) stop = drawCourse(canvas.current, course)
      },
      () => say('The picture could not be loaded. Its table is under it.'),
    )
    return () => {
      wanted = false
      stop()
    }
  }, [course])
  return (
    <section className={styles.picture} aria-label={title}>
      <h2>{title}</h2>
      <div className={styles.canvas}>
        <canvas ref={canvas} role="img" aria-label={`${title}: the table under it says the same`} />
      </div>
      <details>
        <summary>as a table</summary>
        <Table className={styles.table} heads={heads} rows={rows} />
      </details>
    </section>
  )
}
