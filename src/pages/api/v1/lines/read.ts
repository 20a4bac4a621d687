import { QUERIES } from '../../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readFile, readQuery } from '../../../../server/door.ts'
import { lineFileAnswer } from '../../../../server/line-files.ts'

export const POST = endpoint(async ({ url, request }) => {
  const { voice, grid } = readQuery(url, QUERIES.readLine)
  const { name, bytes } = await readFile(request)
  return json(lineFileAnswer(bytes, name, voice, grid))
})
export const ALL = notAllowed
