import { statfsSync } from 'node:fs'
import { isWritable, readOnlySentence } from './lock.mjs'
import { Problem } from './problems.ts'

const MEGABYTE = 1024 * 1024
/** The database opens its journal 16 MB at a time, and a table and its indexes grow beside it. */
const NEEDED = 24 * MEGABYTE
/** What is written comes to so many times its size: in the journal, the table, and what undo keeps. */
const TIMES = 4

const freeBytes = (directory: string): number => {
  const { bavail, bsize } = statfsSync(directory)
  return bavail * bsize
}

/** Throws the problem that says why so many bytes cannot be kept now; what is kept already stays readable. */
export const roomFor = (directory: string, bytes: number): void => {
  if (!isWritable(directory)) throw new Problem('read_only', readOnlySentence(directory))
  const free = freeBytes(directory)
  if (free < NEEDED + bytes * TIMES)
    throw new Problem(
      'disk_full',
      `The disk is full: ${Math.floor(free / MEGABYTE)} MB are free where the data lies. Make room, and it goes on by itself.`,
    )
}
