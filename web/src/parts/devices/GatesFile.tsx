import { bodyOf } from '@gravek/core/layout/body';
import { fitSprint } from '@gravek/core/measuring/sprint';
import { modelCadenceSpm, modelLengthM } from '@gravek/core/runup/stepModel';
import { variantFrom } from '@gravek/core/session/variants';
import { formatLength, formatSpeed, speedParts } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { MeasuredRun } from '@gravek/contract/session';
import { gatesMeasured } from '@gravek/library/measuring/gates';
import { courseSuggestions, measuredMeans } from '@gravek/library/measuring/measuredRows';
import { plannedRun, type PlannedRun } from '@gravek/library/measuring/measuredRun';
import {
  GATE_COLUMNS,
  type GateColumn,
  type GateUnit,
  guessGates,
  guessUnit,
  readGates,
} from '@gravek/library/measuring/recorded';
import { simulatedGates } from '@gravek/library/measuring/simulated';
import { readTable } from '@gravek/library/roster/csv';
import { variedRun } from '@gravek/library/session/work';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../../api/client';
import { useApproach, useAthletePlans, useWrite } from '../../api/queries';
import { Conflict } from '../../controls/Conflict';
import { useDraft } from '../../controls/draft';
import { Field } from '../../controls/Field';
import { FileButton } from '../../controls/FileButton';
import { Segments } from '../../controls/Segments';
import { TableColumns } from '../../controls/TableColumns';
import { tell } from '../../controls/toasts';
import { AskWindow } from '../../controls/Window';
import { useLengthStyle, useMember } from '../../member/member';
import { useDocumentsHere } from '../catalogue/documents';
import { useCatalogue } from '../catalogue/useCatalogue';
import { measuredWords } from './words';

const FILE_MAX = 1_000_000;

/** Steps of a start that nobody has planned. */
const BUILD_UP = 24;

/** The athlete's own build-up, where no plan is chosen. */
const buildUp = (athlete: Athlete): PlannedRun => {
  const { model } = bodyOf(athlete);
  return {
    steps: Array.from({ length: BUILD_UP }, (_, i) => ({
      lengthM: modelLengthM(model, i + 1),
      intervalS: 60 / modelCadenceSpm(model, i + 1),
    })),
    steady: null,
  };
};

/** A plan as this athlete runs it; null while it is not known, or where it cannot be run. */
const usePlanned = (
  athlete: Athlete,
  approachId: string,
): { run: PlannedRun; movement: Movement } | null | undefined => {
  const approach = useApproach(approachId || undefined).data;
  const catalogue = useCatalogue();
  const here = useDocumentsHere(approach ? [approach.movement] : []);
  // Not there yet, as against a plan that cannot be run.
  if (approach === undefined || !catalogue.ready || !here) return undefined;
  if (approach === null) return null;
  const movement = catalogue.of(approach.movement);
  const { outline, steps } = variedRun(
    { name: approach.name, movement, choices: approach.choices },
    variantFrom('', 'own'),
    bodyOf(athlete),
  );
  const run = plannedRun(outline, steps, null);
  return run && { run, movement };
};

/** A run through gates stretch by stretch beside its plan, and what it speaks for. */
const Beside = ({ measured, movement }: { measured: MeasuredRun; movement: Movement }) => {
  const { rows } = measuredMeans(measured);
  const style = useLengthStyle();
  const speed = speedParts(0, style.unit).unit;
  const write = (mps: number): string => speedParts(mps, style.unit, 2).figure;
  return (
    <div className="table-scroll" tabIndex={0} role="group" aria-label="Beside the plan">
      <table className="grid-table small-text">
        <thead>
          <tr>
            <th>Up to</th>
            <th className="num">Planned, {speed}</th>
            <th className="num">Run, {speed}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ at, seenMps, plannedMps }) => (
            <tr key={at}>
              <td>{formatLength(at, style)}</td>
              <td className="num">{plannedMps === null ? 'past its end' : write(plannedMps)}</td>
              <td className="num">{seenMps !== null && write(seenMps)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {courseSuggestions(movement, measured).map((found) => (
        <p key={found.fault.code} className="mb-0 mt-1 small-text">
          <strong>{found.fault.name}</strong>: {measuredWords(found, style.unit)}. Look for it in
          the next reps.
        </p>
      ))}
    </div>
  );
};

/** Times from gates: pasted, or from a file, with columns matched; kept as a sprint test. */
export const GatesFile = ({ athlete, onClose }: { athlete: Athlete; onClose: () => void }) => {
  const { today } = useMember();
  const [id] = useState(() => uuid());
  const [text, setText, discard] = useDraft(`gates.${athlete.id}`, '');
  const [chosen, setChosen] = useState<(GateColumn | null)[] | null>(null);
  const [clock, setClock] = useState<'since' | 'each'>('since');
  const style = useLengthStyle();
  const [unitChosen, setUnit] = useState<GateUnit | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const open = (next: string): void => {
    const [heads] = next.split('\n', 1);
    setText(next);
    if (text.split('\n', 1)[0] === heads) return;
    // What was chosen of another table does not hold for this one.
    setChosen(null);
    setUnit(null);
  };
  const write = useWrite(
    (body: object) => api.post(`/athletes/${athlete.id}/readings`, body),
    'athletes',
  );
  const plans = useAthletePlans(athlete.id).data ?? [];
  const [planId, setPlanId] = useState('');
  const planned = usePlanned(athlete, planId);
  const table = text.trim() === '' ? null : readTable(text);
  const columns = chosen ?? (table ? guessGates(table.heads) : []);
  const unit: GateUnit =
    unitChosen ??
    guessUnit(table?.heads[columns.indexOf('distance')] ?? '') ??
    (style.unit === 'imperial' ? 'ft' : style.unit === 'yards' ? 'yd' : 'm');
  const read = table ? readGates(table, columns, clock, unit) : null;
  const simulated = table?.heads.some((head) => /^simulated/i.test(head)) ?? false;
  let result: string | null = null;
  let wrong: string | null = null;
  let measured: MeasuredRun | null = null;
  if (text.trim() !== '' && !table)
    wrong = 'There is no table in this: a row of heads, then a row a gate.';
  if (read && !read.ok) wrong = read.why;
  if (read?.ok) {
    try {
      const fit = fitSprint(read.splits);
      measured = planned ? gatesMeasured(read.splits, planned.run, simulated) : null;
      result = `Top speed ${formatSpeed(fit.topSpeedMps, style.unit, 2)}, time constant ${fit.tauS.toFixed(2)} s.${
        read.silent.length > 0
          ? ` No time came from the gate at ${read.silent.map((m) => formatLength(m, style)).join(' and ')}: it is left out.`
          : ''
      }`;
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      wrong =
        'No start of a run gives such times: check which column is which, and how the clock runs.';
    }
  }
  const save = async (): Promise<void> => {
    if (!read?.ok) return;
    try {
      await write.mutateAsync({
        id,
        athleteId: athlete.id,
        takenOn: today,
        source: 'device',
        note: 'From gates',
        reading: { kind: 'sprint', splits: read.splits },
      });
      discard('');
      tell(`The times are kept for ${athlete.name}.`);
      onClose();
    } catch (error) {
      setProblem(Object.values(fieldsOf(error))[0] ?? sentenceOf(error));
    }
  };
  return (
    <AskWindow
      title="Times from gates"
      act="Keep these times"
      disabled={!result || simulated || write.isPending}
      onClose={onClose}
      onSubmit={() => void save()}
    >
      <Field label="Paste the table" hint="Commas, semicolons or tabs; decimal commas too.">
        <Form.Control
          as="textarea"
          rows={6}
          value={text}
          onChange={(event) => {
            open(event.target.value);
          }}
        />
      </Field>
      <div className="row-line">
        <FileButton
          className="btn-sm btn-outline-dark"
          accept=".csv,.txt,.tsv"
          onFile={(file) => {
            if (file.size > FILE_MAX) setProblem('Gates do not write files of over 1 MB.');
            else
              void file.text().then((content) => {
                open(content);
              });
          }}
        >
          From a file
        </FileButton>
        <Button
          size="sm"
          variant="outline-dark"
          // Of a plan that is still on its way nothing can be run.
          disabled={planId !== '' && planned === undefined}
          onClick={() => {
            open(simulatedGates(planned?.run ?? buildUp(athlete)));
          }}
        >
          Simulated gates
        </Button>
      </div>
      {table && (
        <TableColumns table={table} kinds={GATE_COLUMNS} columns={columns} onColumns={setChosen} />
      )}
      {table && (
        <Segments
          label="Distances in"
          options={[
            { value: 'm', label: 'metres' },
            { value: 'yd', label: 'yards' },
            { value: 'ft', label: 'feet' },
          ]}
          value={unit}
          onChoose={setUnit}
        />
      )}
      {table && (
        <Segments
          label="The clock"
          options={[
            { value: 'since', label: 'runs on from the start' },
            { value: 'each', label: 'of each stretch' },
          ]}
          value={clock}
          onChoose={setClock}
        />
      )}
      {plans.length > 0 && (
        <Field label="Held against">
          <Form.Select size="sm" value={planId} onChange={(event) => setPlanId(event.target.value)}>
            <option value="">no plan</option>
            {plans.map((plan) => (
              <option key={plan.id} value={plan.id}>
                {plan.name}
              </option>
            ))}
          </Form.Select>
        </Field>
      )}
      {result && <p className="mb-0">{result}</p>}
      {measured && planned && <Beside measured={measured} movement={planned.movement} />}
      {simulated && (
        <p className="note small-text mb-0">
          These times are made up, to try it out: they are not kept among an athlete’s tests.
        </p>
      )}
      <Conflict problem={problem ?? wrong} />
    </AskWindow>
  );
};
