import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical } from 'lucide-react'
import { toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import type { ItemRow } from '../../state/kept/row-types.ts'
import { standingOf } from '../../state/kept/rows.ts'
import type { CardFigures } from '../../state/practice/figures.ts'
import { restKey } from '../../state/practice/items.ts'
import { arrange, type SessionBlock } from '../../state/practice/session.ts'
import { playItem } from '../../state/sound/sessions.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { keyWords } from '../overlay/key-words.ts'
import styles from './PracticeView.module.css'
import { cardRows } from './words.ts'

interface Props {
  readonly query: string
  readonly blocks: readonly SessionBlock[]
  readonly openChart: OpenChart
  /** The block that goes on now; null before a session. */
  readonly inHand: number | null
}

const HEADS: Readonly<Record<SessionBlock['kind'], string>> = {
  'warm-up': 'Warm up',
  due: 'Due',
  new: 'New',
  combined: 'Together',
  free: 'Freely',
  break: 'Break',
}

const Unfolded = ({ card, item }: { readonly card: CardFigures; readonly item: ItemRow }) => (
  <details className={styles.unfolded}>
    <summary>figures</summary>
    <dl className={styles.figures}>
      {cardRows(card).map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
    <div className={styles.row}>
      <Button onClick={() => void restKey(item, card.key, 1)}>Put off until tomorrow</Button>
      <Button onClick={() => void restKey(item, card.key, 7)}>For a week</Button>
      <Button onClick={() => void restKey(item, card.key, null)}>Rest this key</Button>
    </div>
  </details>
)

const BlockRow = ({
  block,
  openChart,
  onDrop,
  isNow,
}: {
  readonly block: SessionBlock
  readonly openChart: OpenChart
  readonly onDrop: () => void
  readonly isNow: boolean
}) => {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: block.id,
  })
  const item = block.itemId === null ? null : (standingOf('items', block.itemId)?.row ?? null)
  const title =
    block.name ?? (block.kind === 'break' ? 'Put it down' : block.kind === 'free' ? 'One chorus' : 'Long tones')
  const style = { transform: CSS.Transform.toString(transform) ?? undefined, transition: transition ?? undefined }
  return (
    <li
      ref={setNodeRef}
      style={style}
      className={`${styles.block} ${isDragging ? styles.dragged : ''}`}
      aria-current={isNow ? 'step' : undefined}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className={styles.grip}
        {...attributes}
        {...listeners}
        aria-label={`Move ${HEADS[block.kind]}: ${title}`}
      >
        <GripVertical size={20} aria-hidden="true" />
      </button>
      <span className={styles.minute}>{block.minutes}′</span>
      <span className={styles.kind}>{HEADS[block.kind]}</span>
      <div className={styles.what}>
        <strong>{toGlyphs(title)}</strong>
        {block.card && (
          <span className={styles.at}>
            in <b>{keyWords(block.card.key, openChart)}</b>{' '}
            {!/^[a-z]/.test(block.card.key) && <>at {block.card.tempo}</>}
          </span>
        )}
        <span className={styles.why}>{block.why}</span>
        {block.card && item && <Unfolded card={block.card} item={item} />}
      </div>
      {item && <Button onClick={() => playItem(item, block.card?.key ?? null)}>Play</Button>}
      <Button tone="quiet" aria-label={`Leave out ${title}`} onClick={onDrop}>
        ×
      </Button>
    </li>
  )
}

/** The blocks of a session in their order: dragged, or moved by keys (Space takes one up, arrows move it, Space lays it down). */
export const BlockList = ({ query, blocks, openChart, inHand }: Props) => {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const at = (id: string | number): number => blocks.findIndex((b) => b.id === id)
    arrange(query, arrayMove([...blocks], at(active.id), at(over.id)))
  }
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={blocks.map((b) => b.id)} strategy={verticalListSortingStrategy}>
        <ol className={styles.blocks} aria-label="Session">
          {blocks.map((block, i) => (
            <BlockRow
              key={block.id}
              block={block}
              openChart={openChart}
              isNow={i === inHand}
              onDrop={() =>
                arrange(
                  query,
                  blocks.filter((b) => b !== block),
                )
              }
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  )
}
