import Form from 'react-bootstrap/Form';

const PREVIEW = 3;

/** Which column of a table holds what, over its first rows; each thing stands in one column. */
export const TableColumns = <C extends string>({
  table,
  kinds,
  columns,
  onColumns,
}: {
  table: { heads: readonly string[]; rows: readonly (readonly string[])[] };
  /** what a column can hold */
  kinds: readonly C[];
  /** of each column what it holds; null for those that are left out */
  columns: readonly (C | null)[];
  onColumns: (columns: (C | null)[]) => void;
}) => {
  const choose = (at: number, text: string): void => {
    const kind = kinds.find((kind) => kind === text) ?? null;
    onColumns(
      table.heads.map((_, i) => {
        const before = columns[i] ?? null;
        if (i === at) return kind;
        return before === kind ? null : before;
      }),
    );
  };
  return (
    <div className="table-scroll" tabIndex={0} role="group" aria-label="Columns">
      <table className="grid-table">
        <caption className="visually-hidden">What each column holds</caption>
        <thead>
          <tr>
            {table.heads.map((head, i) => (
              <th key={i}>
                <Form.Select
                  size="sm"
                  style={{ minWidth: '8.5rem' }}
                  aria-label={`Column ${head || i + 1}`}
                  value={columns[i] ?? ''}
                  onChange={({ target }) => choose(i, target.value)}
                >
                  <option value="">leave out</option>
                  {kinds.map((kind) => (
                    <option key={kind}>{kind}</option>
                  ))}
                </Form.Select>
              </th>
            ))}
          </tr>
          <tr>
            {table.heads.map((head, i) => (
              <th key={i} className="quiet">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.slice(0, PREVIEW).map((row, r) => (
            <tr key={r}>
              {row.map((cell, i) => (
                <td key={i} className={columns[i] ? undefined : 'quiet'}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};
