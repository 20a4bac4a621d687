/** How a store is read by what the server renders too: the page begins with what the store held at first, as the server did. */
export const FIRST = { ssr: 'initial' } as const
