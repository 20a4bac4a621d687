import { admitted, cameFrom } from '../devices/admit.ts'
import { Problem } from '../problems.ts'
import { store } from '../store.ts'
import { DEVICES, type Hears, hear } from './hearing.ts'

/** So many pages of one process hear at once: each browser needs one. */
const MOST_STREAMS = 100
/** What a page does not take is held for it up to so many news; then it is let go of, and reads anew when it comes back. */
const MOST_HELD = 500
/** A sign of life keeps the connection open, and finds out that nobody is there, ms. */
const ALIVE_EVERY = 15_000
/** A page that lost the stream comes back after so long, ms. */
const BACK_AFTER = 1000

const STREAM = 'text/event-stream'

let streams = 0

/** News as they come, to one page, as server-sent events; a telephone that is turned out hears no more. */
export const newsAnswer = async (request: Request): Promise<Response> => {
  // Whoever asks as for anything else would wait for an end that does not come.
  if (!request.headers.get('accept')?.includes(STREAM))
    throw new Problem('not_a_stream', `Ask with “Accept: ${STREAM}”, and read the events as they come.`)
  const db = await store()
  if (streams >= MOST_STREAMS) throw new Problem('busy', 'Too many pages listen at once.')
  let hears: Hears = () => undefined
  const stopHearing = await hear(db, (told) => hears(told))
  streams++
  const isDevice = cameFrom(request) === 'device'
  const encoder = new TextEncoder()
  let leave = (): boolean => false
  const body = new ReadableStream<Uint8Array>(
    {
      start: (controller) => {
        const end = (): void => {
          if (leave()) controller.close()
        }
        const write = (text: string): void => {
          if ((controller.desiredSize ?? 0) <= 0) return end()
          controller.enqueue(encoder.encode(text))
        }
        const stillLetIn = async (): Promise<void> => {
          if (isDevice && !(await admitted(request))) end()
        }
        hears = (told) => {
          write(`data: ${told}\n\n`)
          if (told === DEVICES) void stillLetIn()
        }
        const alive = setInterval(() => {
          write(':\n\n')
          void stillLetIn()
        }, ALIVE_EVERY)
        alive.unref()
        leave = () => {
          clearInterval(alive)
          if (!stopHearing()) return false
          streams--
          return true
        }
        write(`retry: ${BACK_AFTER}\n\n`)
      },
      // Who hung up has closed it.
      cancel: () => void leave(),
    },
    new CountQueuingStrategy({ highWaterMark: MOST_HELD }),
  )
  return new Response(body, { headers: { 'content-type': STREAM, 'cache-control': 'no-store' } })
}
