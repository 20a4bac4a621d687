/** How one value stands in a query: what it is at first, and how it is read and written. At first it is left out. */
export interface Codec<T> {
  readonly first: T
  /** Null where the text means nothing: then it is as at first. */
  read(text: string): T | null
  write(value: T): string
}

export const text: Codec<string | null> = { first: null, read: (t) => t, write: (v) => v ?? '' }

export const choice = <T extends string>(all: readonly T[], first: T): Codec<T> => ({
  first,
  read: (t) => all.find((one) => one === t) ?? null,
  write: (v) => v,
})

/** A whole number, brought within its bounds. */
export const whole = (first: number, least: number, most: number): Codec<number> => ({
  first,
  read: (t) =>
    t.trim() === '' || Number.isNaN(Number(t)) ? null : Math.round(Math.max(least, Math.min(most, Number(t)))),
  write: String,
})

/** A place in a list: from 0 here, from 1 in the address. */
export const counted: Codec<number> = {
  first: 0,
  read: (t) => (Number(t) >= 1 ? Math.floor(Number(t)) - 1 : null),
  write: (v) => String(v + 1),
}

export const flag: Codec<boolean> = { first: false, read: (t) => t === 'on', write: () => 'on' }

/** A view's part of the address. */
export interface Part<T> {
  readonly read: (query: URLSearchParams) => T
  readonly write: (value: T, query: URLSearchParams) => void
}
export type ValueOf<P> = P extends Part<infer T> ? T : never

type Fields<T> = { readonly [K in keyof T]: Codec<T[K]> }

/** A part field by field; a field is named in the address as it is here, unless `named` says otherwise. */
export const partOf = <T extends object>(
  fields: Fields<T>,
  named: Readonly<Record<string, string>> = {},
): Part<{ readonly [K in keyof T]: T[K] }> => {
  const all = Object.entries(fields) as [keyof T & string, Codec<unknown>][]
  return {
    read: (query) =>
      Object.fromEntries(
        all.map(([field, codec]) => {
          const found = query.get(named[field] ?? field)
          return [field, (found === null ? null : codec.read(found)) ?? codec.first]
        }),
      ) as T,
    write: (value, query) => {
      for (const [field, codec] of all)
        if (value[field] !== codec.first) query.set(named[field] ?? field, codec.write(value[field]))
    },
  }
}
