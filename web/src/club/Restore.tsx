import { CLUB_FILE_MAX, isUnderWay, type Restoring } from '@gravek/contract/archive';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, sendFile, sentenceOf } from '../api/client';
import { Field } from '../controls/Field';
import { Progress } from '../controls/Progress';
import { tell } from '../controls/toasts';

const LOOK_MS = 1_000;
const RESTORING = ['club', 'restoring'];

type Answer = { last: Restoring | null };

/**
 * How the archive stands that was sent to this club last; null when none was. What it brings is shown as soon
 * as it is there.
 *
 * @param enabled whether to ask: owners may
 */
export const useRestoring = (enabled: boolean): Restoring | null => {
  const client = useQueryClient();
  const last =
    useQuery({
      queryKey: RESTORING,
      enabled,
      queryFn: () => api.get<Answer>('/archive/restoring'),
      refetchInterval: ({ state: { data } }) =>
        data?.last && isUnderWay(data.last) ? LOOK_MS : false,
    }).data?.last ?? null;
  const before = useRef<Restoring | null>(null);
  useEffect(() => {
    if (last?.state === 'done' && before.current && isUnderWay(before.current)) {
      tell('The club is restored. Its people are invited: make their links under People.');
      void client.invalidateQueries();
    }
    before.current = last;
  }, [last, client]);
  return last;
};

const WORDS: Partial<Record<Restoring['state'], string>> = {
  waits: 'The server reads another club’s archive first. Yours comes next.',
  checks: 'The server looks through the file',
  stores: 'The file is good. It is being put in',
  counts: 'All of it is in. The reps are being counted.',
};

const UnderWay = ({ last: { state, done, total } }: { last: Restoring }) => {
  const isMeasured = state === 'checks' || state === 'stores';
  const part = isMeasured && total > 0 ? Math.min(1, done / total) : null;
  return (
    <div className="stack">
      <div role="status">
        {WORDS[state]}
        {part !== null && `: ${Math.floor(part * 100)} %`}
      </div>
      <Progress name="Reading the archive in" part={part} />
      <div className="quiet small-text">
        Large clubs take minutes. You may leave this page; it goes on by itself.
      </div>
    </div>
  );
};

const whyNot = (last: Restoring | null): string | null => {
  if (last?.state === 'refused') return last.said;
  if (last?.state !== 'stopped') return null;
  return 'The server stopped while it read the file. Nothing was changed; send it again.';
};

/** An archive goes into a club that holds nothing yet. */
export const Restore = ({ last }: { last: Restoring | null }) => {
  const client = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const [sending, setSending] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  /** what was said of a file before another was chosen */
  const [put, setPut] = useState<Restoring | null>(null);
  const restore = async (chosen: File): Promise<void> => {
    setProblem(null);
    if (chosen.size > CLUB_FILE_MAX) {
      setProblem(
        `An archive of more than ${CLUB_FILE_MAX / 1e6} MB is loaded at the terminal of the server.`,
      );
      return;
    }
    setSending(true);
    try {
      client.setQueryData(RESTORING, await sendFile<Answer>('/archive', chosen));
    } catch (error) {
      setProblem(sentenceOf(error));
      // It may have arrived all the same, and only the answer was lost.
      await client.invalidateQueries({ queryKey: RESTORING });
    } finally {
      setSending(false);
    }
  };
  const said = problem ?? (last === put ? null : whyNot(last));
  const reads = last !== null && isUnderWay(last);
  const form = (
    <Form
      // What was chosen stays, for another try.
      hidden={reads}
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
            setPut(last);
            setFile((event.target as HTMLInputElement).files?.[0] ?? null);
          }}
        />
      </Field>
      {said && (
        <div className="note note-wrong lines" role="alert">
          {said}
        </div>
      )}
      <Button type="submit" className="align-self-start" disabled={!file || sending}>
        {sending ? 'Sending the file …' : 'Restore it here'}
      </Button>
    </Form>
  );
  return (
    <>
      {reads && <UnderWay last={last} />}
      {form}
    </>
  );
};
