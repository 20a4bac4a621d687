export { ALL, GET } from './api/v1/health.ts'
