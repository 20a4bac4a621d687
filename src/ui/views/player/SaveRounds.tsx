import { useStore } from '@nanostores/react'
import { Button } from '../../parts/Button.tsx'
import { FIRST } from '../../state/page/first.ts'
import { $roundsSaved, cancelRounds, saveRounds } from '../../state/sound/saving.ts'

/** All keys once round as a sound file, to be taken along; it can be stopped. */
export const SaveRounds = ({ name }: { readonly name: string }) => {
  const share = useStore($roundsSaved, FIRST)
  if (share === null) return <Button onClick={() => void saveRounds(name)}>WAV</Button>
  return (
    <>
      <progress value={share} max={1} aria-label="Making the sound file" />
      <Button onClick={cancelRounds}>Stop making it</Button>
    </>
  )
}
