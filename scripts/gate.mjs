// In front of the program: what the framework cannot take is answered here, in the interface's words.
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']

const refuse = (response, status, code, title, detail) => {
  const body = JSON.stringify({ type: `/problems/${code}`, title, status, code, detail, errors: [] })
  response.writeHead(status, {
    'content-type': 'application/problem+json',
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
    connection: 'close',
  })
  response.end(body)
}

/** An address that is a path of this server, and whose escapes are text. */
const isAddress = (url) => {
  try {
    decodeURIComponent(url.split(/[?#]/, 1)[0])
    return url.startsWith('/') && URL.canParse(`http://here${url}`)
  } catch {
    return false
  }
}

/** A query whose escapes are no text is read as far as it goes, as browsers do. */
const readable = (url) => {
  try {
    decodeURI(url)
    return url
  } catch {
    const at = url.indexOf('?')
    return `${url.slice(0, at)}?${new URLSearchParams(url.slice(at + 1))}`
  }
}

export const gate = (handler) => (request, response) => {
  const { method, url } = request
  if (!METHODS.includes(method))
    return refuse(
      response,
      405,
      'method_not_allowed',
      'This address does not take that method',
      `${method} is not taken here.`,
    )
  if (!isAddress(url))
    return refuse(
      response,
      400,
      'bad_request',
      'The request is not in the agreed form',
      'The address is not text in UTF-8.',
    )
  request.url = readable(url)
  return handler(request, response)
}
