declare module 'midi-parser-js' {
  interface Event {
    readonly deltaTime: number
    readonly type: number
    readonly data?: number | readonly number[] | string
  }
  const parser: {
    readonly parse: (bytes: Uint8Array) => {
      readonly timeDivision: number | readonly number[]
      readonly track: readonly { readonly event: readonly Event[] }[]
    }
  }
  export default parser
}
