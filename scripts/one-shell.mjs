// For Vite: what every page loads, whatever it shows, is one file. It is sent smaller so, and asked for once.

const ISLANDS = /\/src\/ui\/shell\/(TopBar|StripPlace|ViewPlace|FootRail)\.tsx$/

/** It waits for the first view while it is loaded, and views load the shell. */
const APART = /\/src\/ui\/shell\/(ViewPlace\.tsx|views\.ts)$/

/** All that the islands load before anything is asked of them. */
const loadedAtOnce = ({ getModuleIds, getModuleInfo }) => {
  const found = new Set([...getModuleIds()].filter((id) => ISLANDS.test(id)))
  for (const id of found) for (const imported of getModuleInfo(id)?.importedIds ?? []) found.add(imported)
  return found
}

/** @returns {import('vite').Plugin} */
export const oneShell = () => {
  let shell = null
  const manualChunks = (id, graph) => {
    shell ??= loadedAtOnce(graph)
    return shell.has(id) && !APART.test(id) ? 'shell' : undefined
  }
  return {
    name: 'crossfade-one-shell',
    config: (_, { isSsrBuild }) => (isSsrBuild ? {} : { build: { rollupOptions: { output: { manualChunks } } } }),
  }
}
