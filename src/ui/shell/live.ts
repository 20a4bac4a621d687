import { useEffect } from 'react'

let live = 0

/** Marks the page ready once every island of the shell answers; until then a press could meet an island still asleep. */
export const useLive = (): void =>
  useEffect(() => {
    live += 1
    if (live === document.querySelectorAll('astro-island').length) document.documentElement.dataset.ready = 'yes'
  }, [])
