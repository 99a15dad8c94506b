import type { Athlete } from '@gravek/contract/athlete';
import { readTable, type CsvTable } from '@gravek/library/roster/csv';
import {
  guessRosterColumns,
  readRosterTable,
  ROSTER_COLUMNS,
  type RosterColumn,
  type TableAthlete,
} from '@gravek/library/roster/rosterTable';
import { useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { useAthletes } from '../api/queries';
import { counted } from '@gravek/core/words';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { AskWindow } from '../controls/Window';
import { useLengthStyle } from '../member/member';
import { AthleteWords, useAddAll } from './addAll';

const SHOWN = 6;
/** A squad's table is far smaller; nobody waits for a film that was chosen by mistake. */
const MOST_BYTES = 2_000_000;

const NOBODY: readonly Athlete[] = [];

const lower = (name: string): string => name.toLowerCase();

/** A letter that no table holds shows that it was written in another way than it is read. */
const textOf = async (file: File): Promise<string> => {
  const bytes = await file.arrayBuffer();
  const text = new TextDecoder().decode(bytes);
  return text.includes('\ufffd') ? new TextDecoder('windows-1252').decode(bytes) : text;
};

/** Which column holds what, over its first cells. */
const Columns = ({
  table,
  columns,
  onColumns,
}: {
  table: CsvTable;
  columns: (RosterColumn | null)[];
  onColumns: (columns: (RosterColumn | null)[]) => void;
}) => (
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
                onChange={({ target }) => {
                  const column = ROSTER_COLUMNS.find((column) => column === target.value) ?? null;
                  // Each thing stands in one column.
                  onColumns(
                    columns.map((other, c) =>
                      c === i ? column : other === column && column !== null ? null : other,
                    ),
                  );
                }}
              >
                <option value="">leave out</option>
                {ROSTER_COLUMNS.map((column) => (
                  <option key={column}>{column}</option>
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
        {table.rows.slice(0, 3).map((row, r) => (
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

/** Athletes from a table in a file: which column is what, what would come of it, and then all at once. */
export const TableForm = ({ onClose }: { onClose: () => void }) => {
  const style = useLengthStyle();
  const { data: here = NOBODY } = useAthletes();
  const [table, setTable] = useState<CsvTable | null>(null);
  const [columns, setColumns] = useState<(RosterColumn | null)[]>([]);
  // A row keeps its id, so that a press after a lost answer makes nobody twice.
  const [ids, setIds] = useState<ReadonlyMap<string, string>>(new Map());
  const { add, done, problem, setProblem } = useAddAll(onClose);
  const rows = useMemo(
    () => (table ? readRosterTable(table, columns, style, here[0]?.squad ?? 'Squad') : []),
    [table, columns, style, here],
  );
  const known = new Map(
    here.filter((athlete) => !athlete.archived).map((athlete) => [lower(athlete.name), athlete.id]),
  );
  const isHere = ({ name }: TableAthlete): boolean => {
    const id = known.get(lower(name));
    return id !== undefined && id !== ids.get(lower(name));
  };
  const good = rows.flatMap(({ athlete }) => athlete ?? []);
  const fresh = good.filter((athlete) => !isHere(athlete));
  const wrong = rows.flatMap((row) => (row.athlete ? [] : [row]));
  const there = good.length - fresh.length;

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
    setIds(new Map());
  };

  const addFresh = (): void => {
    const all = new Map(ids);
    for (const { name } of fresh) if (!all.has(lower(name))) all.set(lower(name), uuid());
    setIds(all);
    void add(fresh.map((athlete) => ({ id: all.get(lower(athlete.name))!, athlete })));
  };

  return (
    <AskWindow
      title="Athletes from a file"
      size="lg"
      act={
        done !== null
          ? `Adding ${done + 1} of ${fresh.length} …`
          : `Add ${counted(fresh.length, 'athlete')}`
      }
      disabled={fresh.length === 0 || done !== null}
      onClose={onClose}
      onSubmit={addFresh}
    >
      <Field label="A table as CSV" hint="Its first row says what the columns are.">
        <Form.Control
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          onChange={(event) => void choose((event.target as HTMLInputElement).files?.[0])}
        />
      </Field>
      {table && (
        <>
          <Columns table={table} columns={columns} onColumns={setColumns} />
          <p className="mb-0" role="status">
            <strong>{counted(fresh.length, 'athlete comes', 'athletes come')} into the club</strong>
            {wrong.length > 0 && `, ${counted(wrong.length, 'row does', 'rows do')} not`}
            {there > 0 &&
              `, ${counted(there, 'name is', 'names are')} there already and ${there === 1 ? 'stays as it is' : 'stay as they are'}`}
            . Nothing is kept yet.
          </p>
          {fresh.length > 0 && (
            <ul className="list-plain small-text">
              {fresh.slice(0, SHOWN).map((athlete) => (
                <li key={athlete.name}>
                  <AthleteWords athlete={athlete} />
                </li>
              ))}
              {fresh.length > SHOWN && <li className="quiet">and {fresh.length - SHOWN} more</li>}
            </ul>
          )}
          {wrong.slice(0, SHOWN).map((row) => (
            <div key={row.line} className="field-message">
              Line {row.line}
              {row.name && `, ${row.name}`}: {row.why}
            </div>
          ))}
          {wrong.length > SHOWN && (
            <div className="field-message">and {wrong.length - SHOWN} more</div>
          )}
        </>
      )}
      <Conflict problem={problem} />
    </AskWindow>
  );
};
