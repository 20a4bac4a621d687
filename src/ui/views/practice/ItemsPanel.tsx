import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import { ITEM_KEY_ORDERS, type ItemKeys, plainKey, TWELVE_KEYS } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { renameRow } from '../../state/kept/kept.ts'
import type { ItemRow } from '../../state/kept/row-types.ts'
import { $cards, type CardFigures } from '../../state/practice/figures.ts'
import {
  $items,
  $itemsFetched,
  addReadyItems,
  changeItem,
  fetchItems,
  removeItem,
  restKey,
} from '../../state/practice/items.ts'
import { playItem } from '../../state/sound/sessions.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { dayWords } from '../overlay/day-words.ts'
import { keyWords } from '../overlay/key-words.ts'
import type { ViewProps } from '../view.ts'
import { NewItem } from './NewItem.tsx'
import styles from './PracticeView.module.css'
import { ofWords } from './words.ts'

const OWN = 'its own'
const orderOf = (keys: ItemKeys): string => (typeof keys === 'string' ? keys : 'order' in keys ? keys.order : OWN)

/** One key of an item: how far up its ladder it stands, as a height; pressed, it is played. */
const KeyCard = ({
  card,
  item,
  openChart,
}: {
  readonly card: CardFigures
  readonly item: ItemRow
  readonly openChart: OpenChart
}) => {
  const { from, to } = item.tempo
  const up = card.last === null ? 0 : Math.round(((card.tempo - from) / Math.max(1, to - from)) * 3) + 1
  const name = keyWords(card.key, openChart)
  const rest = card.rest ? ', put off' : ''
  return (
    <li>
      <button
        type="button"
        className={styles.keyCard}
        data-up={up}
        data-rest={card.rest ? 'yes' : undefined}
        title={`${card.rounds} rounds, due ${dayWords(card.due)}`}
        aria-label={`${name}, tempo ${card.tempo}, last ${dayWords(card.last)}${rest}`}
        onClick={() => playItem(item, card.key)}
      >
        <b>{name}</b>
        <span>{card.last === null ? '–' : card.tempo}</span>
      </button>
    </li>
  )
}

const Ladder = ({ item }: { readonly item: ItemRow }) => {
  const [ladder, setLadder] = useState(item.tempo)
  useEffect(() => setLadder(item.tempo), [item.tempo])
  const field = (name: keyof ItemRow['tempo'], label: string) => (
    <label className={styles.number}>
      {label}
      <input
        type="number"
        min={name === 'step' ? 1 : 20}
        max={name === 'step' ? 40 : 400}
        value={ladder[name]}
        onChange={(e) => setLadder({ ...ladder, [name]: Number(e.target.value) })}
        onBlur={() => {
          const { from, to, step } = ladder
          const isRight = from >= 20 && to >= from && to <= 400 && step >= 1 && step <= 40
          if (isRight) changeItem(item, { tempo: ladder })
          else setLadder(item.tempo)
        }}
      />
    </label>
  )
  return (
    <>
      {field('from', 'from')}
      {field('to', 'to')}
      {field('step', 'by')}
    </>
  )
}

const withoutOf = (keys: ItemKeys): readonly string[] =>
  typeof keys === 'object' && 'order' in keys ? (keys.without ?? []).map(plainKey) : []

/** Which of the twelve keys are left out on purpose; pressed, a key is left out or taken in. */
const LeftOutKeys = ({ item, openChart }: { readonly item: ItemRow; readonly openChart: OpenChart }) => {
  const { keys } = item
  if (orderOf(keys) === OWN) return null
  const without = withoutOf(keys)
  const order = ITEM_KEY_ORDERS.find((o) => o === orderOf(keys)) ?? 'fourths'
  return (
    <fieldset className={styles.leftOut}>
      <legend>Left out on purpose</legend>
      {TWELVE_KEYS.map((key) => (
        <Button
          key={key}
          pressed={without.includes(key)}
          onClick={() => {
            const now = without.includes(key) ? without.filter((k) => k !== key) : [...without, key]
            if (now.length < TWELVE_KEYS.length) changeItem(item, { keys: { order, without: now } })
          }}
        >
          {keyWords(key, openChart)}
        </Button>
      ))}
    </fieldset>
  )
}

/** Keys that are put off or rested, each with the way back. */
const PutOff = ({ item, openChart }: { readonly item: ItemRow; readonly openChart: OpenChart }) => {
  const resting = (item.rests ?? []).filter((r) => r.until === null || Date.parse(r.until) > Date.now())
  return resting.map(({ key, until }) => (
    <p key={key ?? 'all'}>
      {key === null ? 'All of it' : keyWords(key, openChart)}:{' '}
      {until === null ? 'rested' : `put off, due ${dayWords(until)}`}{' '}
      <Button onClick={() => void restKey(item, key, 0)}>Take it up again</Button>
    </p>
  ))
}

const Item = ({
  item,
  cards,
  openChart,
}: {
  readonly item: ItemRow
  readonly cards: readonly CardFigures[]
  readonly openChart: OpenChart
}) => {
  const [name, setName] = useState(item.name)
  useEffect(() => setName(item.name), [item.name])
  const order = orderOf(item.keys)
  const isRested = (item.rests ?? []).some((r) => r.key === null)
  return (
    <li className={styles.item}>
      <div className={styles.row}>
        <input
          className={styles.itemName}
          aria-label="Name"
          value={name}
          maxLength={200}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => void renameRow('items', item, name)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
        <Button tone="strong" onClick={() => playItem(item, null)}>
          Play
        </Button>
      </div>
      <p className={styles.why}>{ofWords(item.of, openChart)}</p>
      <ul className={styles.keyCards} aria-label={`Keys of ${item.name}`}>
        {cards.map((c) => (
          <KeyCard key={c.key} card={c} item={item} openChart={openChart} />
        ))}
      </ul>
      {item.of.kind !== 'quiz' && (
        <details className={styles.fold}>
          <summary>Keys and ladder</summary>
          <div className={styles.row}>
            <Select
              label="Keys in"
              value={order}
              options={[...(order === OWN ? [OWN] : []), ...ITEM_KEY_ORDERS].map((o) => ({ value: o, label: o }))}
              onPick={(to) => {
                const chosen = ITEM_KEY_ORDERS.find((o) => o === to)
                if (chosen)
                  changeItem(item, {
                    keys:
                      typeof item.keys === 'object' && 'order' in item.keys ? { ...item.keys, order: chosen } : chosen,
                  })
              }}
            />
            <Ladder item={item} />
            <Button onClick={() => void restKey(item, null, isRested ? 0 : null)}>
              {isRested ? 'Take it up again' : 'Rest it'}
            </Button>
            <Button onClick={() => void removeItem(item)}>Remove</Button>
          </div>
          <LeftOutKeys item={item} openChart={openChart} />
          <PutOff item={item} openChart={openChart} />
          {item.note && <p>{item.note}</p>}
        </details>
      )}
      {item.of.kind === 'quiz' && (
        <div className={styles.row}>
          <Button onClick={() => void removeItem(item)}>Remove</Button>
        </div>
      )}
    </li>
  )
}

/** Everything there is to practise, each with its keys. */
export const ItemsPanel = ({ kept, openChart }: ViewProps) => {
  const items = useStore($items)
  const fetched = useStore($itemsFetched)
  const cards = useStore($cards).value?.cards ?? []
  const failed = fetched === 'failed' && (
    <p role="alert">
      The items could not all be fetched. <Button onClick={() => void fetchItems()}>Try again</Button>
    </p>
  )
  if (failed && items.length === 0) return failed
  if (!failed && fetched !== 'ready') return <p role="status">Fetching the items …</p>
  return (
    <div className={styles.items}>
      {failed}
      <div className={styles.row}>
        <p>
          {items.length === 0 ? 'Nothing to practise yet.' : `${items.length} items.`} <kbd>p</kbd> on an overlay, a
          pair, a route or a line makes another.
        </p>
        <Button onClick={addReadyItems}>Add the seven that teachers begin with</Button>
      </div>
      <NewItem kept={kept} openChart={openChart} />
      <ul className={styles.plain}>
        {items.map((item) => (
          <Item key={item.id} item={item} cards={cards.filter((c) => c.itemId === item.id)} openChart={openChart} />
        ))}
      </ul>
    </div>
  )
}
