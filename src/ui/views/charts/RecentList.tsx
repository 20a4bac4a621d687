import { useStore } from '@nanostores/react'
import { X } from 'lucide-react'
import { toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { AT_START, go } from '../../state/address/address.ts'
import { openFromLibrary } from '../../state/charts/library.ts'
import { $recent, removeSketch } from '../../state/charts/recent.ts'
import { FIRST } from '../../state/page/first.ts'
import styles from './Library.module.css'

const MOST_SIGNS = 34
/** A sketch by how it begins. */
const nameOf = (text: string): string => {
  const words = text
    .split('\n')
    .filter((line) => !line.includes('='))
    .join(' ')
    .replace(/[|:\s]+/g, ' ')
    .trim()
  return toGlyphs(words.length > MOST_SIGNS ? `${words.slice(0, MOST_SIGNS)} …` : words)
}

/** The charts that were opened last, and the sketches that were typed, until they are removed. */
export const RecentList = ({ open }: { readonly open: string | undefined }) => {
  const { charts, sketches } = useStore($recent, FIRST)
  const others = charts.filter((c) => c.id !== open)
  if (others.length === 0 && sketches.length === 0) return null
  return (
    <nav className={styles.opened} aria-label="Recent">
      {others.map((c) => (
        <Button key={c.id} tone="quiet" onClick={() => openFromLibrary(c.id)}>
          {c.title}
        </Button>
      ))}
      {sketches.map((text) => (
        <span key={text} className={styles.sketch}>
          <Button tone="quiet" onClick={() => go({ sketch: text, ...AT_START })}>
            {nameOf(text)}
          </Button>
          <Button
            tone="quiet"
            aria-label={`Remove the sketch ${nameOf(text)}`}
            title="Remove this sketch"
            onClick={() => removeSketch(text)}
          >
            <X size={16} aria-hidden="true" />
          </Button>
        </span>
      ))}
    </nav>
  )
}
