import { expose } from 'comlink'
import { making, reusing } from './making.ts'

expose({ making, reusing })
