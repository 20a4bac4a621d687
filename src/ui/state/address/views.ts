/** The views there are: address, label, and the letter after `g`; those without a letter are reached another way. */
export const VIEWS = [
  { id: 'desk', path: '/desk', label: 'Desk', letter: 'd' },
  { id: 'charts', path: '/charts', label: 'Charts', letter: 'c' },
  { id: 'pairs', path: '/pairs', label: 'Pairs', letter: 'p' },
  { id: 'symmetry', path: '/symmetry', label: 'Symmetry', letter: 'y' },
  { id: 'route', path: '/route', label: 'Route', letter: 'r' },
  { id: 'line', path: '/line', label: 'Line', letter: 'l' },
  { id: 'setup', path: '/set-up', label: 'Set-up', letter: 's' },
  { id: 'stand', path: '/stand', label: 'Stand', letter: null },
] as const
export type ViewId = (typeof VIEWS)[number]['id']
