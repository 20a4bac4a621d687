import { createHash } from 'node:crypto'

const STYLE = `
:root { color-scheme: light dark }
body { margin: 0; min-height: 100vh; display: grid; place-content: center; padding: 1.5rem; box-sizing: border-box; background: light-dark(#e6ebe8, #0d1716); color: light-dark(#10201f, #e7efeb); font: 1.25rem/1.5 system-ui, sans-serif }
main { max-width: 24rem }
h1 { font-size: 2rem; line-height: 1.2; margin: 0 0 .75rem }
form { display: grid; gap: 1rem; margin-top: 1.5rem }
label { display: grid; gap: .25rem; font-weight: 700 }
input { font: inherit; font-weight: 400; box-sizing: border-box; width: 100%; padding: .6rem .75rem; border: 2px solid light-dark(#40524f, #9db1ab); border-radius: 4px; background: light-dark(#f3f6f3, #132120); color: inherit }
input[name=code] { font-size: 2rem; letter-spacing: .1em; font-variant-numeric: tabular-nums }
button { font: inherit; font-weight: 700; padding: .75rem; border: 0; border-radius: 4px; background: light-dark(#2b4184, #7f9df2); color: light-dark(#fff, #0a1211) }
:focus-visible { outline: 3px solid; outline-offset: 2px }
.said { border-left: .4rem solid light-dark(#a33012, #ffcb9a); padding-left: .75rem; font-weight: 700 }
`
const POLICY = [
  "default-src 'none'",
  `style-src 'sha256-${createHash('sha256').update(STYLE).digest('base64')}'`,
  "form-action 'self'",
  "frame-ancestors 'none'",
  "base-uri 'none'",
].join('; ')

const SAID = {
  wrong: 'That is not the code. A code is good for ten minutes and for one device.',
  shut: 'Too many wrong codes: the door is shut for a minute.',
  form: 'Give the eight digits of the code and a name.',
  failed: 'The program is not ready. Try again in a moment.',
} as const

const SAFE: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const safe = (text: string): string => text.replaceAll(/[&<>"]/g, (sign) => SAFE[sign] ?? '')

/** What somebody from outside sees, and all of it: where to put the code that the machine shows. */
export const codePage = (
  said: keyof typeof SAID | null,
  { code, name }: { readonly code: string; readonly name: string },
): Response => {
  const told = said === null ? '' : `<p class="said" role="alert">${SAID[said]}</p>`
  const status = { wrong: 401, shut: 429, form: 400, failed: 503 }
  const html = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Crossfade: come in</title><style>${STYLE}</style></head>
<body><main><h1>Come in with a code</h1>
<p>In Crossfade, on the machine it runs on, open <b>Set-up</b>, then <b>Telephones</b>: it shows eight digits.</p>${told}
<form method="post" action="/door">
<label>Code <input name="code" inputmode="numeric" autocomplete="one-time-code" maxlength="12" required value="${safe(code)}"></label>
<label>Name of this device <input name="name" maxlength="60" required value="${safe(name)}"></label>
<button>Let me in</button>
</form></main></body></html>`
  return new Response(html, {
    status: said === null ? 200 : status[said],
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'content-security-policy': POLICY,
      // Without a referrer a browser says of the form that it comes from nowhere.
      'referrer-policy': 'same-origin',
      ...(said === 'shut' ? { 'retry-after': '60' } : {}),
    },
  })
}
