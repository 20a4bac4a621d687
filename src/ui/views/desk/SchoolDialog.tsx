import { useStore } from '@nanostores/react'
import { useMemo } from 'react'
import {
  changesSentence,
  homeName,
  type Reading,
  SCHOOL_CHOICES,
  type SchoolSetting,
  schoolEffects,
  toGlyphs,
  type Weights,
} from '../../../core/index.ts'
import { Dialog } from '../../parts/Dialog.tsx'
import { chooseSchool } from '../../state/desk/judging.ts'
import { $schoolOpen, closeSchool } from '../../state/page/dialogs.ts'
import panels from './panels.module.css'

const Effects = ({ reading, weights }: { readonly reading: Reading; readonly weights: Weights }) => {
  const effects = useMemo(() => schoolEffects(reading, weights), [reading, weights])
  const matters = (s: SchoolSetting) => effects.some((e) => e.setting === s && (e.changes.length > 0 || e.homeChanges))
  const settings = (Object.keys(SCHOOL_CHOICES) as SchoolSetting[]).sort(
    (a, b) => Number(matters(b)) - Number(matters(a)),
  )
  return (
    <div className={panels.effects}>
      <p>
        Where good players disagree. Beside each choice stands what it would change in {toGlyphs(reading.overlay.name)}{' '}
        over {toGlyphs(reading.place.chord.symbol)}, here.
      </p>
      {settings.map((setting) => (
        <fieldset key={setting}>
          <legend>{SCHOOL_CHOICES[setting].title}</legend>
          <p className={panels.soft}>{SCHOOL_CHOICES[setting].why}</p>
          {effects
            .filter((e) => e.setting === setting)
            .map((e) => (
              <label key={e.choice} className={panels.choice}>
                <input
                  type="radio"
                  name={setting}
                  checked={e.chosen}
                  onChange={() => void chooseSchool(setting, e.choice)}
                />
                <strong>{e.choice}</strong>
                <span className={panels.soft}>
                  {e.chosen
                    ? 'as it is now'
                    : toGlyphs(
                        `${e.homeChanges ? `Home becomes ${homeName(e.after.place.home.first)}. ` : ''}${changesSentence(reading, e.after)}`,
                      )}
                </span>
              </label>
            ))}
        </fieldset>
      ))}
    </div>
  )
}

/** The school, switched on the spot. */
export const SchoolDialog = ({ reading, weights }: { readonly reading: Reading; readonly weights: Weights }) => {
  const open = useStore($schoolOpen)
  return (
    <Dialog title="School" open={open} onClose={closeSchool}>
      <Effects reading={reading} weights={weights} />
    </Dialog>
  )
}
