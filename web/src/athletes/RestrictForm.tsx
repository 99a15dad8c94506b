import { RESTRICTION_KINDS, restrictionInput, type Restriction } from '@gravek/contract/athlete';
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
import { useMember } from '../member/member';

/** What an athlete may not do, and until when. One opening of the form is one restriction, however often it is sent. */
export const RestrictForm = ({ athleteId, onDone }: { athleteId: string; onDone: () => void }) => {
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
