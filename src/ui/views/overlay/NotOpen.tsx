import { Button } from '../../parts/Button.tsx'
import { type Kept, openAgain } from '../../state/kept/kept.ts'

/** What stands where no chart is open: it is being opened, it could not be, or none was chosen. */
export const NotOpen = ({ kept }: { readonly kept: Kept }) => {
  if (kept.failed !== null)
    return (
      <div role="alert">
        <p>The chart could not be opened: {kept.failed} Nothing is lost.</p>
        <Button onClick={openAgain}>Try again</Button>
      </div>
    )
  if (kept.loading) return <p role="status">Opening the chart …</p>
  return <p role="status">No chart is open. Choose one, or begin a new one.</p>
}
