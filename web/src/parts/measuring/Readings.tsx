import {
  currentReading,
  READING_KINDS,
  readingResult,
  type ReadingKind,
} from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import type { ReadingRow } from '@gravek/contract/reading';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { usePutAway } from '../../controls/usePutAway';
import { PageWindow } from '../../controls/Window';
import { useMayPlan } from '../../member/member';
import { HistoryChart } from '../../drawing/HistoryChart';
import { SOURCE_NAMES } from './sourceNames';
import { opened } from '../../controls/opened';
import { mainFigure, resultText, TESTS } from './tests';
import { dayName } from '../../controls/dates';

const ReadingForm = opened(async () => (await import('./ReadingForm')).ReadingForm);
const GatesFile = opened(async () => (await import('../devices/GatesFile')).GatesFile);
const RunFile = opened(async () => (await import('../devices/RunFile')).RunFile);

const Kind = ({
  kind,
  rows,
  style,
}: {
  kind: ReadingKind;
  rows: ReadingRow[];
  style: LengthStyle;
}) => {
  const mayPlan = useMayPlan();
  const putAway = usePutAway('athletes');
  const current = currentReading(rows)!;
  return (
    <li>
      <div className="row-line">
        <strong>{TESTS[kind].name}</strong>
        <span className="ms-auto">{resultText(readingResult(current.reading), style)}</span>
      </div>
      <div className="small-text quiet">{TESTS[kind].use}</div>
      {rows.length > 1 && kind !== 'steady' && (
        <HistoryChart
          label={`${TESTS[kind].name} over time`}
          points={rows.map((row) => ({
            id: row.id,
            day: row.takenOn,
            value: mainFigure(readingResult(row.reading)),
            counts: row.id === current.id,
          }))}
        />
      )}
      <details>
        <summary className="small-text quiet">
          {rows.length === 1 ? 'One reading' : `${rows.length} readings`}, the newest of{' '}
          {dayName(rows[0]!.takenOn)}
        </summary>
        <ul className="list-plain">
          {rows.map((row) => (
            <li key={row.id} className="row-line small-text">
              <span className="figure">{dayName(row.takenOn)}</span>
              <span>
                {resultText(readingResult(row.reading), style)}, by {SOURCE_NAMES[row.source]}
                {row.id === current.id && rows.length > 1 && <strong>, this one counts</strong>}
              </span>
              {mayPlan && (
                <Button
                  size="sm"
                  variant="link"
                  className="ms-auto p-0"
                  onClick={() =>
                    void putAway(
                      `/athletes/${row.athleteId}/readings/${row.id}`,
                      'The reading is taken out.',
                    )
                  }
                >
                  Take out
                </Button>
              )}
            </li>
          ))}
        </ul>
      </details>
    </li>
  );
};

/** The tests that coaches do beside the measured run: what each says now, and how it went. */
export const Readings = ({ athlete, style }: { athlete: Athlete; style: LengthStyle }) => {
  const mayPlan = useMayPlan();
  const [open, setOpen] = useState<ReadingKind | null>(null);
  const [file, setFile] = useState<'gates' | 'run' | null>(null);
  const taken = READING_KINDS.filter((kind) =>
    athlete.readings.some((row) => row.reading.kind === kind),
  );
  return (
    <section className="panel" aria-label="Tests">
      <div className="row-line mb-1">
        <h2 className="mb-0">Tests</h2>
        {mayPlan && (
          <Form.Select
            className="ms-auto"
            style={{ width: 'auto' }}
            aria-label="Do a test"
            value=""
            onChange={(event) => setOpen(event.target.value as ReadingKind)}
          >
            <option value="">Do a test …</option>
            {READING_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {TESTS[kind].name}
              </option>
            ))}
          </Form.Select>
        )}
      </div>
      {taken.length === 0 ? (
        <p className="quiet mb-0">
          None yet. Sprint times, a stop, a count of steps or run-throughs make the plans this
          athlete’s own.
        </p>
      ) : (
        <ul className="list-plain">
          {taken.map((kind) => (
            <Kind
              key={kind}
              kind={kind}
              rows={athlete.readings.filter((row) => row.reading.kind === kind)}
              style={style}
            />
          ))}
        </ul>
      )}
      {mayPlan && (
        <div className="row-line mt-2">
          <Button size="sm" variant="outline-dark" onClick={() => setFile('gates')}>
            Times from gates
          </Button>
          <Button size="sm" variant="outline-dark" onClick={() => setFile('run')}>
            A run recorded elsewhere
          </Button>
        </div>
      )}
      {file === 'gates' && <GatesFile athlete={athlete} onClose={() => setFile(null)} />}
      {file === 'run' && <RunFile athlete={athlete} onClose={() => setFile(null)} />}
      {open && (
        <PageWindow title={TESTS[open].name} onClose={() => setOpen(null)}>
          <Modal.Body>
            <ReadingForm athlete={athlete} kind={open} style={style} onDone={() => setOpen(null)} />
          </Modal.Body>
        </PageWindow>
      )}
    </section>
  );
};
