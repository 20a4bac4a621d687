import { type RowKey, redoKept, undoKept } from '../kept/undoing.ts'
import { rememberTakenBack, takeBack, takeForth } from '../page/history.ts'
import { say } from '../page/notices.ts'

/** Takes back the last thing that was done, in the address or among what is kept, and says what it was. */
export const undoLast = async (): Promise<void> => {
  const done = takeBack()
  if (done === null) {
    const of = await undoKept(null)
    if (of) rememberTakenBack({ kind: 'kept', of })
    return
  }
  if (done.kind === 'kept') return void (await undoKept(done.of as RowKey))
  done.back()
  say(`Undone: ${done.name}.`)
}

/** Does again what was taken back last. */
export const redoLast = async (): Promise<void> => {
  const done = takeForth()
  if (done?.kind !== 'choice') return void (await redoKept())
  done.forth()
  say(`Done again: ${done.name}.`)
}
