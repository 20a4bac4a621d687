import { type Reading, roughnessOver, toGlyphs, type Weights, whyOf } from '../../../core/index.ts'
import panels from './panels.module.css'

const rounded = (n: number): string => String(Math.round(n * 10) / 10)

/** Every figure on the screen as the sum it is, and a second opinion from acoustics. */
export const WhyPanel = ({ reading, weights }: { readonly reading: Reading; readonly weights: Weights }) => {
  const why = whyOf(reading, weights)
  const rough = roughnessOver(reading.place.chord)
  const fades = why.notes.map((n) => n.note.fade)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must be reached by keyboard
    <section className={panels.panel} aria-label="Why this number" tabIndex={0}>
      <table className={panels.table}>
        <thead>
          <tr>
            <th scope="col">Note</th>
            <th scope="col">What it is</th>
            <th scope="col" className={panels.right}>
              Fade
            </th>
            <th scope="col">Best way out</th>
            <th scope="col" className={panels.right}>
              Worth
            </th>
            <th scope="col" className={panels.right}>
              Rough
            </th>
          </tr>
        </thead>
        <tbody>
          {why.notes.map(({ note: n, terms, exit, counts }) => (
            <tr key={n.note.name}>
              <th scope="row">
                {toGlyphs(n.note.name)} {toGlyphs(n.degree)}
              </th>
              <td>
                {toGlyphs(
                  terms
                    .map(
                      (t, i) => `${t.words} ${i === 0 ? t.amount : t.amount < 0 ? `− ${-t.amount}` : `+ ${t.amount}`}`,
                    )
                    .join(', '),
                )}
              </td>
              <td className={panels.right}>{n.fade}</td>
              <td>
                {n.exits[0] ? toGlyphs(`${n.exits[0].how} to ${n.exits[0].to.name}, the ${n.exits[0].degree}`) : '–'}
              </td>
              <td className={panels.right}>{why.landing ? `${exit}${counts > 1 ? ` × ${counts}` : ''}` : '–'}</td>
              <td className={panels.right}>{Math.round(rough[n.note.pc] ?? 0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={panels.sum}>
        <strong>Fade {reading.fade}</strong> = {why.meanShare} % of the mean ({fades.join(' + ')}) ÷ {fades.length} ={' '}
        {rounded(why.mean)}, and {100 - why.meanShare} % of the worst, {why.worst}:{' '}
        {rounded((why.meanShare * why.mean) / 100)} + {rounded(((100 - why.meanShare) * why.worst) / 100)}.
      </p>
      <p className={panels.sum}>
        {why.landing ? (
          <>
            <strong>Landing {reading.landing}</strong> = {why.landing.sum} ÷ {why.landing.counts}: the worth of every
            best way out; altered, suspended and outside notes count twice.
          </>
        ) : (
          'No landing: no next chord.'
        )}
      </p>
      <p className={panels.sum}>
        <span className={panels.soft}>
          Rough: how much the note beats against the chord as it is voiced for listening, 0 to 100. It is a second
          opinion from acoustics and is in no other figure.
        </span>
      </p>
    </section>
  )
}
