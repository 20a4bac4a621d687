/** The listeners through which other machines come, held by the process that serves. */
interface Outside {
  /** Opens or shuts them and gives the addresses at which they are found, the likeliest first. */
  readonly show: (open: boolean) => Promise<readonly string[]>
}

const NONE: Outside = { show: async () => [] }

export const doorsOutside = (): Outside =>
  (globalThis as { [key: symbol]: Outside | undefined })[Symbol.for('crossfade.outside')] ?? NONE
