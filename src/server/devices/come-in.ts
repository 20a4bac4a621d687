import { readBytes } from '../door.ts'
import { store } from '../store.ts'
import { cameFrom } from './admit.ts'
import { codePage } from './code-page.ts'
import { signingKey, takeCode } from './codes.ts'
import { cookieFor } from './cookie.ts'

const USUAL_NAME = 'Telephone'
const FORM_LIMIT = 4096

/** To the first page; who is let in already is led there at once. */
const inside = (more: Readonly<Record<string, string>> = {}): Response =>
  new Response(null, { status: 303, headers: { location: '/', 'cache-control': 'no-store', ...more } })

export const doorPage = (request: Request, url: URL): Response =>
  cameFrom(request) === 'elsewhere'
    ? codePage(null, { code: (url.searchParams.get('code') ?? '').slice(0, 12), name: USUAL_NAME })
    : inside()

/** Somebody outside gives the code, as a form of the page above: a cookie, or why not. */
export const comeIn = async (request: Request): Promise<Response> => {
  if (cameFrom(request) !== 'elsewhere') return inside()
  const form = new URLSearchParams(Buffer.from(await readBytes(request, FORM_LIMIT)).toString('utf8'))
  const given = { code: (form.get('code') ?? '').slice(0, 12), name: (form.get('name') ?? '').trim().slice(0, 60) }
  if (given.name === '' || !/^[\d\s-]+$/.test(given.code) || given.name.includes('\u0000'))
    return codePage('form', { ...given, name: given.name.replaceAll('\u0000', '') || USUAL_NAME })
  const db = await store()
  const taken = await takeCode(db, given.code, given.name, new Date())
  if (taken.kind !== 'in') return codePage(taken.kind, given)
  const isSecure = request.headers.get('x-forwarded-proto') === 'https'
  return inside({ 'set-cookie': cookieFor(taken.id, await signingKey(db), isSecure) })
}
