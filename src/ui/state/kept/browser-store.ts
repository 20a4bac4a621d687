/** The browser's own store, which may be refused, full, or hold what another program wrote: then it holds nothing. */
const store = (): Storage | null => {
  try {
    return globalThis.localStorage ?? null
  } catch {
    return null
  }
}

export const readStored = <T>(key: string): T | null => {
  try {
    return JSON.parse(store()?.getItem(key) ?? 'null')
  } catch {
    return null
  }
}

/** Tells whether it is held now. */
export const writeStored = (key: string, value: unknown): boolean => {
  try {
    const into = store()
    into?.setItem(key, JSON.stringify(value))
    return into !== null
  } catch {
    return false
  }
}

export const dropStored = (key: string): void => {
  try {
    store()?.removeItem(key)
  } catch {}
}

export const storedKeys = (prefix: string): readonly string[] => {
  try {
    const all = store()
    const keys = Array.from({ length: all?.length ?? 0 }, (_, i) => all?.key(i) ?? '')
    return keys.filter((key) => key.startsWith(prefix))
  } catch {
    return []
  }
}
