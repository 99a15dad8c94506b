import { readingResult, type ReadingKind } from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { check } from '@gravek/contract/problem';
import { readingInput, type ReadingRow } from '@gravek/contract/reading';
import { SOURCES, type Source } from '@gravek/contract/source';
import {
  freshReading,
  readReading,
  type TypedReading,
} from '@gravek/library/measuring/readingText';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useMember } from '../../member/member';
import { useDraft } from '../../controls/draft';
import { Field } from '../../controls/Field';
import { tell } from '../../controls/toasts';
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

type Draft = { id: string; takenOn: string; source: Source; note: string; typed: TypedReading };

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
  const [draft, setDraft, discard] = useDraft<Draft>(`reading.${athlete.id}.${kind}`, {
    id: uuid(),
    takenOn: today,
    source: 'other',
    note: '',
    typed: freshReading(kind),
  });
  const [served, setServed] = useState<Record<string, string>>({});
  const [over, setOver] = useState<string | null>(null);
  const [tried, setTried] = useState(false);
  const { typed } = draft;
  const setTyped = (change: Partial<TypedReading>): void =>
    setDraft({ ...draft, typed: { ...typed, ...change } });
  const write = useWrite(
    (body: object) => api.post<Athlete>(`/athletes/${athlete.id}/readings`, body),
    'athletes',
  );

  const read = readReading(kind, typed, style);
  const body = read.ok
    ? ({
        id: draft.id,
        athleteId: athlete.id,
        takenOn: draft.takenOn,
        source: draft.source,
        note: draft.note,
        reading: read.reading,
      } satisfies ReadingRow)
    : null;
  const checked = body && check(readingInput, body);
  const wrong = {
    ...(read.ok ? {} : read.messages),
    ...(checked && !checked.ok ? checked.fields : {}),
    ...served,
  };
  const told = tried ? wrong : {};
  const inReading = Object.entries(told).find(([path]) => path.startsWith('reading'))?.[1];
  const result = body && checked?.ok ? readingResult(body.reading) : null;

  const submit = async (): Promise<void> => {
    setTried(true);
    setOver(null);
    setServed({});
    if (!body || !checked?.ok) return;
    try {
      await write.mutateAsync(body);
      discard();
      tell(`${TESTS[kind].name}: kept for ${athlete.name}.`);
      onDone();
    } catch (error) {
      setServed(fieldsOf(error));
      setOver(sentenceOf(error));
    }
  };
  const row = (i: number, change: Partial<{ a: string; b: string }>): void =>
    setTyped({ rows: typed.rows.map((row, o) => (o === i ? { ...row, ...change } : row)) });
  const [aName, bName] =
    kind === 'sprint' ? ['Distance, m', 'Time, s'] : ['Count of one foot', 'Seconds'];
  return (
    <Form
      noValidate
      className="stack"
      style={{ gap: 10 }}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <ul className="plain-points mb-0">
        {TESTS[kind].protocol.map((line) => (
          <li key={line}>{line}</li>
        ))}
        <li>{TESTS[kind].who}</li>
      </ul>
      {over && (
        <div className="note note-wrong" role="alert">
          {over}
        </div>
      )}
      {kind === 'curve' && (
        <Field label="Radius of the circle" message={told.radius}>
          <Form.Control
            value={typed.radius}
            onChange={(event) => setTyped({ radius: event.target.value })}
          />
        </Field>
      )}
      {kind === 'stop' && (
        <Field label="Speed at the second cone, m/s" message={told.speed}>
          <Form.Control
            inputMode="decimal"
            value={typed.speed}
            onChange={(event) => setTyped({ speed: event.target.value })}
          />
        </Field>
      )}
      {kind === 'steady' && (
        <Field label="It was to be, steps a minute" message={told.speed}>
          <Form.Control
            inputMode="decimal"
            placeholder="no target"
            value={typed.speed}
            onChange={(event) => setTyped({ speed: event.target.value })}
          />
        </Field>
      )}
      {kind === 'lane' && (
        <Field label="Width of the lane" message={told.lane}>
          <Form.Control
            value={typed.lane}
            onChange={(event) => setTyped({ lane: event.target.value })}
          />
        </Field>
      )}
      {typed.rows.length > 0 && (
        <div className="pair-rows">
          <span className="form-label">{aName}</span>
          <span className="form-label">{bName}</span>
          {typed.rows.map((other, i) => (
            <div key={i} className="contents">
              <Form.Control
                aria-label={`${aName}, row ${i + 1}`}
                inputMode="decimal"
                value={other.a}
                onChange={(event) => row(i, { a: event.target.value })}
              />
              <Form.Control
                aria-label={`${bName}, row ${i + 1}`}
                inputMode="decimal"
                value={other.b}
                onChange={(event) => row(i, { b: event.target.value })}
              />
              {told[`rows[${i}]`] && (
                <span className="field-message span-2" role="alert">
                  {told[`rows[${i}]`]}
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
              else setTyped({ rows: [...typed.rows, { a: String(count), b: seconds }] });
            }}
          />
          <Button
            size="sm"
            variant="outline-dark"
            className="align-self-start"
            onClick={() =>
              setTyped({ rows: [...typed.rows, { a: '', b: typed.rows.at(-1)?.b ?? '20' }] })
            }
          >
            Another count
          </Button>
        </>
      )}
      {LIST_LABELS[kind] && (
        <Field label={LIST_LABELS[kind]} message={told.list}>
          <Form.Control
            as="textarea"
            rows={4}
            value={typed.list}
            onChange={(event) => setTyped({ list: event.target.value })}
          />
        </Field>
      )}
      {inReading && (
        <div className="field-message" role="alert">
          {inReading}
        </div>
      )}
      <div className="edit-grid">
        <Field label="Day" message={told.takenOn}>
          <Form.Control
            type="date"
            value={draft.takenOn}
            onChange={(event) => setDraft({ ...draft, takenOn: event.target.value })}
          />
        </Field>
        <Field label="Measured by">
          <Form.Select
            value={draft.source}
            onChange={(event) => setDraft({ ...draft, source: event.target.value as Source })}
          >
            {SOURCES.map((source) => (
              <option key={source} value={source}>
                {SOURCE_NAMES[source]}
              </option>
            ))}
          </Form.Select>
        </Field>
      </div>
      {result && (
        <div className="note" role="status">
          Comes to <strong>{resultText(result, style)}</strong>.
        </div>
      )}
      <div className="row-line">
        <Button type="submit" disabled={write.isPending}>
          {write.isPending ? 'Keeping …' : 'Keep it'}
        </Button>
        <Button variant="outline-dark" onClick={onDone}>
          Close
        </Button>
      </div>
    </Form>
  );
};
