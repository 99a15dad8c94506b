import type { Athlete } from '@gravek/contract/athlete';
import { readRoster, type TypedAthlete } from '@gravek/library/rosterText';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { v7 as uuid } from 'uuid';
import { api, sentenceOf } from '../api/client';
import { useAthletes, useWrite } from '../api/queries';
import { counted } from '../controls/dates';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';
import { useLengthStyle } from '../member/member';

const nameOf = (name: string): string => name.trim().toLowerCase();

/** Many athletes at once, from a list that was typed or pasted. */
export const RosterForm = ({ onClose }: { onClose: () => void }) => {
  // Each line keeps its id, so that a press after a lost answer makes nobody twice.
  const [draft, setDraft, discard] = useDraft<{ text: string; ids: Record<string, string> }>(
    'athletes.list',
    { text: '', ids: {} },
  );
  const [done, setDone] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const style = useLengthStyle();
  const here = useAthletes().data ?? [];
  const write = useWrite((body: object) => api.post<Athlete>('/athletes', body), 'athletes', 'run');
  const { athletes, wrong } = readRoster(draft.text, style, here[0]?.squad ?? 'Squad');
  const known = new Map(
    here.filter((one) => !one.archived).map((one) => [nameOf(one.name), one.id]),
  );
  // Somebody of the same name is there already, unless this list made them.
  const fresh = athletes.filter(({ name }) => {
    const id = known.get(nameOf(name));
    return id === undefined || id === draft.ids[nameOf(name)];
  });
  const add = async (list: readonly TypedAthlete[]): Promise<void> => {
    const ids = { ...draft.ids };
    for (const { name } of list) ids[nameOf(name)] ??= uuid();
    setDraft({ ...draft, ids });
    setProblem(null);
    try {
      for (const [i, one] of list.entries()) {
        setDone(i);
        await write.mutateAsync({ ...one, id: ids[nameOf(one.name)], shoeM: null });
      }
      discard();
      tell(`${counted(list.length, 'athlete is', 'athletes are')} in the club.`);
      onClose();
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setDone(null);
    }
  };
  const there = athletes.length - fresh.length;
  return (
    <Modal show onHide={onClose} aria-labelledby="roster-form">
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void add(fresh);
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title as="h2" id="roster-form">
            Add a list
          </Modal.Title>
        </Modal.Header>
        <Modal.Body className="stack">
          <Field
            label="One athlete a line"
            hint="The name first, then what is known: squad, position, left, height, birth year."
          >
            <Form.Control
              as="textarea"
              rows={8}
              autoFocus
              value={draft.text}
              placeholder={'Ada Reed, Wings, left, 1.74\nJon Vale, Keepers'}
              onChange={(event) => setDraft({ ...draft, text: event.target.value })}
            />
          </Field>
          {wrong.map(({ line, text, why }) => (
            <div key={line} className="field-message" role="alert">
              Line {line}, “{text}”: {why}
            </div>
          ))}
          {there > 0 && (
            <div className="quiet small-text">
              {counted(there, 'name is', 'names are')} in the club already and stay as they are.
            </div>
          )}
          {problem && (
            <div className="note note-wrong" role="alert">
              {problem} What was typed is kept.
            </div>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="link" onClick={onClose}>
            Close
          </Button>
          <Button type="submit" disabled={fresh.length === 0 || done !== null}>
            {done !== null
              ? `Adding ${done + 1} of ${fresh.length} …`
              : `Add ${counted(fresh.length, 'athlete')}`}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
};
