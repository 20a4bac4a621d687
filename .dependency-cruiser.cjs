/** Imports go down only: pages → shell → views → stores → figures → parts → core; stores → workers, sound → core; pages/api → server → core. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^src/', pathNot: allowed },
})

module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    { name: 'core-takes-nothing-from-outside', severity: 'error', from: { path: '^src/core/', pathNot: '\\.test\\.ts$' }, to: { pathNot: '^src/core/' } },
    { name: 'core-has-one-door', severity: 'error', from: { path: '^src/', pathNot: '^src/core/' }, to: { path: '^src/core/', pathNot: '^src/core/index\\.ts$' } },
    only('parts-stand-alone', '^src/ui/parts/', '^src/ui/parts/'),
    only('figures-look-down', '^src/ui/figures/', '^src/(ui/(figures|parts)|core)/'),
    only('workers-look-down', '^src/workers/', '^src/(workers|core)/'),
    only('sound-looks-down', '^src/sound/', '^src/(sound|core)/'),
    only('input-looks-down', '^src/input/', '^src/(input|core)/'),
    only('stores-look-down', '^src/ui/stores/', '^src/(ui/(stores|figures)|workers|sound|input|core)/'),
    only('views-look-down', '^src/ui/views/', '^src/(ui/(views|stores|figures|parts)|workers|sound|core)/'),
    only('shell-looks-down', '^src/ui/shell/', '^src/(ui|workers|sound|core)/'),
    only('formats-look-down', '^src/formats/', '^src/(formats|core)/'),
    only('server-looks-down', '^src/server/', '^src/(server|formats|core)/'),
    { name: 'views-do-not-know-each-other', severity: 'error', from: { path: '^src/ui/views/([^/]+)/' }, to: { path: '^src/ui/views/[^/]+/', pathNot: '^src/ui/views/($1|overlay)/' } },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js'] },
  },
}
