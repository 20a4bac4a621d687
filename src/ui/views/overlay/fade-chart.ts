import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js'

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale)

interface Point {
  readonly x: number
  readonly y: number
}

/** Draws the fade of a line in steps, and (broken) what was planned; x in beats, y 0..100; bars by the beat they begin on. Gives what takes it away. */
export const drawFade = (
  canvas: HTMLCanvasElement,
  played: readonly Point[],
  planned: readonly Point[],
  bars: readonly { readonly number: number; readonly at: number }[],
): (() => void) => {
  const colour = (name: string): string => {
    canvas.style.color = `var(${name})`
    return getComputedStyle(canvas).color
  }
  Chart.defaults.font.family = getComputedStyle(canvas).fontFamily
  Chart.defaults.font.size = 13
  Chart.defaults.color = colour('--soft')
  const grid = { color: colour('--faint') }
  const chart = new Chart(canvas, {
    type: 'line',
    data: {
      datasets: [
        { data: [...played], stepped: 'before', borderColor: colour('--ink'), borderWidth: 2.5, pointRadius: 0 },
        {
          data: [...planned],
          stepped: 'before',
          borderColor: colour('--soft'),
          borderWidth: 2,
          borderDash: [6, 5],
          pointRadius: 0,
        },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      scales: {
        x: {
          type: 'linear',
          min: bars[0]?.at ?? 0,
          max: bars.at(-1)?.at ?? 1,
          afterBuildTicks: (axis) => {
            axis.ticks = bars.map(({ at }) => ({ value: at }))
          },
          ticks: { callback: (value) => String(bars.find((b) => b.at === value)?.number ?? '') },
          grid,
        },
        y: { min: 0, max: 100, ticks: { stepSize: 25 }, grid, title: { display: false } },
      },
    },
  })
  return () => chart.destroy()
}
