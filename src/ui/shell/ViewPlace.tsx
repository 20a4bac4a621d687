import { Component, lazy, type ReactNode, Suspense } from 'react'
import { Button } from '../parts/Button.tsx'
import { deskAt } from '../stores/desk.ts'
import type { ViewId } from '../stores/place.ts'
import { type Boot, startSession, useKept, usePlace } from '../stores/session.ts'
import type { ViewProps } from '../views/view.ts'
import styles from './ViewPlace.module.css'

const VIEW_OF = {
  desk: lazy(() => import('../views/desk/DeskView.tsx')),
  setup: lazy(() => import('../views/setup/SetupView.tsx')),
} as const satisfies Record<ViewId, React.LazyExoticComponent<(props: ViewProps) => ReactNode>>

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

export const ViewPlace = ({ boot }: { readonly boot: Boot }) => {
  startSession(boot)
  const place = usePlace(boot)
  const kept = useKept(boot)
  const View = VIEW_OF[place.view]
  return (
    <main className={styles.main}>
      <Guard key={place.view}>
        <Suspense
          fallback={
            <p className={styles.loading} role="status">
              One moment …
            </p>
          }
        >
          <View place={place} kept={kept} desk={deskAt(place, kept)} />
        </Suspense>
      </Guard>
    </main>
  )
}
