// npm test: everything, from a fresh clone. Ends with "N passed, N failed" alone on a line.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureChromium, ensurePostgres } from './debian.mjs'
import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs'

const REPORTS = join(ROOT, 'test-results')
const UNIT = join(REPORTS, 'unit.json')
const BROWSER = join(REPORTS, 'browser.json')
const bin = (name) => join(ROOT, 'node_modules/.bin', name)

/** Each check counts as one test: it passes or it fails. */
const CHECKS = [
  ['types of the core', bin('tsc'), ['-p', 'src/core']],
  ['types', bin('astro'), ['check', '--minimumFailingSeverity', 'error']],
  ['lint and format', bin('biome'), ['ci', '.']],
  ['format of pages', bin('prettier'), ['--check', 'src/pages/**/*.astro']],
  ['imports go down only', bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']],
  ['nothing unused', bin('knip'), []],
]

const ran = (command, args, env = {}) =>
  spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } }).status === 0

const readReport = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null)

const unitCounts = () => {
  const report = readReport(UNIT)
  return report ? { passed: report.numPassedTests, failed: report.numFailedTests } : { passed: 0, failed: 1 }
}
const browserCounts = () => {
  const stats = readReport(BROWSER)?.stats
  return stats
    ? { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped }
    : { passed: 0, failed: 1 }
}

await ensureInstalled()
ensureChromium()
ensurePostgres()
rmSync(REPORTS, { recursive: true, force: true })
mkdirSync(REPORTS, { recursive: true })

let passed = 0
let failed = 0
const count = (counts, went) => {
  passed += counts.passed
  failed += counts.failed || (went ? 0 : 1)
}
for (const [name, command, args] of CHECKS) {
  console.log(`— ${name}`)
  const went = ran(command, args)
  count({ passed: went ? 1 : 0, failed: 0 }, went)
}
console.log('— unit tests')
const unitWent = ran(bin('vitest'), ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${UNIT}`])
count(unitCounts(), unitWent)
console.log('— browser tests')
await ensureBuilt()
const browserWent = ran(bin('playwright'), ['test', '--reporter=list,json'], { PLAYWRIGHT_JSON_OUTPUT_FILE: BROWSER })
count(browserCounts(), browserWent)

// What stood on the page where a browser test failed: who reads this log has nothing else of it.
for (const file of readdirSync(REPORTS, { recursive: true }).filter((name) => name.endsWith('error-context.md')))
  console.log(readFileSync(join(REPORTS, file), 'utf8').split('# Test source')[0])
console.log(`${passed} passed, ${failed} failed`)
process.exitCode = failed === 0 ? 0 : 1
