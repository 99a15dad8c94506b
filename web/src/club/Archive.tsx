import { CSV_TABLES, type CsvTableName } from '@gravek/contract/club';
import { CLUB_FILE_MAX } from '@gravek/contract/clubFile';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, sendFile, sentenceOf } from '../api/client';
import { useAthletes } from '../api/queries';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';
import { useMayPlan, useMember } from '../member/member';

const TABLE_NAMES: Record<CsvTableName, string> = {
  reps: 'Reps',
  faults: 'Faults',
  measures: 'Measures',
  loads: 'Loads',
};

/** The file is sent by the server as it is made; the password may be asked for first. */
const takeOut = async (): Promise<void> => {
  try {
    await api.get('/confirmed');
  } catch (error) {
    tell(sentenceOf(error));
    return;
  }
  const link = document.createElement('a');
  link.href = '/api/archive';
  link.download = '';
  link.click();
};

/** An archive goes into a club that holds nothing yet. */
const Restore = () => {
  const client = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const restore = async (chosen: File): Promise<void> => {
    setProblem(null);
    if (chosen.size > CLUB_FILE_MAX) {
      setProblem(
        `An archive of more than ${CLUB_FILE_MAX / 1e6} MB is loaded at the terminal of the server.`,
      );
      return;
    }
    setBusy(true);
    try {
      await sendFile('/archive', chosen);
      await client.invalidateQueries();
      setFile(null);
      tell('The club is restored. Its people are invited: make their links under People.');
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Form
      className="stack"
      onSubmit={(event) => {
        event.preventDefault();
        if (file) void restore(file);
      }}
    >
      <Field
        label="An archive for this club, which holds nothing yet"
        hint="Its people are invited, with the roles that they had."
      >
        <Form.Control
          type="file"
          accept=".json,application/json"
          onChange={(event) => {
            setProblem(null);
            setFile((event.target as HTMLInputElement).files?.[0] ?? null);
          }}
        />
      </Field>
      {problem && (
        <div className="note note-wrong lines" role="alert">
          {problem}
        </div>
      )}
      <Button type="submit" className="align-self-start" disabled={!file || busy}>
        {busy ? 'Restoring: large clubs take minutes …' : 'Restore it here'}
      </Button>
    </Form>
  );
};

/** The club out of Gravek: all of it for another Gravek, tables for a spreadsheet; and into an empty one. */
export const Archive = () => {
  const { role } = useMember();
  const mayPlan = useMayPlan();
  const athletes = useAthletes().data;
  if (!mayPlan) return null;
  return (
    <section className="panel stack" aria-label="Out and in">
      <h2 className="mb-0">Out and in</h2>
      {role === 'owner' && (
        <div>
          <Button variant="outline-dark" onClick={() => void takeOut()}>
            The whole club as one file
          </Button>
          <div className="quiet small-text mt-1">
            Everything but passwords and calendar addresses. It holds names and health notes: keep
            it as you keep those.
          </div>
        </div>
      )}
      <div>
        <div className="figure-label mb-1">For a spreadsheet, as CSV</div>
        <div className="row-line">
          {CSV_TABLES.map((table) => (
            <a
              key={table}
              className="btn btn-outline-dark btn-sm"
              href={`/api/csv/${table}`}
              download
            >
              {TABLE_NAMES[table]}
            </a>
          ))}
        </div>
      </div>
      {role === 'owner' && athletes?.length === 0 && <Restore />}
    </section>
  );
};
