import { atom } from 'nanostores'
import { type Checked, checkChart, type KeptOverride, overrideAt } from '../../core/index.ts'
import { $kept, merge, refreshCharts } from './kept.ts'
import { say } from './notices.ts'
import { type ChartRow, request } from './rows.ts'

/** How a chart's text stands against what is kept. `theirs` is what another tab kept in the meantime. */
export interface Draft {
  readonly id: string
  readonly state: 'kept' | 'waiting' | 'wrong' | 'unreachable' | 'conflict'
  readonly theirs: ChartRow | null
}

export const $draft = atom<Draft | null>(null)

const REST_MS = 600
const AGAIN_MS = 3000
const slot = (id: string): string => `crossfade-draft-${id}`

/** The text last typed into a chart and not yet kept: in concert pitch where it reads, and held in this browser. */
let pending: { row: ChartRow; text: string; overrides: readonly KeptOverride[] | null } | null = null
let resting: ReturnType<typeof setTimeout> | undefined
let sending = false

const stand = (id: string, state: Draft['state'], theirs: ChartRow | null = null): void =>
  $draft.set({ id, state, theirs })

/** A text that a dead server or a mistake kept from being kept, from an earlier visit. */
export const heldDraft = (row: ChartRow): string | null => {
  const held = localStorage.getItem(slot(row.id))
  return held === row.text ? null : held
}
export const dropDraft = (id: string): void => localStorage.removeItem(slot(id))

const titleIn = (text: string, row: ChartRow): string => {
  const title = checkChart(text).chart?.title
  return !title || title === 'Untitled' ? row.title : title
}

const send = async (): Promise<void> => {
  if (!pending || sending) return
  const { row, text, overrides } = pending
  const version = $kept.get()?.chart?.id === row.id ? ($kept.get()?.chart?.version ?? row.version) : row.version
  sending = true
  const body = { title: titleIn(text, row), text, tags: row.tags, overrides: overrides ?? [], version }
  const answer = await request<ChartRow>('PUT', `charts/${row.id}`, body)
  sending = false
  if (answer.ok) {
    const newer = pending?.row.id === row.id && pending.text !== text
    if ($kept.get()?.chart?.id === row.id)
      merge({ chart: newer ? { ...answer.value, text: pending?.text ?? text } : answer.value })
    if (newer) return void send()
    pending = null
    dropDraft(row.id)
    stand(row.id, 'kept')
    return void refreshCharts()
  }
  if (answer.code === 'stale_version') return stand(row.id, 'conflict', answer.current as ChartRow)
  if (answer.code !== 'unreachable') {
    stand(row.id, 'wrong')
    return say(`Not kept: ${answer.detail}`)
  }
  stand(row.id, 'unreachable')
  resting = setTimeout(() => void send(), AGAIN_MS)
}

/** Keeps a change to the open chart after a moment's rest; everything on the screen follows at once. */
const change = (row: ChartRow, text: string, overrides: readonly KeptOverride[] | null, rest = REST_MS): void => {
  pending = { row, text, overrides }
  localStorage.setItem(slot(row.id), text)
  merge({ chart: { ...row, text, overrides, title: titleIn(text, row) } })
  if ($draft.get()?.state === 'conflict') return
  stand(row.id, 'waiting')
  clearTimeout(resting)
  resting = setTimeout(() => void send(), rest)
}

/** Takes a text as typed, in concert pitch. What does not read is held in this browser, and nothing kept is touched. */
export const editText = (text: string, checked: Checked): void => {
  const row = $kept.get()?.chart
  if (!row) return
  if (checked.errors.length === 0) return change(row, text, row.overrides)
  clearTimeout(resting)
  localStorage.setItem(slot(row.id), text)
  stand(row.id, 'wrong')
}

/** Says something about one chord; an empty word takes it back. */
export const correct = (bar: number, beat: number, said: Omit<KeptOverride, 'bar' | 'beat'>): void => {
  const row = $kept.get()?.chart
  if (!row) return
  const before = overrideAt(row.overrides ?? [], bar, beat)
  const { bar: _, beat: __, ...words } = { ...before, ...said, bar, beat }
  const left = Object.fromEntries(
    Object.entries(words).filter(([, word]) => word !== undefined && word !== '' && word !== 0),
  )
  const others = (row.overrides ?? []).filter((o) => o !== before)
  change(row, row.text, Object.keys(left).length > 0 ? [...others, { ...left, bar, beat }] : others, 0)
}

export const retag = (tags: readonly string[]): void => {
  const row = $kept.get()?.chart
  if (row) change({ ...row, tags }, row.text, row.overrides, 0)
}

/** After another tab kept its own: mine goes over it, or theirs stands. */
export const settle = (whose: 'mine' | 'theirs'): void => {
  const { theirs, id } = $draft.get() ?? {}
  const row = $kept.get()?.chart
  if (!theirs || !row || !id) return
  if (whose === 'theirs') {
    pending = null
    dropDraft(id)
    merge({ chart: theirs })
    stand(id, 'kept')
    return
  }
  stand(id, 'waiting')
  change({ ...row, version: theirs.version }, row.text, row.overrides, 0)
}
