interface HiddenTableProps {
  caption: string;
  /** The first heads the rows. */
  columns: readonly string[];
  rows: readonly { head: string; cells: readonly string[] }[];
}

/** What a chart shows as a table, for who does not see it. */
export function HiddenTable({ caption, columns, rows }: HiddenTableProps) {
  // A table keeps the width that its words need: only what is around it can be hidden.
  return (
    <div className="sr-only">
      <table>
        <caption>{caption}</caption>
        <thead>
          <tr>
            {columns.map((column) => (
              <th key={column} scope="col">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ head, cells }) => (
            <tr key={head}>
              <th scope="row">{head}</th>
              {cells.map((cell, at) => (
                <td key={at}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
