import { type PitchClass, pitchClass } from '../../core/index.ts'

/** One key of the keyboard picture, in px. */
export interface Key {
  readonly pitch: number
  readonly pc: PitchClass
  readonly black: boolean
  readonly x: number
  readonly w: number
  readonly h: number
}

const WHITE = [0, 2, 4, 5, 7, 9, 11]
/** How deep black keys reach, and how wide they are beside a white one. */
const BLACK = { deep: 0.62, wide: 0.66 }

/** Keys from a C upward, so many octaves and the C on top; white keys come first, so that black ones lie over them. */
export const layoutKeyboard = (low: number, octaves: number, width: number, height: number): readonly Key[] => {
  const whiteWidth = width / (octaves * 7 + 1)
  const blackWidth = whiteWidth * BLACK.wide
  const keys = Array.from({ length: octaves * 12 + 1 }, (_, i): Key => {
    const pc = pitchClass(i)
    const before = Math.floor(i / 12) * 7 + WHITE.filter((p) => p < pc).length
    const black = !WHITE.includes(pc)
    return {
      pitch: low + i,
      pc: pitchClass(low + i),
      black,
      x: black ? before * whiteWidth - blackWidth / 2 : before * whiteWidth,
      w: black ? blackWidth : whiteWidth,
      h: black ? height * BLACK.deep : height,
    }
  })
  return [...keys.filter((k) => !k.black), ...keys.filter((k) => k.black)]
}
