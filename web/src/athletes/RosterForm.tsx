import { readRoster } from '@gravek/library/roster/rosterText';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { useAthletes } from '../api/queries';
import { counted } from '@gravek/core/words';
import { Conflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { AskWindow } from '../controls/Window';
import { useLengthStyle } from '../member/member';
import { AthleteWords, useAddAll } from './addAll';

const nameOf = (name: string): string => name.trim().toLowerCase();

/** Many athletes at once, from a list that was typed or pasted. */
export const RosterForm = ({ onClose }: { onClose: () => void }) => {
  // Each line keeps its id, so that a press after a lost answer makes nobody twice.
  const [draft, setDraft, discard] = useDraft<{ text: string; ids: Record<string, string> }>(
    'athletes.list',
    { text: '', ids: {} },
  );
  const style = useLengthStyle();
  const here = useAthletes().data ?? [];
  const { add, done, problem } = useAddAll(() => {
    discard();
    onClose();
  });
  const lines = readRoster(draft.text, style, here[0]?.squad ?? 'Squad');
  const known = new Map(
    here
      .filter((athlete) => !athlete.archived)
      .map((athlete) => [nameOf(athlete.name), athlete.id]),
  );
  // Somebody of the same name is there already, unless this list made them.
  const isHere = (name: string): boolean => {
    const id = known.get(nameOf(name));
    return id !== undefined && id !== draft.ids[nameOf(name)];
  };
  const fresh = lines.flatMap(({ athlete }) => (athlete && !isHere(athlete.name) ? [athlete] : []));
  const addFresh = (): void => {
    const ids = { ...draft.ids };
    for (const { name } of fresh) ids[nameOf(name)] ??= uuid();
    setDraft({ ...draft, ids });
    void add(fresh.map((athlete) => ({ id: ids[nameOf(athlete.name)]!, athlete })));
  };
  return (
    <AskWindow
      title="Add a list"
      scrollable
      act={
        done !== null
          ? `Adding ${done + 1} of ${fresh.length} …`
          : `Add ${counted(fresh.length, 'athlete')}`
      }
      disabled={fresh.length === 0 || done !== null}
      onClose={onClose}
      onSubmit={addFresh}
    >
      <Field
        label="One athlete a line"
        hint="The name first, then what is known: squad, position, left, height, birthday. Who is left-handed takes off from the right foot unless you change it later. Nothing is kept yet."
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
      {lines.length > 0 && (
        <ol className="list-plain small-text roster-lines" aria-label="What becomes of each line">
          {lines.map(({ line, text, athlete, why }) => (
            <li key={line}>
              <span className="figure quiet">{line}</span>{' '}
              {athlete === null ? (
                <span className="field-message" role="alert">
                  “{text}”: {why}
                </span>
              ) : isHere(athlete.name) ? (
                <span className="quiet">
                  {athlete.name} is in the club already and stays as they are.
                </span>
              ) : (
                <AthleteWords athlete={athlete} />
              )}
            </li>
          ))}
        </ol>
      )}
      <Conflict problem={problem && `${problem} What was typed is kept.`} />
    </AskWindow>
  );
};
