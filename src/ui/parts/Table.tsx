interface Props {
  readonly className?: string | undefined
  readonly caption?: { readonly text: string; readonly className: string | undefined }
  readonly heads: readonly string[]
  /** The first cell of a row names it. */
  readonly rows: readonly (readonly string[])[]
  /** Which row is in view. */
  readonly current?: number
}

/** Rows of text under their heads. */
export const Table = ({ className, caption, heads, rows, current = -1 }: Props) => (
  <table className={className}>
    {caption && <caption className={caption.className}>{caption.text}</caption>}
    <thead>
      <tr>
        {heads.map((h) => (
          <th key={h} scope="col">
            {h}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {rows.map(([name, ...cells], i) => (
        <tr key={name} aria-current={i === current ? 'true' : undefined}>
          <th scope="row">{name}</th>
          {cells.map((cell, k) => (
            <td key={heads[k + 1]}>{cell}</td>
          ))}
        </tr>
      ))}
    </tbody>
  </table>
)
