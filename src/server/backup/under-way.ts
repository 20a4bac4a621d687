import { randomUUID } from 'node:crypto'

/** A name for what is on its way in or out, that tells which process is at work on it. */
export const nameUnderWay = (): string => `${process.pid}-${randomUUID()}`

const isRunning = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    // Somebody else's process runs all the same.
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** Whether another program of this machine is at work on what has such a name; several may share a data directory. */
export const isUnderWay = (name: string): boolean => {
  const pid = Number(/(?:^|-)(\d+)-[0-9a-f]{8}-[0-9a-f-]{27}/.exec(name)?.[1])
  return pid !== process.pid && isRunning(pid)
}
