import { useStore } from '@nanostores/react'
import { Component, type ReactNode, useEffect } from 'react'
import { Button } from '../parts/Button.tsx'
import { bootIn, type Handed, startSession, useSession } from '../state/shell/session.ts'
import { useLive } from './live.ts'
import styles from './ViewPlace.module.css'
import { $viewsFailed, $viewsLoaded, loadView, viewIfLoaded } from './views.ts'

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
  const { address, kept, openChart } = useSession(boot)
  const View = viewIfLoaded(address.view)
  useStore($viewsLoaded)
  const failed = useStore($viewsFailed).includes(address.view)
  useEffect(() => {
    void loadView(address.view)
  }, [address.view])
  return (
    <main className={styles.main}>
      <Guard key={address.view}>
        {View ? (
          <View address={address} kept={kept} openChart={openChart} />
        ) : failed ? (
          <div className={styles.failed} role="alert">
            <h1>This view could not be loaded</h1>
            <p>The program is not answering. Nothing that was kept is lost.</p>
            {/* A browser may remember that a script failed: only a new page asks for it again. */}
            <Button onClick={() => location.reload()}>Try again</Button>
          </div>
        ) : (
          <p className={styles.loading} role="status">
            One moment …
          </p>
        )}
      </Guard>
    </main>
  )
}
