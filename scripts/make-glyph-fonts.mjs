// Cuts the few glyphs that no text font has out of two larger fonts. Run by hand when the list changes; the results are
// kept in src/styles/fonts/. Both sources are free licences (Bitstream Vera / DejaVu, SIL OFL).
import { readFileSync, writeFileSync } from 'node:fs'
import subsetFont from 'subset-font'

const CUTS = [
  ['node_modules/@fontsource/dejavu-sans/files/dejavu-sans-latin-400-normal.woff2', '♭♮♯△Δ↑↓→←', 'signs.woff2'],
  ['node_modules/@fontsource/noto-music/files/noto-music-music-400-normal.woff2', '𝄪𝄫', 'double-accidentals.woff2'],
]

for (const [source, glyphs, target] of CUTS) {
  const cut = await subsetFont(readFileSync(source), glyphs, { targetFormat: 'woff2' })
  writeFileSync(`src/styles/fonts/${target}`, cut)
  console.log(`${target}: ${cut.length} bytes`)
}
