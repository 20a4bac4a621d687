import { comeIn, doorPage } from '../server/devices/come-in.ts'
import { endpoint, notAllowed } from '../server/door.ts'

export const GET = endpoint(({ request, url }) => doorPage(request, url))
export const POST = endpoint(({ request }) => comeIn(request))
export const ALL = notAllowed
