/** A chain up to some step: what it costs so far, and the chain it goes on from. */
export interface Chain {
  readonly cost: number
  readonly from: Chain | null
  /** Its last step's place among that step's candidates. */
  readonly at: number
  /** The last colour device, -1 for none yet. */
  readonly device: number
  /** All its colour devices in order, as one number. */
  readonly series: number
  /** Over how many different chords in a row it has its last overlay: 1, or 2 for more. */
  readonly run: number
}

/** Devices in one planning are fewer: formulas times twelve degrees. */
export const MOST_DEVICES = 1 << 15
const counts = new Uint16Array(MOST_DEVICES)

/**
 * The chains worth keeping at one candidate, cheapest first. Another device can only be charged for one last device, so a
 * chain is needless as soon as `best` no dearer ones remain whichever device is charged: at most `2 * best` are kept, and
 * none of the best whole chains is lost. With `eachSeries` only the cheapest chain of each series of devices counts.
 */
export class Shortlist {
  readonly chains: Chain[] = []
  /** What a further chain must cost less than. */
  limit: number

  /** `oneDevice` where all chains here end in the same device, so that the cheapest need no company. */
  constructor(
    private readonly best: number,
    private readonly eachSeries: boolean,
    private readonly oneDevice: boolean,
    bound: number,
  ) {
    this.limit = bound
  }

  add(chain: Chain): void {
    const { chains } = this
    if (this.eachSeries && !this.makesRoom(chain)) return
    let at = chains.length
    while (at > 0 && (chains[at - 1] as Chain).cost > chain.cost) at--
    chains.splice(at, 0, chain)
    if (chains.length >= this.best) this.trim()
  }

  /** Whether no cheaper chain of its series is kept; a dearer one goes. */
  private makesRoom({ series, cost }: Chain): boolean {
    const same = this.chains.findIndex((c) => c.series === series)
    if (same < 0) return true
    if ((this.chains[same] as Chain).cost <= cost) return false
    this.chains.splice(same, 1)
    return true
  }

  private trim(): void {
    const { chains, best } = this
    if (this.oneDevice) {
      chains.length = best
      this.limit = Math.min(this.limit, (chains[best - 1] as Chain).cost)
      return
    }
    let [kept, most] = [0, 0]
    for (const chain of chains) {
      if (kept - most >= best) break
      if (chain.device >= 0) {
        const of = (counts[chain.device] as number) + 1
        if (of > best) continue
        counts[chain.device] = of
        if (of > most) most = of
      }
      chains[kept++] = chain
    }
    const full = kept - most >= best
    for (const chain of chains) if (chain.device >= 0) counts[chain.device] = 0
    chains.length = kept
    if (full) this.limit = Math.min(this.limit, (chains[kept - 1] as Chain).cost)
  }
}
