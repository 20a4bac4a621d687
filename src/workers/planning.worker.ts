import { expose } from 'comlink'
import { planning, stopPlanning } from './planning.ts'

expose({ planning, stopPlanning })
