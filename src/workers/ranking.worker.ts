import { expose } from 'comlink'
import { ranking } from './ranking.ts'

expose({ ranking })
