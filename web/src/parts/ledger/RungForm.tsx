import type { Athlete } from '@gravek/contract/athlete';
import { rungChoiceInput, type RungChoiceInput } from '@gravek/contract/coachChoices';
import type { Ledger } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { RUNGS } from '@gravek/contract/rungs';
import { RUNG_NAMES } from '@gravek/library/session/setWords';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { Conflict } from '../../controls/Conflict';
import { Field } from '../../controls/Field';
import { useCheckedForm } from '../../controls/form';
import { tell } from '../../controls/toasts';
import { useChooseRung } from './useChooseRung';
import { WhyTake } from './WhyTake';

/** A rung that a coach chooses, with the reason. One opening of the form is one choice. */
export const RungForm = ({
  athlete,
  movement,
  ladder,
  onDone,
}: {
  athlete: Athlete;
  movement: Movement;
  ladder: Ledger['ladder'];
  onDone: () => void;
}) => {
  const choose = useChooseRung(athlete.id);
  const [fresh] = useState<RungChoiceInput>(() => ({
    id: uuid(),
    movement: movement.code,
    rung: ladder?.next ?? RUNGS[0],
    reason: '',
  }));
  const { register, errors, busy, over, onSubmit } = useCheckedForm<RungChoiceInput>(
    rungChoiceInput,
    { defaultValues: fresh },
    async (values) => {
      await choose.mutateAsync(values);
      tell('The rung is kept; what is run from now on decides what comes next.');
      onDone();
    },
  );
  return (
    <Form className="stack mt-2" noValidate onSubmit={onSubmit} aria-label="Another rung">
      <Conflict problem={over} />
      <Field label="Rung" message={errors.rung?.message}>
        <Form.Select {...register('rung')}>
          {RUNGS.map((rung) => (
            <option key={rung} value={rung}>
              {RUNG_NAMES[rung]}
            </option>
          ))}
        </Form.Select>
      </Field>
      <WhyTake
        reason={register('reason')}
        message={errors.reason?.message}
        take="Take this rung"
        busy={busy}
        onDone={onDone}
      />
    </Form>
  );
};
