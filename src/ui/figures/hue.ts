import styles from './ramp.module.css'
import { rampStep } from './ramp.ts'

const STEPS = [styles.r0, styles.r1, styles.r2, styles.r3, styles.r4, styles.r5, styles.r6]

/** The class that sets `--hue` for a fade. */
export const hueClass = (fade: number): string => STEPS[rampStep(fade)] ?? ''
