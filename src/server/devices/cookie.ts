import { createHmac, timingSafeEqual } from 'node:crypto'

const NAME = 'crossfade-device'
const YEAR_S = 365 * 24 * 60 * 60

const signed = (id: string, key: string): string => createHmac('sha256', key).update(id).digest('base64url')

/** What a device holds from then on: who it is, signed; no script can read it and no other site can send it. */
export const cookieFor = (id: string, key: string, isSecure: boolean): string =>
  `${NAME}=${id}.${signed(id, key)}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR_S}${isSecure ? '; Secure' : ''}`

export const sameText = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)]
  return x.length === y.length && timingSafeEqual(x, y)
}

/** The device that a header of cookies tells of; null where there is none of our signing. */
export const deviceIn = (cookies: string | undefined, key: string): string | null => {
  for (const cookie of (cookies ?? '').split(';')) {
    const [, id, sign] = /^\s*crossfade-device=([\w-]{1,64})\.([\w-]{1,64})\s*$/.exec(cookie) ?? []
    if (id !== undefined && sign !== undefined && sameText(sign, signed(id, key))) return id
  }
  return null
}
