import { Button } from '../../parts/Button.tsx'
import { type PracticeManner, setManner } from '../../state/sound/practice-manner.ts'

/** How one practises: whether each round is heard before it is played, and whether a bar of count leads into a new key. */
export const MannerButtons = ({ manner }: { readonly manner: PracticeManner }) => (
  <>
    <Button pressed={manner.hearFirst} onClick={() => setManner({ ...manner, hearFirst: !manner.hearFirst })}>
      Hear first
    </Button>
    <Button pressed={manner.breathe} onClick={() => setManner({ ...manner, breathe: !manner.breathe })}>
      A bar to breathe
    </Button>
  </>
)
