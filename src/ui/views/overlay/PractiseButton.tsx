import { Button } from '../../parts/Button.tsx'
import { practiseHere } from '../../state/shell/hands.ts'

/** Makes a practice item of what is in view, and puts it on the player. */
export const PractiseButton = () => (
  <Button title="p: in all keys" onClick={() => void practiseHere()}>
    Practise
  </Button>
)
