/** The step of the in → out ramp a fade stands on, 0..6. Hue means fade and nothing else. */
const FROM = [1, 25, 45, 60, 75, 90]
export const rampStep = (fade: number): number => FROM.filter((least) => fade >= least).length
