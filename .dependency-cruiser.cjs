/** Imports go down only: pages → shell → views → state → figures → parts → core; state → workers, sound, input → core; pages/api → server → core. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^src/', pathNot: allowed },
})

/** Folders in their order: each may look at itself and at those that stand before it in the list, as far as they are named. */
const downward = (root, layers, beside = []) => {
  const before = []
  return layers.flatMap(([folder, names]) => {
    const upward = names.find((n) => !before.includes(n))
    if (upward) throw new Error(`${folder} may not look up at ${upward}`)
    before.push(folder)
    const allowed = [folder, ...names].map((n) => `${root}/${n}(/|\\.ts$)`)
    return only(`${root.split('/').at(-1)}-${folder}-looks-down`, `^${root}/${folder}(/|\\.ts$)`, `^(${[...allowed, ...beside].join('|')})`)
  })
}

const CORE = [
  ['pitch', []],
  ['chord', ['pitch']],
  ['material', ['pitch', 'chord']],
  ['chart', ['pitch', 'chord', 'material']],
  ['transpose', ['pitch', 'chord', 'material', 'chart']],
  ['reading', ['pitch', 'chord', 'material', 'chart', 'transpose']],
  ['ask', ['pitch', 'chord', 'material', 'chart', 'transpose', 'reading']],
  ['symmetry', ['pitch', 'chord', 'material']],
  ['pairs', ['pitch', 'chord', 'material', 'transpose', 'reading']],
  ['fretboard', ['pitch']],
  ['time', ['pitch', 'chart', 'reading']],
  ['tune', ['pitch', 'chart', 'transpose', 'reading', 'time']],
  ['route', ['pitch', 'chord', 'material', 'chart', 'reading']],
  ['line', ['pitch', 'chord', 'material', 'chart', 'reading', 'time', 'tune']],
  ['band', ['pitch', 'chord', 'chart', 'reading', 'time']],
  ['make', ['pitch', 'chord', 'material', 'chart', 'transpose', 'reading', 'time', 'line']],
  ['take', ['pitch', 'chord', 'material', 'chart', 'reading', 'time', 'tune', 'line', 'band', 'make']],
  ['practice', ['pitch', 'chord', 'material', 'chart', 'transpose', 'reading', 'symmetry', 'time', 'tune', 'line', 'band', 'make']],
  ['testing', ['pitch', 'chord', 'material', 'chart', 'reading', 'time', 'tune', 'route', 'line', 'make']],
]
const CORE_GROUND = ['src/core/(bounds|grouped|result)\\.ts$']

const GROUND = ['page', 'address', 'kept', 'tune']
const OF_VIEWS = ['charts', 'desk', 'pairs', 'route', 'line', 'practice', 'takes']
const STATE = [
  ['page', []],
  ['address', ['page']],
  ['kept', ['page', 'address']],
  ['tune', ['page', 'address', 'kept']],
  ...OF_VIEWS.map((view) => [view, GROUND]),
  ['sound', [...GROUND, ...OF_VIEWS]],
  ['shell', [...GROUND, ...OF_VIEWS, 'sound']],
  ['testing', GROUND],
]

module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    { name: 'core-takes-nothing-from-outside', severity: 'error', from: { path: '^src/core/', pathNot: '\\.test\\.ts$' }, to: { pathNot: '^src/core/' } },
    { name: 'core-has-one-door', severity: 'error', from: { path: '^src/', pathNot: '^src/core/' }, to: { path: '^src/core/', pathNot: '^src/core/index\\.ts$' } },
    { name: 'testing-is-for-tests', severity: 'error', from: { path: '^src/', pathNot: '\\.test\\.tsx?$|/testing/' }, to: { path: '/testing/' } },
    ...downward('src/core', CORE, CORE_GROUND),
    ...downward('src/ui/state', STATE, ['src/core/', 'src/ui/figures/', 'src/(workers|sound|input)/']),
    only('parts-stand-alone', '^src/ui/parts/', '^src/ui/parts/'),
    only('figures-look-down', '^src/ui/figures/', '^src/(ui/(figures|parts)|core)/'),
    only('workers-look-down', '^src/workers/', '^src/(workers|core)/'),
    only('sound-looks-down', '^src/sound/', '^src/(sound|core)/'),
    only('input-looks-down', '^src/input/', '^src/(input|core)/'),
    only('views-look-down', '^src/ui/views/', '^src/(ui/(views|state|figures|parts)|workers|sound|core)/'),
    only('shell-looks-down', '^src/ui/shell/', '^src/(ui|workers|sound|core)/'),
    only('memory-stands-on-core', '^src/memory/', '^src/(memory|core)/'),
    only('formats-look-down', '^src/formats/', '^src/(formats|core)/'),
    only('server-looks-down', '^src/server/', '^src/(server|formats|memory|core)/'),
    { name: 'views-do-not-know-each-other', severity: 'error', from: { path: '^src/ui/views/([^/]+)/' }, to: { path: '^src/ui/views/[^/]+/', pathNot: '^src/ui/views/($1|overlay)/' } },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js'] },
  },
}
