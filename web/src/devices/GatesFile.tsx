import { bodyOf, fitSprint, modelCadenceSpm, modelLengthM, seeded } from '@gravek/core';
import type { Athlete } from '@gravek/contract';
import { guessGates, readGates, readTable, type GateColumn } from '@gravek/library';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { FileButton } from '../controls/FileButton';
import { Segments } from '../controls/Segments';
import { tell } from '../controls/toasts';
import { useMember } from '../member/member';

const NAMES = { distance: 'Distance, m', time: 'Time' } as const;
const FILE_MAX = 1_000_000;

const GATES_M = [5, 10, 20, 30];

/** Gates that are made up: this athlete's own build-up runs through them, each a hundredth off at most. */
const simulatedGates = (athlete: Athlete): string => {
  const { model } = bodyOf(athlete);
  const random = seeded(29);
  const rows = GATES_M.map((distanceM) => {
    let [wayM, timeS] = [0, 0];
    for (let k = 1; wayM < distanceM; k += 1) {
      const lengthM = modelLengthM(model, k);
      const part = Math.min(1, (distanceM - wayM) / lengthM);
      wayM += lengthM * part;
      timeS += (part * 60) / modelCadenceSpm(model, k);
    }
    return `${distanceM};${(timeS + 0.02 * (random() - 0.5)).toFixed(3).replace('.', ',')}`;
  });
  return ['distance;time', '0;0,000', ...rows].join('\n');
};

/** Times from gates: pasted, or from a file, with columns matched; kept as a sprint test. */
export const GatesFile = ({ athlete, onClose }: { athlete: Athlete; onClose: () => void }) => {
  const { today } = useMember();
  const [id] = useState(() => uuid());
  const [text, setText, discard] = useDraft(`gates.${athlete.id}`, '');
  const [chosen, setChosen] = useState<GateColumn[] | null>(null);
  const [clock, setClock] = useState<'since' | 'each'>('since');
  const [problem, setProblem] = useState<string | null>(null);
  const write = useWrite(
    (body: object) => api.post(`/athletes/${athlete.id}/readings`, body),
    'athletes',
  );
  const table = text.trim() === '' ? null : readTable(text);
  const columns = chosen ?? (table ? guessGates(table.heads) : []);
  const read = table ? readGates(table, columns, clock) : null;
  let result: string | null = null;
  let wrong: string | null = null;
  if (text.trim() !== '' && !table)
    wrong = 'There is no table in this: a row of heads, then a row a gate.';
  if (read && !read.ok) wrong = read.why;
  if (read?.ok) {
    try {
      const fit = fitSprint(read.splits);
      result = `Top speed ${fit.topSpeedMps.toFixed(2)} m/s, time constant ${fit.tauS.toFixed(2)} s.`;
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
        note: text === simulatedGates(athlete) ? 'Simulated gates' : 'From gates',
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
    <Modal show onHide={onClose} aria-labelledby="gates-title">
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="gates-title">
          Times from gates
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="stack">
        <Field label="Paste the table" hint="Commas, semicolons or tabs; decimal commas too.">
          <Form.Control
            as="textarea"
            rows={6}
            value={text}
            onChange={(event) => {
              setText(event.target.value);
              setChosen(null);
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
                  setText(content);
                  setChosen(null);
                });
            }}
          >
            From a file
          </FileButton>
          <Button
            size="sm"
            variant="outline-dark"
            onClick={() => {
              setText(simulatedGates(athlete));
              setChosen(null);
            }}
          >
            Simulated gates
          </Button>
        </div>
        {table && (
          <div className="film-fields">
            {(['distance', 'time'] as const).map((what) => (
              <Field key={what} label={NAMES[what]}>
                <Form.Select
                  size="sm"
                  value={columns.indexOf(what)}
                  onChange={(event) => {
                    const at = Number(event.target.value);
                    setChosen(
                      table.heads.map((_, i) =>
                        i === at ? what : columns[i] === what ? null : (columns[i] ?? null),
                      ),
                    );
                  }}
                >
                  <option value={-1}>Choose a column</option>
                  {table.heads.map((head, i) => (
                    <option key={i} value={i}>
                      {head || `Column ${i + 1}`}
                    </option>
                  ))}
                </Form.Select>
              </Field>
            ))}
          </div>
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
        {result && <p className="mb-0">{result}</p>}
        {(problem ?? wrong) && (
          <div className="note note-wrong" role="alert">
            {problem ?? wrong}
          </div>
        )}
        <Button disabled={!result || write.isPending} onClick={() => void save()}>
          Keep these times
        </Button>
      </Modal.Body>
    </Modal>
  );
};
