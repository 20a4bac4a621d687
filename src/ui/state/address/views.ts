/** The views there are: address, label, and the letter after `g`; those without a letter are reached another way. */
export const VIEWS = [
  { id: 'desk', path: '/desk', label: 'Desk', letter: 'd' },
  { id: 'charts', path: '/charts', label: 'Charts', letter: 'c' },
  { id: 'pairs', path: '/pairs', label: 'Pairs', letter: 'p' },
  { id: 'symmetry', path: '/symmetry', label: 'Symmetry', letter: 'y' },
  { id: 'route', path: '/route', label: 'Route', letter: 'r' },
  { id: 'line', path: '/line', label: 'Line', letter: 'l' },
  { id: 'practice', path: '/practice', label: 'Practice', letter: 't' },
  { id: 'log', path: '/log', label: 'Log', letter: 'o' },
  { id: 'setup', path: '/set-up', label: 'Set-up', letter: 's' },
  { id: 'stand', path: '/stand', label: 'Stand', letter: null },
  { id: 'player', path: '/player', label: 'Player', letter: null },
] as const
export type ViewId = (typeof VIEWS)[number]['id']
