/** What every answer carries, files too. */
export const SAFE_HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), geolocation=()',
}

/** A shorter answer goes in one packet anyway: so many bytes are worth compressing. */
export const WORTH_COMPRESSING = 1400
