import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
} from 'chart.js'

Chart.register(BarController, BarElement, LineController, LineElement, PointElement, LinearScale, CategoryScale)

export interface Course {
  readonly labels: readonly string[]
  readonly bars?: readonly number[]
  /** Null where there is nothing to say. */
  readonly line?: readonly (number | null)[]
  /** Points that were not clean stand open. */
  readonly open?: readonly boolean[]
  readonly most?: number
}

/** Draws a course in ink, bars or a line; gives what takes it away. */
export const drawCourse = (canvas: HTMLCanvasElement, { labels, bars, line, open, most }: Course): (() => void) => {
  const colour = (name: string): string => {
    canvas.style.color = `var(${name})`
    return getComputedStyle(canvas).color
  }
  Chart.defaults.font.family = getComputedStyle(canvas).fontFamily
  Chart.defaults.font.size = 13
  Chart.defaults.color = colour('--soft')
  const [ink, ground, faint] = [colour('--ink'), colour('--panel'), colour('--faint')]
  const chart = new Chart(canvas, {
    data: {
      labels: [...labels],
      datasets: [
        ...(bars ? [{ type: 'bar' as const, data: [...bars], backgroundColor: ink }] : []),
        ...(line
          ? [
              {
                type: 'line' as const,
                data: [...line],
                borderColor: ink,
                borderWidth: 2.5,
                pointRadius: 5,
                pointBorderWidth: 2,
                pointBackgroundColor: line.map((_, i) => (open?.[i] ? ground : ink)),
                spanGaps: true,
              },
            ]
          : []),
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      scales: {
        x: { grid: { display: false }, ticks: { maxRotation: 0, autoSkipPadding: 12 } },
        y: { beginAtZero: true, grid: { color: faint }, ...(most === undefined ? {} : { max: most }) },
      },
    },
  })
  return () => chart.destroy()
}
