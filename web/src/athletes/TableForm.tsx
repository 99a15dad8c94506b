import { readTable, type CsvTable } from '@gravek/library/roster/csv';
import {
  guessRosterColumns,
  readRosterTable,
  ROSTER_COLUMNS,
  type RosterColumn,
} from '@gravek/library/roster/rosterTable';
import { useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useAthletes } from '../api/queries';
import { Field } from '../controls/Field';
import { TableColumns } from '../controls/TableColumns';
import { useLengthStyle } from '../member/member';
import { RosterWindow } from './RosterWindow';

/** A squad's table is far smaller; nobody waits for a film that was chosen by mistake. */
const MOST_BYTES = 2_000_000;

/** A letter that no table holds shows that it was written in another way than it is read. */
const textOf = async (file: File): Promise<string> => {
  const bytes = await file.arrayBuffer();
  const text = new TextDecoder().decode(bytes);
  return text.includes('\ufffd') ? new TextDecoder('windows-1252').decode(bytes) : text;
};

/** Athletes from a table in a file: which column is what, what would come of it, and then all at once. */
export const TableForm = ({ onClose }: { onClose: () => void }) => {
  const style = useLengthStyle();
  const squad = useAthletes().data?.[0]?.squad ?? 'Squad';
  const [table, setTable] = useState<CsvTable | null>(null);
  const [columns, setColumns] = useState<(RosterColumn | null)[]>([]);
  const [ids, setIds] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const lines = useMemo(() => {
    const read = table ? readRosterTable(table, columns, style, squad) : [];
    // What cannot be taken stands first: in a long table nobody would find it.
    return [...read.filter(({ why }) => why !== null), ...read.filter(({ why }) => why === null)];
  }, [table, columns, style, squad]);

  const choose = async (file: File | undefined): Promise<void> => {
    setTable(null);
    setProblem(null);
    if (!file) return;
    if (file.size > MOST_BYTES) {
      setProblem('That file is larger than 2 MB; a table of athletes is far smaller.');
      return;
    }
    const read = readTable(await textOf(file));
    if (!read) {
      setProblem('There is no table in it: a row of heads and a row for each athlete.');
      return;
    }
    setTable(read);
    setColumns(guessRosterColumns(read));
    setIds({});
  };

  return (
    <RosterWindow
      title="Athletes from a file"
      lines={lines}
      ids={ids}
      onIds={setIds}
      problem={problem}
      onClose={onClose}
      onDone={onClose}
    >
      <Field label="A table as CSV" hint="Its first row says what the columns are.">
        <Form.Control
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          onChange={(event) => void choose((event.target as HTMLInputElement).files?.[0])}
        />
      </Field>
      {table && (
        <TableColumns
          table={table}
          kinds={ROSTER_COLUMNS}
          columns={columns}
          onColumns={setColumns}
        />
      )}
    </RosterWindow>
  );
};
