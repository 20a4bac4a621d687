import type { APIContext, APIRoute } from 'astro'
import { withChart } from '../charts-of-rows.ts'
import { askerOf } from '../devices/admit.ts'
import { BODY_LIMIT, download, endpoint, formBytes, jsonBytes, jsonText } from '../door.ts'
import type { KindName } from '../kinds.ts'
import { getRow } from '../rows.ts'
import { store } from '../store.ts'
import type { Answer, Asked } from './asked.ts'
import { compute } from './computing.ts'
import type { TaskName } from './tasks.ts'

type Gathered = Omit<Asked, 'query'>

export const respond = (answer: Answer): Response => {
  switch (answer.kind) {
    case 'json':
      return jsonText(answer.text)
    case 'file':
      return download(answer.body, answer.title, answer.format)
    case 'fields':
      throw new Error('a checked row is no answer')
  }
}

/** Has a task worked out for whoever sent a request. */
export const computeFor = (context: APIContext, task: TaskName, gathered: Gathered): Promise<Answer> =>
  compute(
    task,
    { query: [...context.url.searchParams], ...gathered },
    askerOf(context.request, context.clientAddress),
    context.request.signal,
  )

/** An endpoint whose answer is worked out on a thread from its query and what is gathered first. */
const inThread = (task: TaskName, gather: (context: APIContext) => Promise<Gathered> | Gathered): APIRoute =>
  endpoint(async (context) => respond(await computeFor(context, task, await gather(context))))

export const fromQuery = (task: TaskName): APIRoute => inThread(task, () => ({}))
export const fromBody = (task: TaskName, limit = BODY_LIMIT): APIRoute =>
  inThread(task, async ({ request }) => ({ body: await jsonBytes(request, false, limit) }))
export const fromFile = (task: TaskName): APIRoute => inThread(task, ({ request }) => formBytes(request))
/** Of a kept row, with the chart it lies over. */
export const fromRow = (task: TaskName, kind: KindName): APIRoute =>
  inThread(task, async ({ params }) => {
    const db = await store()
    const row = await getRow(db, kind, params.id ?? '')
    return { kept: kind === 'charts' ? { row, chart: null } : await withChart(db, row) }
  })
