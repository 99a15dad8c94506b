import {
  RESTRICTION_KINDS,
  restrictionInput,
  type Athlete,
  type Restriction,
} from '@gravek/contract/athlete';
import { holding } from '@gravek/library/restrictions';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { useCheckedForm } from '../controls/form';
import { RESTRICTION_NAMES } from '../controls/restrictionNames';
import { usePutAway } from '../controls/usePutAway';
import { useMayPlan, useMember } from '../member/member';
import { dayName } from '../controls/dates';

/** What an athlete may not do, and until when. One opening of the form is one restriction, however often it is sent. */
const AddForm = ({ athleteId, onDone }: { athleteId: string; onDone: () => void }) => {
  const { today } = useMember();
  const add = useWrite(
    (body: Restriction) => api.post(`/athletes/${athleteId}/restrictions`, body),
    'athletes',
    'run',
  );
  const [fresh] = useState<Restriction>(() => ({
    id: uuid(),
    athleteId,
    kind: 'reduced',
    from: today,
    until: null,
    share: 0.5,
    note: '',
  }));
  const { register, watch, errors, busy, over, onSubmit } = useCheckedForm<Restriction>(
    restrictionInput,
    { defaultValues: fresh },
    async (values) => {
      await add.mutateAsync(values);
      onDone();
    },
  );
  return (
    <Form className="row-line mt-2" noValidate onSubmit={onSubmit}>
      <Conflict problem={over} />
      <Field label="What" message={errors.kind?.message}>
        <Form.Select {...register('kind')}>
          {RESTRICTION_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {RESTRICTION_NAMES[kind]}
            </option>
          ))}
        </Form.Select>
      </Field>
      {watch('kind') === 'reduced' && (
        <Field label="Leaves" message={errors.share?.message}>
          <Form.Select {...register('share', { valueAsNumber: true })}>
            <option value={0.75}>three quarters of the reps</option>
            <option value={0.5}>half of the reps</option>
            <option value={0.25}>a quarter of the reps</option>
          </Form.Select>
        </Field>
      )}
      <Field label="Until" message={errors.until?.message} hint="Empty: until it is lifted.">
        <Form.Control
          type="date"
          {...register('until', { setValueAs: (day: string | null) => day || null })}
        />
      </Field>
      <Field label="Note" message={errors.note?.message}>
        <Form.Control {...register('note')} />
      </Field>
      <Button type="submit" className="align-self-end" disabled={busy}>
        Restrict
      </Button>
      <p className="quiet small-text mb-0">
        Return to play needs the clearance of a licensed professional.
      </p>
    </Form>
  );
};

export const Restrictions = ({ athlete }: { athlete: Athlete }) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const [adding, setAdding] = useState(false);
  const putAway = usePutAway('athletes');
  const held = new Set(holding(athlete.restrictions, today));
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
        {athlete.restrictions.map((restriction) => (
          <li key={restriction.id} className="row-line">
            <strong>{RESTRICTION_NAMES[restriction.kind]}</strong>
            <span className={held.has(restriction) ? '' : 'quiet'}>
              {dayName(restriction.from)} to{' '}
              {restriction.until === null ? 'when it is cleared' : dayName(restriction.until)}
              {restriction.kind === 'reduced' &&
                `, ${Math.round(restriction.share * 100)} % of the reps`}
              {held.has(restriction) ? '' : ', over'}
            </span>
            {restriction.note && <span className="quiet">{restriction.note}</span>}
            {mayPlan && (
              <Button
                size="sm"
                variant="link"
                className="ms-auto p-0"
                onClick={() =>
                  void putAway(
                    `/athletes/${athlete.id}/restrictions/${restriction.id}`,
                    restriction.kind === 'pain'
                      ? `${athlete.name} is cleared.`
                      : 'The restriction is lifted.',
                  )
                }
              >
                {restriction.kind === 'pain' ? 'Clear' : 'Lift'}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {adding && <AddForm athleteId={athlete.id} onDone={() => setAdding(false)} />}
    </section>
  );
};
