import { getContext, start } from 'tone'
import { clockReader } from '../core/index.ts'

/** The live context, running. */
export const wakeContext = (): Promise<void> => start()

const ahead = clockReader()

/** What the context's clock is ahead of the page's, in ms. */
export const clockAhead = (): number => ahead(performance.now(), getContext().currentTime * 1000)
