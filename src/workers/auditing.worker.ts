import { expose } from 'comlink'
import { takeLineApart } from '../core/index.ts'

expose({ takeLineApart })
