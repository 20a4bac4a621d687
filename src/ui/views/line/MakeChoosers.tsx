import { type ReactNode, useEffect, useState } from 'react'
import {
  APPROACH_NAMES,
  type ApproachName,
  COMPASSES,
  FIGURES,
  LINE_PATHS,
  type LinePath,
  ORDERS_OF_FOUR,
  ORDERS_OF_THREE,
  readFigure,
  toGlyphs,
  VALUE_NAMES,
  type ValueName,
} from '../../../core/index.ts'
import { ApproachPicture, FigurePicture, PathPicture, RhythmPicture } from '../../figures/MakePictures.tsx'
import { Select } from '../../parts/Select.tsx'
import { type Address, choose } from '../../state/address/address.ts'
import { MAKE_FROM, MAKE_STARTS, type MakeFrom, type MakePart } from '../../state/address/parts/make.ts'
import { figureHere } from '../../state/line/making.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './Make.module.css'

const FROM_WORDS: Readonly<Record<MakeFrom, string>> = {
  laid: 'what is laid over the chart',
  here: 'this overlay, over this chord',
  home: 'each chord’s home scale',
  chord: 'each chord’s own tones',
}
const PATH_WORDS: Readonly<Record<LinePath, string>> = {
  up: 'up, turning at the top',
  down: 'down, turning at the bottom',
  wave: 'up and down by four groups',
  nearest: 'on from the nearest note',
  free: 'whichever joins best',
}
const VALUE_WORDS: Readonly<Record<ValueName, string>> = {
  '1/4': 'quarters',
  '1/8': 'eighths',
  '1/16': 'sixteenths',
  '1/4t': 'quarter triplets',
  '1/8t': 'eighth triplets',
  '1/16t': 'sixteenth triplets',
  '1/4.': 'dotted quarters',
  '1/8.': 'dotted eighths',
}
const START_WORDS: Readonly<Record<(typeof MAKE_STARTS)[number], string>> = {
  '1': 'from beat one',
  '1.5': 'off the beat',
  '2': 'from beat two',
  '2.5': 'off beat two',
  '0.5': 'before the bar',
}
const LED: Readonly<Record<ApproachName, readonly number[]>> = {
  none: [],
  'half below': [-1],
  'half above': [1],
  'double below': [-2, -1],
  'double above': [2, 1],
  'scale above half below': [2, -1],
  'half below scale above': [-1, 2],
  'enclosure of four': [2, 1, -1],
}
const LANDINGS = [
  ['', 'stays open'],
  ['1', 'lands on the 1'],
  ['3', 'lands on the 3'],
  ['b3', 'lands on the ♭3'],
  ['5', 'lands on the 5'],
  ['9', 'lands on the 9'],
] as const

const known = new Map<string, string>([
  ...FIGURES.map(([name, words]) => [words, name] as const),
  ...[...ORDERS_OF_THREE, ...ORDERS_OF_FOUR].map((words) => [words, words] as const),
])
const FIGURE_OPTIONS = [
  ...FIGURES.map(([name, words]) => ({ value: words as string, label: name === words ? name : `${name}: ${words}` })),
  ...[...ORDERS_OF_THREE, ...ORDERS_OF_FOUR]
    .filter((words) => !FIGURES.some(([, own]) => own === words))
    .map((words) => ({ value: words, label: words })),
]

const change = (name: string, to: Partial<MakePart>): void => choose(name, { ...to, draft: 0, note: 0 }, name)

const Chooser = ({ picture, children }: { readonly picture: ReactNode; readonly children: ReactNode }) => (
  <div className={styles.chooser}>
    {picture}
    <div className={styles.fields}>{children}</div>
  </div>
)

/** A figure of the player's own, in the words figures are read in. */
const OwnFigure = ({ figure }: { readonly figure: string }) => {
  const [typed, setTyped] = useState(figure)
  useEffect(() => setTyped(figure), [figure])
  const read = readFigure(typed)
  return (
    <label className={styles.own}>
      <span>in places</span>
      <input
        aria-label="Figure in places"
        aria-invalid={!read.ok}
        value={typed}
        maxLength={120}
        spellCheck={false}
        onChange={(e) => {
          setTyped(e.target.value)
          if (readFigure(e.target.value).ok) change('the figure', { makeFigure: e.target.value.trim() })
        }}
      />
      {!read.ok && (
        <span role="alert" className={styles.wrong}>
          {read.error.found === ''
            ? 'Places such as 1 3 5.'
            : `“${read.error.found}” is no place: 1 3 5, 1 -1, step 2.`}
        </span>
      )}
    </label>
  )
}

/** Figure, path, rhythm and approach, each drawn; the drafts follow at once. */
export const MakeChoosers = ({ address, openChart }: { readonly address: Address; readonly openChart: OpenChart }) => {
  const figure = figureHere(address, openChart)
  const read = readFigure(figure)
  const options = known.has(figure) ? FIGURE_OPTIONS : [{ value: figure, label: figure }, ...FIGURE_OPTIONS]
  return (
    <div className={styles.choosers}>
      <Chooser picture={read.ok ? <FigurePicture figure={read.value} /> : null}>
        <Select
          label="Figure"
          value={figure}
          options={options}
          onPick={(makeFigure) => change('the figure', { makeFigure })}
        />
        <OwnFigure figure={figure} />
      </Chooser>
      <Chooser picture={<PathPicture path={address.makePath} />}>
        <Select
          label="Path"
          value={address.makePath}
          options={LINE_PATHS.map((value) => ({ value, label: PATH_WORDS[value] }))}
          onPick={(makePath) => change('the path', { makePath })}
        />
        <Select
          label="Made of"
          value={address.makeFrom}
          options={MAKE_FROM.map((value) => ({ value, label: FROM_WORDS[value] }))}
          onPick={(makeFrom) => change('what it is made of', { makeFrom })}
        />
        <Select
          label="Range"
          value={address.makeFor ?? ''}
          options={[{ value: '', label: 'of the clef' }, ...COMPASSES.map((c) => ({ value: c.id, label: c.name }))]}
          onPick={(id) => change('the range', { makeFor: id === '' ? null : id })}
        />
      </Chooser>
      <Chooser picture={<RhythmPicture value={address.makeValue} start={Number(address.makeStart)} />}>
        <Select
          label="Rhythm"
          value={address.makeValue}
          options={VALUE_NAMES.map((value) => ({ value, label: VALUE_WORDS[value] }))}
          onPick={(makeValue) => change('the rhythm', { makeValue })}
        />
        <Select
          label="Begins"
          value={address.makeStart}
          options={MAKE_STARTS.map((value) => ({ value, label: START_WORDS[value] }))}
          onPick={(makeStart) => change('where it begins', { makeStart })}
        />
      </Chooser>
      <Chooser picture={<ApproachPicture led={LED[address.makeApproach]} />}>
        <Select
          label="Approach"
          value={address.makeApproach}
          options={APPROACH_NAMES.map((value) => ({ value, label: value }))}
          onPick={(makeApproach) => change('the approach', { makeApproach })}
        />
        <Select
          label="Ending"
          value={address.makeLanding ?? ''}
          options={LANDINGS.map(([value, label]) => ({ value, label: toGlyphs(label) }))}
          onPick={(lands) => change('the ending', { makeLanding: lands === '' ? null : lands })}
        />
      </Chooser>
    </div>
  )
}
