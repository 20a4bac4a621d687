/** Empty squares that a camera needs all around. */
const QUIET = 4

/** Runs of dark squares as one path, one unit to a square, with the quiet zone around; `size` of its side. */
export const qrPath = ({
  size,
  data,
}: {
  readonly size: number
  readonly data: ArrayLike<number | boolean>
}): { readonly size: number; readonly path: string } => {
  const runs: string[] = []
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const from = x
      while (x < size && data[y * size + x]) x++
      if (x > from) runs.push(`M${from + QUIET} ${y + QUIET}h${x - from}v1H${from + QUIET}z`)
    }
  return { size: size + 2 * QUIET, path: runs.join('') }
}
