import {
  type Chord,
  deviceName,
  deviceOver,
  type Grade,
  type ItemOf,
  readTune,
  reverse,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import { overlayPhrase } from '../../../sound/sound.ts'
import { $address, go } from '../address/address.ts'
import { keep } from '../desk/keeping.ts'
import { $kept } from '../kept/kept.ts'
import { lineHere } from '../line/lines.ts'
import { keepDraft } from '../line/making.ts'
import { say } from '../page/notices.ts'
import { itemFor } from '../practice/items.ts'
import { answerQuiz, beginQuiz, goOnQuiz, questionNow, topicsFrom } from '../practice/quiz.ts'
import { $session } from '../practice/session.ts'
import { $planning } from '../route/planning.ts'
import { pickInView } from '../route/route-model.ts'
import { concertSteps, keepRoute } from '../route/routes.ts'
import { stepInView, toggleLock } from '../route/steering.ts'
import { gradeRound, pedalOnStage } from '../sound/grading.ts'
import { hear } from '../sound/hearing.ts'
import { $heardTake, stopListening } from '../sound/listening-back.ts'
import { pressPedal } from '../sound/looping.ts'
import { hearOverlay } from '../sound/overlay-hearing.ts'
import { playOrStop, startPlaying } from '../sound/playing.ts'
import { isPractising, moveKey, playOrStopRounds, stopRounds } from '../sound/practising.ts'
import { hearQuestion } from '../sound/quiz-hearing.ts'
import { goOnToNextBlock, startSessionHere } from '../sound/sessions.ts'
import { $onStage } from '../sound/stage.ts'
import { layHere, takeChain } from '../tune/in-hand.ts'
import { $openChart } from '../tune/open-chart.ts'

/** On the Route view the step in view is heard over its chord, in Make the draft over the band; elsewhere the overlay. */
export const hearHere = (): void => {
  const address = $address.get()
  if (address?.view === 'line' && address.make === 'make') return void startPlaying()
  if (address?.view !== 'route') return hearOverlay()
  const [step, openChart] = [stepInView(), $openChart.get()]
  if (!step?.overlay || !openChart) return
  const back = reverse(openChart.instrument.written)
  const { hearAs, hearTempo } = openChart.settings
  const chord = transposeChord(step.slot.chord, back)
  void hear(overlayPhrase(transposeOverlay(step.overlay, back), chord, { as: hearAs, tempo: hearTempo }))
}

/** The chain in view on the Route view, where one is. */
const chainInView = () => {
  const [address, openChart] = [$address.get(), $openChart.get()]
  const pick = address && openChart && pickInView(address, openChart)
  const route = pick === null ? undefined : $planning.get().routes[pick]
  return route && openChart ? { route, openChart } : null
}

/** Takes the chain in view into the route in hand. */
export const takeHere = async (): Promise<void> => {
  const view = chainInView()
  if (!view) return
  const { title, steps } = view.route
  await takeChain(title, concertSteps(steps, view.openChart))
  go({ pick: null })
  say(toGlyphs(`In hand: ${title}.`), 'undo')
}

/** On the Route view the route in view is kept, in Make the draft; elsewhere the overlay. */
export const keepHere = (): void => {
  const address = $address.get()
  if (address?.view === 'line' && address.make === 'make') return keepDraft()
  if (address?.view !== 'route') return keep()
  const view = chainInView()
  if (view) keepRoute(view.route.title, view.route.steps, view.openChart)
}

/** Lays what is in view over its chord; on the Route view the step in view, which a planning then keeps. */
export const layInView = (): void => {
  const view = $address.get()?.view
  if (view === 'route') toggleLock()
  else layHere()
}

/** Opens Make with what is in view as its plan: the overlay over its chord, or the route, a chain in view taken first. */
export const makeHere = async (): Promise<void> => {
  const address = $address.get()
  if (!address) return
  if (address.view === 'line') return go({ make: address.make === 'make' ? 'off' : 'make', note: 0 })
  if (address.view === 'route') await takeHere()
  const makeFrom = address.view === 'route' ? 'laid' : 'here'
  go({ view: 'line', make: 'make', makeFrom, draft: 0, note: 0 })
}

/** What kind of chord it is, without its root: it is practised on all of them. */
const typeOf = ({ symbol, root }: Chord): string => {
  const type = symbol.slice(root.name.length)
  return type === '' ? 'a major triad' : type
}

/** What is in view as something to practise, in concert pitch; in words why it is nothing. */
const itemHere = async (): Promise<{ readonly name: string; readonly of: ItemOf } | string> => {
  const address = $address.get()
  const openChart = $openChart.get()
  const kept = $kept.get()
  if (!address || !openChart || !kept || address.view === 'setup' || address.view === 'log')
    return 'There is nothing to practise here.'
  const key = kept.chart && readTune(kept.chart.text)
  const inChart = {
    chartId: kept.chart?.id ?? null,
    ...(key?.ok && key.value.analysis.key ? { key: key.value.analysis.key.tonic.name } : {}),
  }
  if (address.view === 'line') {
    const row = lineHere(address, kept)
    return row
      ? { name: row.name, of: { kind: 'line', lineId: row.id, ...inChart } }
      : 'There is no line in view: keep one first.'
  }
  if (address.view === 'route' || address.view === 'charts') {
    if (address.view === 'route') await takeHere()
    if (!kept.chart || openChart.isSketch) return 'Open a chart first.'
    const { loop } = address
    const bars = loop ? `, bars ${loop.from}–${loop.to}` : ''
    return { name: `${kept.chart.title}${bars}`, of: { kind: 'route', ...inChart, ...(loop ? { bars: loop } : {}) } }
  }
  const { concert } = openChart
  if (!concert) return 'Open a chart, or ask for an overlay over a chord, first.'
  const { overlay, chord, next } = concert
  return {
    name: `${deviceName(deviceOver(overlay, chord))} over ${typeOf(chord)}${next ? `, to ${typeOf(next)}` : ''}`,
    of: {
      ...{ kind: overlay.groups ? 'pair' : 'overlay', overlay: overlay.name, chord: chord.symbol },
      ...(next ? { next: next.symbol } : {}),
    },
  }
}

/** `p`: makes an item of what is in view and puts it on the player. */
export const practiseHere = async (): Promise<void> => {
  const address = $address.get()
  if (address?.view === 'player') return
  if (address?.view === 'practice') return void startSessionHere()
  const here = await itemHere()
  if (typeof here === 'string') return say(here)
  const item = await itemFor(here.name, here.of)
  go({ view: 'player', item, inKey: null })
}

const inQuiz = (): boolean => {
  const address = $address.get()
  return address?.view === 'practice' && address.practise === 'quiz'
}

/** Space: on the player the rounds, in Practice the session or what the quiz asks, elsewhere the band. */
export const playHere = (): void => {
  const address = $address.get()
  if ($heardTake.get()) return stopListening()
  if (address?.view === 'player' && $onStage.get()) return playOrStopRounds()
  if (startSessionHere()) return
  if (!inQuiz()) return playOrStop()
  if (questionNow()) hearQuestion()
  else beginQuiz(null, topicsFrom(address?.topic ? [address.topic] : null))
}

/** Digits answer the quiz; tells whether one is asked. */
export const answerHere = (choice: number): boolean => {
  const put = inQuiz() ? questionNow() : null
  const text = put?.question.choices[choice - 1]?.text
  if (put?.given === null && text !== undefined) answerQuiz(text)
  return put !== null
}

/** Enter: the next question of the quiz, the next block of a session on the player; elsewhere what is in view is heard. */
export const enterHere = (): void => {
  if (inQuiz()) return goOnQuiz()
  if ($address.get()?.view !== 'player') return hearHere()
  if ($session.get()) goOnToNextBlock()
}

/** Arrows grade on the player; tells whether it is in sight. */
export const gradeHere = (grade: Grade): boolean => {
  if ($address.get()?.view !== 'player') return false
  gradeRound(grade)
  return true
}

/** Comma and point on the player: the key before, the next key. */
export const moveKeyHere = (by: 1 | -1): boolean => {
  if ($address.get()?.view !== 'player') return false
  moveKey(by)
  return true
}

/** Esc on the player stops the rounds; at rest it leads back to Practice. */
export const leavePlayer = (): boolean => {
  if ($address.get()?.view !== 'player') return false
  if (isPractising()) stopRounds()
  else go({ view: 'practice' })
  return true
}

/** The pedal in the quiz goes on to the next question, on the player it grades; elsewhere it moves. `at` in milliseconds. */
export const pedalHere = (by: 1 | -1, at: number): void => {
  if (inQuiz() && questionNow()) return by === 1 ? goOnQuiz() : hearQuestion()
  if (!pedalOnStage(by, at)) pressPedal(by, at)
}
