import { expose } from 'comlink'
import { analysing } from './analysing.ts'

expose({ analysing })
