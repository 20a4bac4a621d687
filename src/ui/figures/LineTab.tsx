import { memo } from 'react'
import { type HeardNote, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './LineBand.module.css'
import { LINE } from './line-band-layout.ts'
import { ROLE_SHAPES, type TabLook, tabPath } from './tab-shape.ts'
import { beatText } from './words.ts'

const HOOK = 5

const lookOf = (n: HeardNote, next: HeardNote | undefined): TabLook => ({
  shape: n.role === null ? 'flat' : ROLE_SHAPES[n.role],
  doubled: n.guide,
  bitten: n.rub,
  lean: next && next.pitch < n.pitch ? 'left' : 'right',
})

const labelOf = (n: HeardNote, job: string): string =>
  [
    `note ${n.n + 1}`,
    toGlyphs(n.name.name),
    ...(n.degree === null ? [] : [toGlyphs(n.degree)]),
    n.role ?? 'no chord',
    ...(n.rub ? ['rub'] : []),
    `fade ${n.fade}`,
    toGlyphs(job),
    `bar ${n.bar}, beat ${beatText(n.beat)}`,
  ].join(', ')

interface Props {
  readonly note: HeardNote
  readonly next: HeardNote | undefined
  readonly job: string
  readonly x: number
  readonly y: number
  readonly w: number
  readonly home: number
  readonly here: boolean
  readonly marked: boolean
  readonly onGo: (note: number) => void
}

const ROOM_INSIDE = 26

/** A note of a line: its tab as long as it lasts and as high as it is far out. Drawn anew only where it changed. */
export const LineTab = memo(({ note, next, job, x, y, w, home, here, marked, onGo }: Props) => {
  const look = lookOf(note, next)
  const width = look.shape === 'hooked' ? w - HOOK : w
  const classes = [styles.note, hueClass(note.fade), here ? styles.here : '', marked ? styles.marked : '']
  return (
    <g
      role="button"
      tabIndex={here ? 0 : -1}
      aria-label={labelOf(note, job)}
      aria-current={here ? 'true' : undefined}
      className={classes.join(' ')}
      onClick={() => onGo(note.n)}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return
        e.preventDefault()
        e.stopPropagation()
        onGo(note.n)
      }}
    >
      <path className={styles.stem} d={`M${x + 1},${y + LINE.tab} V${home}`} />
      <path className={styles.tab} d={tabPath(look, x, y, width, LINE.tab)} />
      {look.doubled && <path className={styles.double} d={`M${x + 4},${y + 5} H${x + width - 4}`} />}
      {w >= ROOM_INSIDE ? (
        <>
          <text className={styles.on} x={x + width / 2} y={y + 16}>
            {toGlyphs(note.name.name)}
          </text>
          <text className={styles.on} x={x + width / 2} y={y + 30}>
            {toGlyphs(note.degree ?? '')}
          </text>
        </>
      ) : (
        <text className={styles.off} x={x} y={y - 4}>
          {toGlyphs(note.degree ?? note.name.name)}
        </text>
      )}
    </g>
  )
})
LineTab.displayName = 'LineTab'
