import {
  RESTRICTION_KINDS,
  type Athlete,
  type Restriction,
  type RestrictionKind,
} from '@gravek/contract';
import { holding } from '@gravek/library';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { usePutAway } from '../api/usePutAway';
import { useMayPlan, useMember } from '../app/member';
import { Field } from '../controls/Field';
import { RESTRICTION_NAMES } from './restrictions';

export const Restrictions = ({ athlete }: { athlete: Athlete }) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const [adding, setAdding] = useState(false);
  const [kind, setKind] = useState<RestrictionKind>('reduced');
  const [until, setUntil] = useState('');
  const [messages, setMessages] = useState<Record<string, string>>({});
  const add = useWrite(
    (body: Restriction) => api.post(`/athletes/${athlete.id}/restrictions`, body),
    'athletes',
  );
  const putAway = usePutAway('athletes');
  const held = new Set(holding(athlete.restrictions, today));
  const submit = async (): Promise<void> => {
    try {
      await add.mutateAsync({
        id: uuid(),
        athleteId: athlete.id,
        kind,
        from: today,
        until,
        note: '',
      });
      setAdding(false);
      setMessages({});
    } catch (error) {
      const fields = fieldsOf(error);
      setMessages(Object.keys(fields).length > 0 ? fields : { until: sentenceOf(error) });
    }
  };
  return (
    <section className="panel" aria-label="Restrictions">
      <div className="row-line mb-1">
        <h2 className="mb-0">Restrictions</h2>
        {mayPlan && !adding && (
          <Button size="sm" variant="link" className="ms-auto p-0" onClick={() => setAdding(true)}>
            Add
          </Button>
        )}
      </div>
      {athlete.restrictions.length === 0 && !adding && <span className="quiet">None.</span>}
      <ul className="list-plain">
        {athlete.restrictions.map((one) => (
          <li key={one.id} className="row-line">
            <strong>{RESTRICTION_NAMES[one.kind]}</strong>
            <span className={held.has(one) ? '' : 'quiet'}>
              {one.from} to {one.until}
              {held.has(one) ? '' : ', over'}
            </span>
            {one.note && <span className="quiet">{one.note}</span>}
            {mayPlan && (
              <Button
                size="sm"
                variant="link"
                className="ms-auto p-0"
                onClick={() =>
                  void putAway(
                    `/athletes/${athlete.id}/restrictions/${one.id}`,
                    'The restriction is lifted.',
                  )
                }
              >
                Lift
              </Button>
            )}
          </li>
        ))}
      </ul>
      {adding && (
        <Form
          className="row-line mt-2"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void submit();
          }}
        >
          <Field label="What" message={messages.kind}>
            <Form.Select
              value={kind}
              onChange={(event) => setKind(event.target.value as RestrictionKind)}
            >
              {RESTRICTION_KINDS.map((one) => (
                <option key={one} value={one}>
                  {RESTRICTION_NAMES[one]}
                </option>
              ))}
            </Form.Select>
          </Field>
          <Field label="Until" message={messages.until}>
            <Form.Control
              type="date"
              value={until}
              onChange={(event) => setUntil(event.target.value)}
            />
          </Field>
          <Button type="submit" className="align-self-end">
            Restrict
          </Button>
          <p className="quiet small-text mb-0">
            Return to play needs the clearance of a licensed professional.
          </p>
        </Form>
      )}
    </section>
  );
};
