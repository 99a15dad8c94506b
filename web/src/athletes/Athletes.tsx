import { currentModel } from '@gravek/core/runup/currentModel';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import { holding } from '@gravek/library/session/restrictions';
import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useAthletes } from '../api/queries';
import { dayName } from '../controls/dates';
import { Length } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { opened } from '../controls/opened';
import { PageHead } from '../controls/PageHead';
import { Segments } from '../controls/Segments';
import { useAddress } from '../controls/useAddress';
import { FootWord } from '../drawing/FootPrint';
import { useLengthStyle, useMayPlan, useMember } from '../member/member';

const AthleteForm = opened(async () => (await import('./AthleteForm')).AthleteForm);
const RosterForm = opened(async () => (await import('./RosterForm')).RosterForm);
const TableForm = opened(async () => (await import('./TableForm')).TableForm);

/** What an open-ended restriction waits for; sorts after every day. */
const CLEARED = 'cleared';

type Row = Athlete & { topM: number; measured: boolean; until: string | null };

const ALL = 'All';

const useColumns = (): ColumnDef<Row>[] => {
  const style = useLengthStyle();
  const { unit } = style;
  return useMemo(() => {
    const lengthUnit = unit === 'shoes' ? 'metric' : unit;
    return [
      {
        accessorKey: 'name',
        header: 'Name',
        cell: ({ row }) => (
          <Link className="row-link" to={`/athletes/${row.original.id}`}>
            {row.original.name}
          </Link>
        ),
      },
      { accessorKey: 'squad', header: 'Squad' },
      {
        id: 'positions',
        header: 'Position',
        accessorFn: (row) => row.positions.join(', '),
      },
      { accessorKey: 'hand', header: 'Hand' },
      {
        accessorKey: 'takeoffFoot',
        header: 'Takes off from',
        cell: ({ row }) => <FootWord foot={row.original.takeoffFoot} />,
      },
      {
        // Who was not measured comes last, either way round.
        accessorFn: (athlete) => athlete.heightM ?? undefined,
        id: 'heightM',
        sortUndefined: 'last',
        header: 'Height',
        meta: { number: true },
        cell: ({ row }) =>
          row.original.heightM === null ? (
            '–'
          ) : (
            <Length m={row.original.heightM} style={{ unit: lengthUnit }} />
          ),
      },
      {
        accessorKey: 'topM',
        header: 'Full step',
        meta: { number: true },
        cell: ({ row }) => <Length m={row.original.topM} style={{ unit: lengthUnit }} />,
      },
      {
        accessorKey: 'measured',
        header: 'Known from',
        cell: ({ row }) =>
          row.original.measured ? (
            <span>measured run</span>
          ) : (
            <span className="tag tag-estimate">estimate</span>
          ),
      },
      {
        accessorKey: 'until',
        header: 'Restricted',
        cell: ({ row }) =>
          row.original.until && (
            <span className="tag">
              until {row.original.until === CLEARED ? CLEARED : dayName(row.original.until)}
            </span>
          ),
      },
    ];
  }, [unit]);
};

const Roster = ({ athletes }: { athletes: Athlete[] }) => {
  const { today } = useMember();
  const [search, setSearch] = useState('');
  const [squad, setSquad] = useState(ALL);
  const [away, setAway] = useState(false);
  const [sorting, setSorting] = useState<SortingState>([{ id: 'name', desc: false }]);
  const squads = useMemo(
    () => [ALL, ...[...new Set(athletes.map((athlete) => athlete.squad))].sort()],
    [athletes],
  );
  const rows = useMemo(
    () =>
      athletes
        .filter(
          (athlete) => athlete.archived === away && (squad === ALL || athlete.squad === squad),
        )
        .map((athlete): Row => {
          const { model, source } = currentModel(athlete);
          const restrictions = holding(athlete.restrictions, today);
          return {
            ...athlete,
            topM: model.topLengthM,
            measured: source === 'measured',
            until: restrictions[0] ? (restrictions[0].until ?? CLEARED) : null,
          };
        }),
    [athletes, away, squad, today],
  );
  const table = useReactTable({
    data: rows,
    columns: useColumns(),
    state: { sorting, globalFilter: search },
    onSortingChange: setSorting,
    onGlobalFilterChange: setSearch,
    globalFilterFn: (row, _column, text: string) =>
      `${row.original.name} ${row.original.squad} ${row.original.positions.join(' ')}`
        .toLowerCase()
        .includes(text.trim().toLowerCase()),
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const shown = table.getRowModel().rows;
  return (
    <div className="stack">
      <div className="row-line">
        <Form.Control
          style={{ maxWidth: 280 }}
          type="search"
          placeholder="Search name, squad, position"
          aria-label="Search athletes"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <Segments
          label="Squad"
          options={squads.map((value) => ({ value, label: value }))}
          value={squad}
          onChoose={setSquad}
        />
        <Form.Check
          type="switch"
          id="archived"
          label="Archived"
          checked={away}
          onChange={(event) => setAway(event.target.checked)}
        />
        <span className="quiet small-text ms-auto">{counted(shown.length, 'athlete')}</span>
      </div>
      {shown.length === 0 ? (
        <Empty title={away ? 'Nobody is archived here.' : 'Nobody matches.'}>
          Change the search or the squad.
        </Empty>
      ) : (
        <div className="table-scroll">
          <table className="grid-table">
            <thead>
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id}>
                  {group.headers.map((header) => {
                    const sorted = header.column.getIsSorted();
                    return (
                      <th
                        key={header.id}
                        aria-sort={
                          sorted ? (sorted === 'asc' ? 'ascending' : 'descending') : undefined
                        }
                        className={header.column.columnDef.meta ? 'num' : undefined}
                      >
                        <button type="button" onClick={header.column.getToggleSortingHandler()}>
                          {flexRender(header.column.columnDef.header, header.getContext())}
                          {sorted === 'asc' && <ArrowUp size={13} aria-hidden />}
                          {sorted === 'desc' && <ArrowDown size={13} aria-hidden />}
                        </button>
                      </th>
                    );
                  })}
                </tr>
              ))}
            </thead>
            <tbody>
              {shown.map((row) => (
                <tr key={row.id}>
                  {row.getVisibleCells().map((cell) => (
                    <td key={cell.id} className={cell.column.columnDef.meta ? 'num' : undefined}>
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
};

export const Athletes = () => {
  const athletes = useAthletes();
  const mayPlan = useMayPlan();
  const [adding, setAdding] = useState(false);
  const { query, set } = useAddress();
  return (
    <>
      <PageHead title="Athletes" over="Who they are and how they step">
        {mayPlan && (
          <>
            <Button variant="outline-dark" onClick={() => set('list', '1')}>
              Add a list
            </Button>
            <Button variant="outline-dark" onClick={() => set('file', '1')}>
              From a file
            </Button>
            <Button onClick={() => setAdding(true)}>Add athlete</Button>
          </>
        )}
      </PageHead>
      <Loaded query={athletes} what="Getting the athletes …">
        {(list) =>
          list.length === 0 ? (
            <Empty title="No athletes yet.">
              Add the first one; a name, a squad and the take-off foot are enough.
            </Empty>
          ) : (
            <Roster athletes={list} />
          )
        }
      </Loaded>
      {adding && <AthleteForm onClose={() => setAdding(false)} />}
      {mayPlan && query.has('file') && <TableForm onClose={() => set('file', '')} />}
      {mayPlan && query.has('list') && <RosterForm onClose={() => set('list', '')} />}
    </>
  );
};
