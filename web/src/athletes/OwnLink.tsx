import type { Athlete } from '@gravek/contract/athlete';
import type { OwnLink as Link, OwnLinkKept } from '@gravek/contract/ownView';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, fieldsOf, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { dayName } from '../controls/dates';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';

const DAYS = [
  [30, 'a month'],
  [90, 'three months'],
  [365, 'a year'],
] as const;

/** The link by which an athlete sees the own page: given, shown once, taken back. */
export const OwnLink = ({ athlete }: { athlete: Athlete }) => {
  const path = `/athletes/${athlete.id}/own-link`;
  const kept = useQuery({
    queryKey: ['athletes', athlete.id, 'own-link'],
    queryFn: () => api.get<OwnLinkKept>(path),
  });
  const [days, setDays] = useState(90);
  const [guardian, setGuardian] = useState(false);
  const [newLink, setGiven] = useState<Link | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const give = useWrite((body: object) => api.post<Link>(path, body), 'athletes');
  const take = useWrite(() => api.remove(path), 'athletes');
  const until = kept.data?.until ?? null;
  const press = async (): Promise<void> => {
    setMessage(null);
    try {
      setGiven(await give.mutateAsync({ days, guardian }));
    } catch (error) {
      setMessage(Object.values(fieldsOf(error))[0] ?? sentenceOf(error));
    }
  };
  const address = newLink && `${window.location.origin}/own#${newLink.token}`;
  return (
    <section className="panel stack" aria-label="Own page">
      <h2 className="mb-0">Own page</h2>
      <p className="small-text quiet mb-0">
        By a link {athlete.name.split(' ')[0]} sees the plans made for them and their rhythm, the
        one cue, their own curve, and the sets of the last days, which they can work off alone and
        count; nothing of others, and nothing else can be changed.
      </p>
      {address ? (
        <Field label="The link" hint="It is shown only now; whoever has it sees the page.">
          <Form.Control
            readOnly
            value={address}
            onFocus={(event) => event.currentTarget.select()}
          />
        </Field>
      ) : (
        <>
          {until && (
            <p className="mb-0">
              A link holds until <strong>{dayName(until.slice(0, 10))}</strong>. A new one takes its
              place.
            </p>
          )}
          <div className="row-line align-items-end">
            <Field label="It holds for">
              <Form.Select
                size="sm"
                value={days}
                onChange={(event) => setDays(Number(event.target.value))}
              >
                {DAYS.map(([value, name]) => (
                  <option key={value} value={value}>
                    {name}
                  </option>
                ))}
              </Form.Select>
            </Field>
            <Button size="sm" disabled={give.isPending} onClick={() => void press()}>
              Give a link
            </Button>
          </div>
          {athlete.minor && (
            <Form.Check
              id={`guardian-${athlete.id}`}
              label={
                athlete.birthYear === null ? 'A guardian agreed, or of age' : 'A guardian agreed'
              }
              checked={guardian}
              onChange={(event) => setGuardian(event.target.checked)}
            />
          )}
          {message && (
            <div className="field-message" role="alert">
              {message}
            </div>
          )}
        </>
      )}
      {(until ?? newLink) && (
        <Button
          size="sm"
          variant="outline-dark"
          className="align-self-start"
          disabled={take.isPending}
          onClick={() =>
            void take
              .mutateAsync(undefined)
              .then(() => {
                setGiven(null);
                tell('The link holds no more.');
              })
              .catch((error: unknown) => setMessage(sentenceOf(error)))
          }
        >
          Take it back
        </Button>
      )}
    </section>
  );
};
