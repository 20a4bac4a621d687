import { atom } from 'nanostores'
import type { ComponentType } from 'react'
import { readAddress } from '../state/address/address.ts'
import type { ViewId } from '../state/address/views.ts'
import type { ViewProps } from '../views/view.ts'

type View = ComponentType<ViewProps>

const LOADERS: Readonly<Record<ViewId, () => Promise<{ readonly default: View }>>> = {
  desk: () => import('../views/desk/DeskView.tsx'),
  charts: () => import('../views/charts/ChartsView.tsx'),
  pairs: () => import('../views/pairs/PairsView.tsx'),
  symmetry: () => import('../views/symmetry/SymmetryView.tsx'),
  route: () => import('../views/route/RouteView.tsx'),
  line: () => import('../views/line/LineView.tsx'),
  practice: () => import('../views/practice/PracticeView.tsx'),
  log: () => import('../views/log/LogView.tsx'),
  player: () => import('../views/player/PlayerView.tsx'),
  stand: () => import('../views/stand/StandView.tsx'),
  setup: () => import('../views/setup/SetupView.tsx'),
}

const loaded = new Map<ViewId, View>()

/** Counts the views that have come, so that the place can show one that was waited for. */
export const $viewsLoaded = atom(0)

export const viewIfLoaded = (id: ViewId): View | undefined => loaded.get(id)

/** Views whose script did not load. */
export const $viewsFailed = atom<readonly ViewId[]>([])

export const loadView = async (id: ViewId): Promise<void> => {
  if (loaded.has(id)) return
  $viewsFailed.set($viewsFailed.get().filter((v) => v !== id))
  try {
    loaded.set(id, (await LOADERS[id]()).default)
    $viewsLoaded.set(loaded.size)
  } catch (error) {
    if (typeof window === 'undefined') throw error
    $viewsFailed.set([...$viewsFailed.get(), id])
  }
}

// The first view is there before the page hydrates: one that suspended would be streamed with inline scripts, which the
// CSP refuses. The server loads it from the page; the browser here.
if (typeof location !== 'undefined') {
  const asked = readAddress(location.pathname, new URLSearchParams(location.search))
  if (asked) await loadView(asked.view)
}
