import { type Part, PART_KINDS } from '@gravek/core/layout/part';
import type { Drill } from '@gravek/contract/movement';
import { RUNGS } from '@gravek/contract/rungs';
import { RUNG_NAMES } from '@gravek/library/session/setWords';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { ChoiceAt, NumberAt, TextAt, WordsAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { MaybeAt, PicksAt } from '../../parts/fields/PicksAt';
import { LOADS_NAMED } from './loadNames';
import { SetUpAt } from './SetUpForm';
import { codeNames, useWork } from './work';

const PART_NAMES: Record<Part['kind'], string> = {
  all: 'the whole',
  last: 'the last steps',
  steps: 'some steps',
  phases: 'some phases',
  'until-read': 'up to the first read',
  hold: 'up to a step, and hold',
};

export const DrillForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value: drill } = useAt<Drill>(at);
  const part = useAt<Part>(`${at}.part`);
  const phases = codeNames(movement.phases);
  const exits = movement.phases.flatMap((phase) => codeNames(phase.read?.options ?? []));
  const fresh = (kind: Part['kind']): Part => {
    const [first, last] = [movement.phases[0]!.code, movement.phases.at(-1)!.code];
    const parts: Record<Part['kind'], Part> = {
      all: { kind: 'all' },
      last: { kind: 'last', steps: 2 },
      steps: { kind: 'steps', from: 1, to: 3 },
      phases: { kind: 'phases', from: first, to: last },
      'until-read': { kind: 'until-read' },
      hold: { kind: 'hold', step: 1, holdS: 3 },
    };
    return parts[kind];
  };
  return (
    <>
      <div className="edit-grid">
        <TextAt at={`${at}.name`} label="Name" />
        <NumberAt at={`${at}.speedFraction`} label="Speed, % of full" scale={100} decimals={0} />
        <Field label="Part" message={part.message}>
          <Form.Select
            value={drill.part.kind}
            onChange={(event) => part.set(fresh(event.target.value as Part['kind']))}
          >
            {PART_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {PART_NAMES[kind]}
              </option>
            ))}
          </Form.Select>
        </Field>
        {drill.part.kind === 'last' && (
          <NumberAt at={`${at}.part.steps`} label="How many" decimals={0} />
        )}
        {drill.part.kind === 'steps' && (
          <>
            <NumberAt at={`${at}.part.from`} label="From step" decimals={0} />
            <NumberAt at={`${at}.part.to`} label="To step" decimals={0} />
          </>
        )}
        {drill.part.kind === 'phases' && (
          <>
            <ChoiceAt at={`${at}.part.from`} label="From" options={phases} />
            <ChoiceAt at={`${at}.part.to`} label="To" options={phases} />
          </>
        )}
        {drill.part.kind === 'hold' && (
          <>
            <NumberAt at={`${at}.part.step`} label="Hold at step" decimals={0} />
            <NumberAt at={`${at}.part.holdS`} label="For" unit="s" />
          </>
        )}
        <ChoiceAt
          at={`${at}.force`}
          label="Exit at the read"
          options={exits}
          none="whichever is seen"
        />
      </div>
      <WordsAt at={`${at}.how`} label="How it goes" rows={3} />
      <TextAt at={`${at}.caution`} label="Mind, where it is planned and run" />
      <MaybeAt
        at={`${at}.loads`}
        label="Asks less or more of the body than the whole movement"
        fresh={() => []}
      >
        <PicksAt at={`${at}.loads`} label="Asks of the body" options={LOADS_NAMED} />
      </MaybeAt>
      <PicksAt
        at={`${at}.rungs`}
        label="Ladder"
        options={RUNGS.map((rung) => [rung, RUNG_NAMES[rung]] as const)}
      />
      <SetUpAt at={`${at}.setUp`} drill={drill} />
    </>
  );
};

/** One step of a movement's progression. */
export const StepForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  return (
    <div className="edit-grid">
      <ChoiceAt at={`${at}.drill`} label="Drill" options={codeNames(movement.drills)} />
      <TextAt at={`${at}.goOn`} label="On when" hint="What shows that it is time for the next." />
      <TextAt at={`${at}.weeks`} label="Weeks, where it is a matter of weeks" />
    </div>
  );
};

/** What is changed in one phase: some of its parameters. */
