import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js'

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale)

interface Point {
  readonly x: number
  readonly y: number
}

/** Draws the fade of a line in steps, and (broken) what was planned; x in beats, y 0..100. Gives what takes it away. */
export const drawFade = (
  canvas: HTMLCanvasElement,
  played: readonly Point[],
  planned: readonly Point[],
  beatsInBar: number,
): (() => void) => {
  const style = getComputedStyle(canvas)
  const colour = (name: string): string => style.getPropertyValue(name).trim()
  Chart.defaults.font.family = style.fontFamily
  Chart.defaults.font.size = 13
  Chart.defaults.color = colour('--soft')
  const grid = { color: colour('--faint') }
  const [from, to] = [played[0]?.x ?? 0, played.at(-1)?.x ?? 1]
  const chart = new Chart(canvas, {
    type: 'line',
    data: {
      datasets: [
        { data: [...played], stepped: 'after', borderColor: colour('--ink'), borderWidth: 2.5, pointRadius: 0 },
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
          min: Math.floor(from / beatsInBar) * beatsInBar,
          max: Math.ceil((to + 0.01) / beatsInBar) * beatsInBar,
          ticks: { stepSize: beatsInBar, callback: (v) => `${Math.floor(Number(v) / beatsInBar) + 1}` },
          grid,
        },
        y: { min: 0, max: 100, ticks: { stepSize: 25 }, grid, title: { display: true, text: 'how far out' } },
      },
    },
  })
  return () => chart.destroy()
}
