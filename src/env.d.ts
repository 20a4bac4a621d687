/// <reference types="astro/client" />

/** The program's version, from package.json, put in at build time. */
declare const __VERSION__: string
