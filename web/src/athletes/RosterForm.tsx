import { readRoster } from '@gravek/library/roster/rosterText';
import Form from 'react-bootstrap/Form';
import { useAthletes } from '../api/queries';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { useLengthStyle } from '../member/member';
import { RosterWindow } from './RosterWindow';

/** Many athletes at once, from a list that was typed or pasted. */
export const RosterForm = ({ onClose }: { onClose: () => void }) => {
  const [draft, setDraft, discard] = useDraft<{ text: string; ids: Record<string, string> }>(
    'athletes.list',
    { text: '', ids: {} },
  );
  const style = useLengthStyle();
  const squad = useAthletes().data?.[0]?.squad ?? 'Squad';
  return (
    <RosterWindow
      title="Add a list"
      lines={readRoster(draft.text, style, squad)}
      ids={draft.ids}
      onIds={(ids) => setDraft({ ...draft, ids })}
      onClose={onClose}
      onDone={() => {
        discard();
        onClose();
      }}
    >
      <Field
        label="One athlete a line"
        hint="The name first, then what is known: squad, position, left, height, birthday. Who is left-handed takes off from the right foot unless you change it later."
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
    </RosterWindow>
  );
};
