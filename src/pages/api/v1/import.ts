import { readChartFile } from '../../../formats/files.ts'
import { endpoint, json, notAllowed, readFile } from '../../../server/door.ts'
import { importAnswer } from '../../../server/imports.ts'
import { fieldError, Problem } from '../../../server/problems.ts'

export const POST = endpoint(async ({ request }) => {
  const { name, bytes } = await readFile(request)
  const read = readChartFile(bytes)
  if (!read.ok) throw new Problem('bad_file', read.error.why, [fieldError('file', read.error.why, name)])
  return json(importAnswer(read.value, name))
})
export const ALL = notAllowed
