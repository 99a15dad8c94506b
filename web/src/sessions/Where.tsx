import type { Ground } from '@gravek/contract/ground';
import type { SessionInput } from '@gravek/contract/session';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';

type On = Pick<SessionInput, 'groundId' | 'place'>;

/** On which ground of the club a session is, or where else. */
export const Where = ({
  grounds,
  groundId,
  place,
  messages,
  onWhere,
}: On & {
  grounds: readonly Ground[];
  messages: Readonly<Record<string, string>>;
  onWhere: (where: Partial<On>) => void;
}) => {
  const choices = grounds.filter((ground) => !ground.archived || ground.id === groundId);
  return (
    <div className="stack" style={{ gap: 8 }}>
      {choices.length > 0 && (
        <Field label="Ground" message={messages.groundId}>
          <Form.Select
            value={groundId ?? ''}
            onChange={(event) => onWhere({ groundId: event.target.value || null })}
          >
            <option value="">elsewhere</option>
            {choices.map((choice) => (
              <option key={choice.id} value={choice.id}>
                {choice.archived ? `${choice.name}, put away` : choice.name}
              </option>
            ))}
          </Form.Select>
        </Field>
      )}
      {groundId === null && (
        <Field label="Place" message={messages.place}>
          <Form.Control
            value={place}
            onChange={(event) => onWhere({ place: event.target.value })}
          />
        </Field>
      )}
    </div>
  );
};
