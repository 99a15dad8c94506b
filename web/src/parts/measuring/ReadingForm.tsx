import { readingResult, type ReadingKind } from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { check, type Checked } from '@gravek/contract/problem';
import { readingInput, type ReadingRow } from '@gravek/contract/reading';
import { SOURCES, type Source } from '@gravek/contract/source';
import {
  freshReading,
  readReading,
  type TypedReading,
} from '@gravek/library/measuring/readingText';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useMember } from '../../member/member';
import { tell } from '../../controls/toasts';
import { ChoiceAt, TextAt, WordsAt } from '../fields/At';
import { FormHere, useDraftedForm } from '../fields/DraftedForm';
import { SOURCE_NAMES } from './sourceNames';
import { TapCounter } from './TapCounter';
import { resultText, TESTS } from './tests';

const LIST_LABELS: Partial<Record<ReadingKind, string>> = {
  curve: 'Tape from toe to toe, one a line',
  stop: 'From the cone to the feet, one a line',
  reaction: 'Seconds, one a line',
  'short-step': 'Toe to toe, one a line',
  lane: 'Pushes for one crossing, one a line',
  'run-through': 'Past the line +, short of it −, one a line',
  'take-offs': 'Inside the upright / out from the bar, one run a line',
  steady: 'Steps a minute, one line a minute',
};

type Written = {
  id: string;
  takenOn: string;
  source: Source;
  note: string;
  typed: TypedReading;
};

/** Fields with one figure: where it is typed, and what is asked. */
const SINGLE: Partial<Record<ReadingKind, { at: string; label: string; placeholder?: string }>> = {
  curve: { at: 'typed.radius', label: 'Radius of the circle' },
  stop: { at: 'typed.speed', label: 'Speed at the second cone, m/s' },
  steady: {
    ...{ at: 'typed.speed', label: 'It was to be, steps a minute' },
    placeholder: 'no target',
  },
  lane: { at: 'typed.lane', label: 'Width of the lane' },
};

const SOURCES_NAMED = SOURCES.map((source) => [source, SOURCE_NAMES[source]] as const);

/** A form made for one test, with what it comes to as it is typed. */
export const ReadingForm = ({
  athlete,
  kind,
  style,
  onDone,
}: {
  athlete: Athlete;
  kind: ReadingKind;
  style: LengthStyle;
  onDone: () => void;
}) => {
  const { today } = useMember();
  const write = useWrite(
    (body: object) => api.post<Athlete>(`/athletes/${athlete.id}/readings`, body),
    'athletes',
  );
  const readingOf = ({ typed, ...about }: Written): Checked<ReadingRow> => {
    const read = readReading(kind, typed, style);
    if (read.ok)
      return check(readingInput, { ...about, athleteId: athlete.id, reading: read.reading });
    const fields = Object.entries(read.messages).map(([at, why]) => [`typed.${at}`, why]);
    return { ok: false, fields: Object.fromEntries(fields) as Record<string, string> };
  };
  const form = useDraftedForm<Written, Athlete, ReadingRow>({
    name: `reading.${athlete.id}.${kind}`,
    stored: null,
    valueOf: () => ({
      ...{ id: uuid(), takenOn: today, source: 'other', note: '' },
      typed: freshReading(kind),
    }),
    older: (kept) => kept as Written,
    check: readingOf,
    send: (row) => write.mutateAsync(row),
    onSaved: () => {
      tell(`${TESTS[kind].name}: kept for ${athlete.name}.`);
      onDone();
    },
  });
  const { typed } = form.value;
  const { problems } = form.fields;
  const read = readingOf(form.value);
  const result = read.ok ? readingResult(read.value.reading) : null;
  const inReading = Object.entries(problems).find(([path]) => path.startsWith('reading'))?.[1];
  const setRows = (rows: TypedReading['rows']): void =>
    form.set({ ...form.value, typed: { ...typed, rows } });
  const row = (i: number, change: Partial<{ a: string; b: string }>): void =>
    setRows(typed.rows.map((row, other) => (other === i ? { ...row, ...change } : row)));
  const names = (
    kind === 'sprint'
      ? { a: 'Distance, m', b: 'Time, s' }
      : { a: 'Count of one foot', b: 'Seconds' }
  ) as Record<'a' | 'b', string>;
  const single = SINGLE[kind];
  return (
    <FormHere form={form} onClose={onDone} label={TESTS[kind].name} act="Keep it">
      <ul className="plain-points mb-0">
        {TESTS[kind].protocol.map((line) => (
          <li key={line}>{line}</li>
        ))}
        <li>{TESTS[kind].who}</li>
      </ul>
      {single && <TextAt {...single} />}
      {typed.rows.length > 0 && (
        <div className="pair-rows">
          <span className="form-label">{names.a}</span>
          <span className="form-label">{names.b}</span>
          {typed.rows.map((cells, i) => (
            <div key={i} className="contents">
              {(['a', 'b'] as const).map((column) => (
                <Form.Control
                  key={column}
                  aria-label={`${names[column]}, row ${i + 1}`}
                  inputMode="decimal"
                  value={cells[column]}
                  onChange={(event) => row(i, { [column]: event.target.value })}
                />
              ))}
              {problems[`typed.rows[${i}]`] && (
                <span className="field-message span-2" role="alert">
                  {problems[`typed.rows[${i}]`]}
                </span>
              )}
            </div>
          ))}
        </div>
      )}
      {(kind === 'cadence' || kind === 'easy-cadence') && (
        <>
          <TapCounter
            seconds={Math.max(5, Math.min(120, Number(typed.rows.at(-1)?.b) || 20))}
            onCount={(count) => {
              const open = typed.rows.findIndex((row) => row.a.trim() === '');
              const seconds = typed.rows.at(-1)?.b ?? '20';
              if (open >= 0) row(open, { a: String(count) });
              else setRows([...typed.rows, { a: String(count), b: seconds }]);
            }}
          />
          <Button
            size="sm"
            variant="outline-dark"
            className="align-self-start"
            onClick={() => setRows([...typed.rows, { a: '', b: typed.rows.at(-1)?.b ?? '20' }])}
          >
            Another count
          </Button>
        </>
      )}
      {LIST_LABELS[kind] && <WordsAt at="typed.list" label={LIST_LABELS[kind]} rows={4} />}
      {inReading && (
        <div className="field-message" role="alert">
          {inReading}
        </div>
      )}
      <div className="edit-grid">
        <TextAt at="takenOn" label="Day" type="date" />
        <ChoiceAt at="source" label="Measured by" options={SOURCES_NAMED} />
      </div>
      {result && (
        <div className="note" role="status">
          Comes to <strong>{resultText(result, style)}</strong>.
        </div>
      )}
    </FormHere>
  );
};
