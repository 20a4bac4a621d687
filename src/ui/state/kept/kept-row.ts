import { differing, type Edit, type Fields, isEmpty, laidOver, queued, rebased, same } from './edits.ts'
import type { Answer } from './request.ts'
import type { HowChanged, KeptRow, Offer, Ports, RowKind, RowState, ServerRow, Standing } from './standing.ts'

const AGAIN_MS = { first: 700, most: 4000 } as const
/** Changes of one kind this close together are one step. */
const STEP_MS = 4000
const MOST_UNANSWERED = 20

/**
 * The one way to what is kept: one value as it is shown, a queue of edits with one request in flight, brought over the
 * version the server answers. What is not acknowledged is held in the browser, and sent again until it is.
 */
export const keptRow = <R extends ServerRow>(
  kind: RowKind,
  first: R,
  ports: Ports<R>,
  join: string | undefined = undefined,
): KeptRow<R> => {
  let base = first
  let queue: readonly Edit[] = []
  let flight: Edit | null = null
  /** What was sent and may have been kept, though no answer came: what the server has of it is nobody else's. */
  let unanswered: readonly Fields[] = []
  let unread: Fields = {}
  let theirs: R | null = null
  /** What came in from elsewhere while something was under way. */
  let heard: R | null = null
  let trouble: { readonly state: 'unreadable' | 'unreachable' | 'gone'; readonly why: string } | null = null
  let offered: Offer | null = null
  let held = false
  let isNew = first.version === 0
  let stopRest: (() => void) | null = null
  let again: number = AGAIN_MS.first
  let last = { join: '', step: '', at: Number.NEGATIVE_INFINITY }
  let idle: ((kept: boolean) => void)[] = []

  const unsent = (): Fields => laidOver({}, [flight?.patch ?? null, ...queue.map((e) => e.patch)])
  const shown = (): R => laidOver(base, [unsent()])
  const isWaiting = (): boolean => isNew || flight !== null || queue.length > 0

  const stateNow = (): RowState => {
    if (theirs) return 'conflict'
    if (trouble?.state === 'gone') return 'gone'
    if (!isEmpty(unread)) return 'unreadable'
    if (trouble) return trouble.state
    return isWaiting() ? 'waiting' : 'kept'
  }
  const now = (): Standing<R> => ({
    ...{ row: shown(), state: stateNow(), unread, theirs, offered, held },
    why: trouble?.why ?? null,
  })
  const tell = (): void => {
    const patch = isNew ? { ...pick(shown()), ...unread } : { ...unsent(), ...unread }
    held = ports.hold(shown(), patch)
    ports.tell(now())
    if (flight !== null || (stopRest !== null && !trouble && !theirs)) return
    const waiting = idle
    idle = []
    for (const resolve of waiting) resolve(!isWaiting() && !theirs && !trouble)
  }
  const pick = (row: R): Fields => Object.fromEntries(kind.fields.map((f) => [f, row[f]]))

  const schedule = (ms: number): void => {
    stopRest?.()
    stopRest = ports.later(() => {
      stopRest = null
      void send()
    }, ms)
  }

  /** Takes what the server has now, with what is not sent laid over it; a conflict where that cannot be. */
  const takeOver = (current: R): void => {
    const mine = isNew ? differing(pick(shown()), current) : unsent()
    const ours = unanswered.flatMap((sent) => Object.entries(sent)).filter(([f, value]) => same(value, current[f]))
    const patch = isNew ? mine : rebased({ ...base, ...Object.fromEntries(ours) }, mine, current, kind.merges)
    unanswered = []
    const step = flight?.step ?? queue[0]?.step ?? last.step
    flight = null
    isNew = false
    if (patch === null && kind.asks) {
      theirs = current
      queue = [{ patch: mine, step }]
      return
    }
    base = current
    const left = differing(patch ?? mine, current)
    queue = isEmpty(left) ? [] : [{ patch: left, step }]
  }

  const onRefused = (answer: Answer<R> & { ok: false }, sent: Edit): void => {
    const current = (answer.current ?? null) as R | null
    if ((answer.code === 'stale_version' || answer.code === 'id_taken' || answer.code === 'name_taken') && current) {
      trouble = null
      again = AGAIN_MS.first
      takeOver(current)
      if (!theirs && queue.length > 0) schedule(0)
      return
    }
    flight = null
    if (!isEmpty(sent.patch)) queue = [sent, ...queue]
    if (answer.code === 'not_found' || answer.code === 'id_taken') trouble = { state: 'gone', why: answer.detail }
    else if (answer.passing) {
      trouble = { state: 'unreachable', why: answer.detail }
      unanswered = [...unanswered, sent.patch].slice(-MOST_UNANSWERED)
      schedule(again)
      again = Math.min(AGAIN_MS.most, again * 2)
    } else trouble = { state: 'unreadable', why: answer.detail }
  }

  const send = async (): Promise<void> => {
    const isGone = trouble?.state === 'gone'
    if (flight || theirs || isGone || !isWaiting()) return tell()
    const [next = { patch: {}, step: last.step }, ...rest] = isNew ? [{ patch: unsent(), step: last.step }] : queue
    flight = next
    queue = rest
    const row = laidOver(base, [next.patch])
    const sending = isNew ? ports.make(row, pick(row), next.step) : ports.change(row, pick(row), next.step)
    tell()
    const answer = await sending
    if (answer.ok) {
      base = answer.value
      flight = null
      unanswered = []
      isNew = false
      trouble = null
      again = AGAIN_MS.first
      if (queue.length > 0 && stopRest === null) schedule(0)
    } else onRefused(answer, next)
    if (heard) adopt(heard)
    heard = null
    tell()
  }

  const stepFor = (join: string | undefined): { readonly step: string; readonly begins: boolean } => {
    const at = ports.now()
    const goesOn = join !== undefined && join === last.join && at - last.at < STEP_MS
    last = { join: join ?? '', step: goesOn ? last.step : ports.newStep(), at }
    return { step: last.step, begins: !goesOn }
  }

  const change = (patch: Fields, { rest = 0, join }: HowChanged = {}): boolean => {
    unread = Object.fromEntries(Object.entries(unread).filter(([field]) => !(field in patch)))
    const real = differing(patch, shown())
    if (isEmpty(real)) {
      tell()
      return false
    }
    const { step, begins } = stepFor(join)
    queue = queued(queue, { patch: real, step })
    if (!flight && !isNew && isEmpty(differing(unsent(), base))) queue = []
    if (trouble?.state === 'unreadable') trouble = null
    if (trouble?.state !== 'unreachable' || stopRest === null) schedule(rest)
    tell()
    return begins
  }

  const settle = (whose: 'mine' | 'theirs'): void => {
    if (!theirs) return
    base = theirs
    theirs = null
    if (whose === 'theirs') {
      queue = []
      unread = {}
    } else schedule(0)
    tell()
  }

  const adopt = (row: R): void => {
    if (flight) {
      if (row.version > (heard?.version ?? 0)) heard = row
      return
    }
    if (row.version <= (theirs ?? base).version) return
    if (theirs) theirs = row
    else takeOver(row)
    trouble = null
    if (queue.length > 0 && !theirs) schedule(0)
    tell()
  }

  const flush = (): Promise<boolean> =>
    new Promise((resolve) => {
      idle.push(resolve)
      if (flight) return
      stopRest?.()
      stopRest = null
      void send()
    })

  const dropLast = (): boolean => {
    if (queue.length === 0 || isNew) return false
    queue = queue.slice(0, -1)
    last = { ...last, at: Number.NEGATIVE_INFINITY }
    if (!isWaiting() && trouble?.state !== 'gone') trouble = null
    tell()
    return true
  }

  const offer = ({ key, patch }: Offer): boolean => {
    const news = differing(patch, shown())
    offered = isEmpty(news) ? null : { key, patch: news }
    ports.tell(now())
    return offered !== null
  }
  const answerOffer = (take: boolean): void => {
    const taken = offered
    offered = null
    if (take && taken) change(taken.patch)
    ports.tell(now())
  }

  if (isNew) {
    stepFor(join)
    schedule(0)
    tell()
  }
  const holdUnread = (typed: Fields): void => {
    unread = { ...unread, ...differing(typed, shown()) }
    tell()
  }
  return { now, change, holdUnread, settle, adopt, flush, dropLast, offer, answerOffer }
}
