import { currentModel } from '@gravek/core/runup/currentModel';
import { modelLengthM } from '@gravek/core/runup/stepModel';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete, Trial } from '@gravek/contract/athlete';
import { type Source, SOURCES } from '@gravek/contract/source';
import {
  readPaste,
  readSteps,
  type RunReading,
  type TypedStep,
} from '@gravek/library/measuring/trialText';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict, DraftBack } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { Length } from '../controls/Figure';
import { Segments } from '../controls/Segments';
import { tell } from '../controls/toasts';
import { AskWindow } from '../controls/Window';
import { FitChart } from '../drawing/FitChart';
import { useLengthStyle, useMember } from '../member/member';
import { UNTIMED } from './untimed';

type Draft = RunReading & {
  id: string;
  takenOn: string;
  source: Source;
  rows: TypedStep[];
};

const SOURCE_NAMES: Record<Source, string> = {
  other: 'somebody else',
  device: 'a device',
  self: 'the athlete',
};

const emptyRows = (): TypedStep[] => Array.from({ length: 12 }, () => ({ length: '', time: '' }));

const Preview = ({
  athlete,
  trial,
  style,
}: {
  athlete: Athlete;
  trial: Pick<Trial, 'steps' | 'takenOn'>;
  style: LengthStyle;
}) => {
  const fit = currentModel({ ...athlete, trials: [trial] }).fit!;
  const odd = fit.steps.filter((step) => step.oddLength || step.oddCadence);
  return (
    <div className="stack">
      <div>
        Full step <Length m={fit.topLengthM} style={style} />, fits within{' '}
        <Length m={fit.lengthRmsM} style={{ ...style, small: true }} />.
        {!fit.timed && <span className="d-block">{UNTIMED}</span>}
        {odd.map((step) => (
          <span key={step.k} className="d-block">
            Step {step.k} is far from the others (expected about{' '}
            <Length m={modelLengthM(fit, step.k)} style={style} />
            ); check it.
          </span>
        ))}
      </div>
      <FitChart fit={fit} style={style} />
    </div>
  );
};

/** A measured run, typed step by step or pasted as two columns; it is fitted as it comes in. */
export const TrialForm = ({ athlete, onClose }: { athlete: Athlete; onClose: () => void }) => {
  const { today } = useMember();
  const style = useLengthStyle(athlete.shoeM);
  const fresh: Draft = {
    id: uuid(),
    takenOn: today,
    source: 'other',
    tape: 'each',
    clock: 'each',
    rows: emptyRows(),
  };
  const [draft, setDraft, discard, found] = useDraft<Draft>(`trial.${athlete.id}`, fresh);
  const [shown, setShown] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [served, setServed] = useState<Record<string, string>>({});
  const set = (change: Partial<Draft>): void => setDraft({ ...draft, ...change });
  // A draft of before tapes could run on has no word for its tape.
  const tape = draft.tape ?? 'each';
  const read = readSteps(draft.rows, { tape, clock: draft.clock }, style);
  // While rows are still being typed, only what is filled in wrong is pointed out.
  const messages = read.ok
    ? {}
    : Object.fromEntries(
        Object.entries(read.messages).filter(([cell]) => {
          const [column, n] = cell.split('.') as ['length' | 'time', string];
          return shown || draft.rows[Number(n)]![column].trim() !== '';
        }),
      );
  const save = useWrite(
    (body: unknown) => api.post<Athlete>(`/athletes/${athlete.id}/trials`, body),
    'athletes',
    'run',
  );

  const setRow = (n: number, change: Partial<TypedStep>): void => {
    const rows = draft.rows.map((row, i) => (i === n ? { ...row, ...change } : row));
    if (n === rows.length - 1 && rows.length < 60) rows.push({ length: '', time: '' });
    set({ rows });
  };

  const paste = (event: React.ClipboardEvent, n: number): void => {
    const text = event.clipboardData.getData('text');
    if (!/[\n\t]/.test(text.trim())) return;
    event.preventDefault();
    const rows = readPaste(text);
    if (typeof rows === 'string') {
      setProblem(rows);
      return;
    }
    setProblem(null);
    const all = [...draft.rows.slice(0, n), ...rows];
    while (all.length < 12) all.push({ length: '', time: '' });
    set({ rows: all.slice(0, 60) });
  };

  const submit = async (): Promise<void> => {
    setShown(true);
    if (!read.ok) return;
    try {
      await save.mutateAsync({
        id: draft.id,
        athleteId: athlete.id,
        takenOn: draft.takenOn,
        source: draft.source,
        note: '',
        steps: read.steps,
      });
      discard();
      tell('The run is measured; plans can be solved with it.');
      onClose();
    } catch (error) {
      setServed(fieldsOf(error));
      setProblem(sentenceOf(error));
    }
  };

  return (
    <AskWindow
      title={`Measured run of ${athlete.name}`}
      size="xl"
      act={save.isPending ? 'Saving …' : 'Save the run'}
      disabled={save.isPending}
      onClose={onClose}
      onSubmit={() => void submit()}
    >
      {found && <DraftBack onDrop={() => discard(fresh)} />}
      <Conflict problem={problem} />
      <div className="columns" style={{ gridTemplateColumns: 'minmax(280px, 5fr) 7fr' }}>
        <div className="stack">
          <div className="set-editor">
            <div className="span-6">
              <Field label="Day" message={served.takenOn}>
                <Form.Control
                  type="date"
                  value={draft.takenOn}
                  max={today}
                  onChange={(event) => set({ takenOn: event.target.value })}
                />
              </Field>
            </div>
            <div className="span-6">
              <Field label="Counted by">
                <Form.Select
                  value={draft.source}
                  onChange={(event) => set({ source: event.target.value as Source })}
                >
                  {[...SOURCES].reverse().map((source) => (
                    <option key={source} value={source}>
                      {SOURCE_NAMES[source]}
                    </option>
                  ))}
                </Form.Select>
              </Field>
            </div>
          </div>
          <div className="row-line">
            <span className="small-text quiet">Lengths are</span>
            <Segments
              label="Lengths are"
              value={tape}
              onChoose={(chosen) => set({ tape: chosen })}
              options={[
                { value: 'each', label: 'each step' },
                { value: 'running', label: 'a running tape' },
              ]}
            />
          </div>
          <div className="row-line">
            <span className="small-text quiet">Times are</span>
            <Segments
              label="Times are"
              value={draft.clock}
              onChoose={(clock) => set({ clock })}
              options={[
                { value: 'each', label: 'each step' },
                { value: 'running', label: 'a running clock' },
              ]}
            />
          </div>
          <div className="step-inputs">
            <span className="small-text quiet">Step</span>
            <span className="small-text quiet">Length</span>
            <span className="small-text quiet">Time, s</span>
            {draft.rows.map((row, n) => (
              <StepRow
                key={n}
                n={n}
                row={row}
                messages={messages}
                onChange={(change) => setRow(n, change)}
                onPaste={(event) => paste(event, n)}
              />
            ))}
          </div>
        </div>
        <div className="stack">
          {read.ok ? (
            <Preview
              athlete={athlete}
              trial={{ steps: read.steps, takenOn: draft.takenOn }}
              style={style}
            />
          ) : (
            <div className="empty">
              <strong>Type the steps, or paste two columns into the first row.</strong>
              From a standing start: tape from toe to toe or along one tape, and the time of each
              step; leave the times out where there was no watch. Four or more; ten or more show
              where the build-up ends. The fit is drawn here as you type.
            </div>
          )}
        </div>
      </div>
    </AskWindow>
  );
};

const StepRow = ({
  n,
  row,
  messages,
  onChange,
  onPaste,
}: {
  n: number;
  row: TypedStep;
  messages: Record<string, string>;
  onChange: (change: Partial<TypedStep>) => void;
  onPaste: (event: React.ClipboardEvent) => void;
}) => {
  const cell = (column: keyof TypedStep, name: string) => (
    <div className={messages[`${column}.${n}`] ? 'has-message' : undefined}>
      <Form.Control
        aria-label={`${name} of step ${n + 1}`}
        aria-invalid={messages[`${column}.${n}`] ? true : undefined}
        inputMode={column === 'time' ? 'decimal' : 'text'}
        autoComplete="off"
        value={row[column]}
        onChange={(event) => onChange({ [column]: event.target.value })}
        onPaste={onPaste}
      />
      {messages[`${column}.${n}`] && (
        <div className="field-message" role="alert">
          {messages[`${column}.${n}`]}
        </div>
      )}
    </div>
  );
  return (
    <>
      <span className="figure">{n + 1}</span>
      {cell('length', 'Length')}
      {cell('time', 'Time')}
    </>
  );
};
