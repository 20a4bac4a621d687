const SIGN: Readonly<Record<string, string>> = { b: '♭', bb: '𝄫', '#': '♯', '##': '𝄪' }

/** ASCII names with true accidentals for the eye: `Ebm7b5` becomes `E♭m7♭5`; words are left alone. */
export const toGlyphs = (text: string): string =>
  /[b#]/.test(text)
    ? text
        .replace(/(?<![A-Za-z])([A-G])(bb|##|b|#)/g, (_, letter: string, sign: string) => letter + SIGN[sign])
        .replace(/(bb|b|#)(?=\d)/g, (sign: string) => SIGN[sign] ?? sign)
        .replace(/(?<![A-Za-z])(b|#)(?=(?:I|V)+\b)/g, (sign: string) => SIGN[sign] ?? sign)
    : text

/** True glyphs back to ASCII, for exports and for matching what was typed. */
export const toAscii = (text: string): string =>
  text.replace(/♭/g, 'b').replace(/♯/g, '#').replace(/𝄫/g, 'bb').replace(/𝄪/g, '##').replace(/[–−]/g, '-')
