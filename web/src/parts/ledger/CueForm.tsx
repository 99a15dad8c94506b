import type { Athlete } from '@gravek/contract/athlete';
import { cueChoiceInput, type CueChoiceInput } from '@gravek/contract/coachChoices';
import type { Ledger } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { faultOf } from '@gravek/library/movement/byCode';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { Conflict } from '../../controls/Conflict';
import { Field } from '../../controls/Field';
import { useCheckedForm } from '../../controls/form';
import { tell } from '../../controls/toasts';
import { useChooseCue } from './useChooseCue';
import { WhyTake } from './WhyTake';
import { percent } from './words';

/** Another cue than the one that is in force, with the reason. One opening of the form is one choice. */
export const CueForm = ({
  athlete,
  movement,
  ledger,
  onDone,
}: {
  athlete: Athlete;
  movement: Movement;
  ledger: Ledger;
  onDone: () => void;
}) => {
  const choose = useChooseCue(athlete.id);
  const rates = new Map(ledger.rows.map((row) => [row.code, row.rate]));
  const others = [...movement.faults]
    .filter((fault) => fault.code !== ledger.cue?.fault)
    .sort((a, b) => (rates.get(b.code) ?? 0) - (rates.get(a.code) ?? 0));
  const [fresh] = useState<CueChoiceInput>(() => ({
    id: uuid(),
    movement: movement.code,
    fault: ledger.cue?.fault ?? others[0]?.code ?? null,
    drill: null,
    reason: '',
  }));
  const { register, watch, errors, busy, over, onSubmit } = useCheckedForm<CueChoiceInput>(
    cueChoiceInput,
    { defaultValues: fresh },
    async (values) => {
      await choose.mutateAsync(values);
      tell('The cue is changed. A session under way keeps its own until it is changed there.');
      onDone();
    },
  );
  const fault = faultOf(movement, watch('fault') ?? '');
  const drills = fault ? movement.drills.filter((drill) => fault.drills.includes(drill.code)) : [];
  const nameOf = (code: string): string => {
    const chosen = faultOf(movement, code)!;
    const rate = rates.get(code);
    return `${chosen.cue} (${chosen.name.toLowerCase()}${rate === undefined ? '' : `, ${percent(rate)}`})`;
  };
  return (
    <Form className="stack mt-2" noValidate onSubmit={onSubmit} aria-label="Another cue">
      <Conflict problem={over} />
      <Field label="Cue" message={errors.fault?.message}>
        <Form.Select {...register('fault')}>
          {[...(ledger.cue ? [ledger.cue.fault] : []), ...others.map((other) => other.code)]
            .filter((code) => faultOf(movement, code))
            .map((code) => (
              <option key={code} value={code}>
                {nameOf(code)}
              </option>
            ))}
        </Form.Select>
      </Field>
      <Field label="Drill with it" message={errors.drill?.message}>
        <Form.Select {...register('drill', { setValueAs: (code: string | null) => code || null })}>
          <option value="">the fault’s own</option>
          {drills.map((drill) => (
            <option key={drill.code} value={drill.code}>
              {drill.name}
            </option>
          ))}
        </Form.Select>
      </Field>
      <WhyTake
        reason={register('reason')}
        message={errors.reason?.message}
        take="Take this cue"
        busy={busy}
        onDone={onDone}
      />
    </Form>
  );
};
