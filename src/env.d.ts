/// <reference types="astro/client" />

/** The program's version, from package.json, put in at build time. */
declare const __VERSION__: string

/** A module bundled by itself for a worker thread (scripts/threads.mjs); the value is its file URL. */
declare module '*?thread' {
  const address: string
  export default address
}
