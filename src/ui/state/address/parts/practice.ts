import { QUIZ_KIND_NAMES, QUIZ_TOPIC_NAMES } from '../../../../core/index.ts'
import { choice, partOf, text, type ValueOf, whole } from '../codec.ts'

export const PRACTICE_TABS = ['today', 'items', 'quiz', 'takes'] as const
export type PracticeTab = (typeof PRACTICE_TABS)[number]
export const LOG_TABS = ['coverage', 'course', 'entries', 'kept'] as const
export type LogTab = (typeof LOG_TABS)[number]

export const MINUTES = { least: 5, most: 120 } as const
export const QUIZ_TOPICS = ['any', ...QUIZ_TOPIC_NAMES, ...QUIZ_KIND_NAMES.filter((k) => k !== 'function')] as const

/** How long one has; what is practised, and in which key alone; what the quiz asks; which take is read, and which beside it; which side of the log is in view. */
export const PRACTICE = partOf({
  minutes: whole(25, MINUTES.least, MINUTES.most),
  practise: choice(PRACTICE_TABS, 'today'),
  item: text,
  inKey: text,
  take: text,
  otherTake: text,
  topic: choice(QUIZ_TOPICS, 'any'),
  logged: choice(LOG_TABS, 'coverage'),
})
export type PracticePart = ValueOf<typeof PRACTICE>
