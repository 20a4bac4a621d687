import { expose } from 'comlink'
import { hearing, making, reusing } from './making.ts'

expose({ hearing, making, reusing })
