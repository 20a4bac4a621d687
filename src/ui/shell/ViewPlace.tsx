import { useStore } from '@nanostores/react'
import { Component, type ReactNode, useEffect } from 'react'
import { Button } from '../parts/Button.tsx'
import { deskAt } from '../stores/desk.ts'
import { bootIn, type Handed, startSession, useKept, usePlace } from '../stores/session.ts'
import { useLive } from './live.ts'
import styles from './ViewPlace.module.css'
import { $viewsLoaded, loadView, viewIfLoaded } from './views.ts'

/** A view that fails says so and offers to start over; the shell, the sound and what was kept go on. */
class Guard extends Component<{ readonly children: ReactNode }, { readonly failed: boolean }> {
  override state = { failed: false }
  static getDerivedStateFromError() {
    return { failed: true }
  }
  override render() {
    if (!this.state.failed) return this.props.children
    return (
      <div className={styles.failed} role="alert">
        <h1>This view failed</h1>
        <p>Nothing that was kept is lost.</p>
        <Button onClick={() => this.setState({ failed: false })}>Try again</Button>
      </div>
    )
  }
}

export const ViewPlace = ({ boot: given }: { readonly boot: Handed }) => {
  const boot = bootIn(given)
  startSession(boot)
  useLive()
  const place = usePlace(boot)
  const kept = useKept(boot)
  const View = viewIfLoaded(place.view)
  useStore($viewsLoaded)
  useEffect(() => {
    void loadView(place.view)
  }, [place.view])
  return (
    <main className={styles.main}>
      <Guard key={place.view}>
        {View ? (
          <View place={place} kept={kept} desk={deskAt(place, kept)} />
        ) : (
          <p className={styles.loading} role="status">
            One moment …
          </p>
        )}
      </Guard>
    </main>
  )
}
