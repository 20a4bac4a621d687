/** Every problem the interface answers with: code → status and title. The screen chooses its words by the code. */
export const PROBLEMS = {
  bad_text: { status: 400, title: 'The text could not be read' },
  bad_request: { status: 400, title: 'The request is not in the agreed form' },
  not_let_in: { status: 401, title: 'This device is not let in' },
  only_here: { status: 403, title: 'Only at the machine itself' },
  foreign_origin: { status: 403, title: 'Other sites are refused' },
  foreign_host: { status: 403, title: 'This address is not served here' },
  not_found: { status: 404, title: 'There is nothing at this address' },
  method_not_allowed: { status: 405, title: 'This address does not take that method' },
  not_a_stream: { status: 406, title: 'The answer is a stream of events' },
  stale_version: { status: 409, title: 'The row was changed in the meantime' },
  id_taken: { status: 409, title: 'There is a row of that id already' },
  name_taken: { status: 409, title: 'There is one of that name already' },
  changed_since: { status: 409, title: 'The row was changed again after that' },
  nothing_to_undo: { status: 409, title: 'There is nothing to undo' },
  nothing_to_redo: { status: 409, title: 'There is nothing to redo' },
  too_large: { status: 413, title: 'The body is too large' },
  not_json: { status: 415, title: 'The body must be JSON' },
  not_sound: { status: 415, title: 'The body must be sound' },
  not_the_end: { status: 409, title: 'The sound does not end there' },
  not_a_backup: { status: 415, title: 'The body must be a backup' },
  not_a_form: { status: 415, title: 'The body must be a form with a file' },
  bad_file: { status: 400, title: 'The file could not be read' },
  no_chords: { status: 400, title: 'The file has no chords' },
  bad_backup: { status: 400, title: 'The backup could not be read' },
  disk_full: { status: 507, title: 'The disk is full' },
  read_only: { status: 503, title: 'The data cannot be written to' },
  no_database: { status: 503, title: 'The database does not answer' },
  damaged: { status: 503, title: 'The data is damaged' },
  too_long: { status: 400, title: 'This takes too long' },
  too_heavy: { status: 400, title: 'This takes too much memory' },
  busy: { status: 503, title: 'Too much is asked at once' },
  failed: { status: 500, title: 'The program failed at this' },
  not_ready: { status: 503, title: 'The program is not ready' },
} as const

export type ProblemCode = keyof typeof PROBLEMS

export interface FieldError {
  readonly path: string
  readonly message: string
  /** Position inside a text field. */
  readonly at?: number
  readonly found: string
  readonly expected: readonly string[]
}

const SHOWN_SIGNS = 80

/** One field that is not as agreed, with what it held. */
export const fieldProblem = (
  path: string,
  message: string,
  found: unknown,
  expected: readonly string[] = [],
): Problem => new Problem('bad_request', message, [fieldError(path, message, found, expected)])

export const fieldError = (
  path: string,
  message: string,
  found: unknown,
  expected: readonly string[] = [],
): FieldError => ({
  path,
  message,
  found:
    found === undefined
      ? ''
      : (typeof found === 'string' ? found : (JSON.stringify(found) ?? '')).slice(0, SHOWN_SIGNS),
  expected,
})

/** Thrown inside an endpoint and answered at the door. */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    readonly errors: readonly FieldError[] = [],
    readonly current?: unknown,
  ) {
    super(detail)
  }
}

const RETRY_SECONDS = '2'

/** RFC 9457. A 413 ends the connection, since the rest of its body is not read. */
export const problemResponse = (p: Problem): Response => {
  const { status, title } = PROBLEMS[p.code]
  const body = {
    type: `/problems/${p.code}`,
    title,
    status,
    code: p.code,
    detail: p.detail,
    errors: p.errors,
    ...(p.current === undefined ? {} : { current: p.current }),
  }
  const headers = new Headers({ 'content-type': 'application/problem+json', 'cache-control': 'no-store' })
  if (status === 413) headers.set('connection', 'close')
  if (status === 503) headers.set('retry-after', RETRY_SECONDS)
  return new Response(JSON.stringify(body), { status, headers })
}
