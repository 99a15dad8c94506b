import type { PhaseKind } from '@gravek/core/layout/sequence';
import type { MovementPhase } from '@gravek/contract/movement';
import { PHASE_KINDS, plainSteps } from '@gravek/contract/phaseKinds';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { ChoiceAt, FlagAt, NumberAt, TextAt, WordsAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { ParametersAt } from '../../parts/fields/Parameters';
import { FEET, MaybeAt } from '../../parts/fields/PicksAt';
import { Rows } from '../../parts/fields/Rows';
import { DrawnAt, freshPosture, PostureAt } from './PostureForm';
import { freeCode, useWork } from './work';

const BALL = [
  ['gather', 'taken in hand at its first contact'],
  ['dribble', 'put down at its first contact'],
  ['release', 'gone with its last contact'],
] as const;

const Read = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const phases = movement.phases.map((phase) => [phase.code, phase.name] as const);
  const exits = movement.phases.flatMap((phase) => phase.read?.options ?? []);
  return (
    <MaybeAt
      at={`${at}.read`}
      label="Ends with a read: what is seen decides how it goes on"
      fresh={() => ({
        watch: '',
        options: [1, 2].map((n) => ({
          code: freeCode([...exits, ...(n === 2 ? exits.slice(0, 1) : [])], `exit-${n}`),
          name: '',
          when: '',
          to: movement.phases.at(-1)!.code,
          weight: 1,
        })),
      })}
    >
      <div className="span-12 stack">
        <WordsAt at={`${at}.read.watch`} label="What is watched" rows={1} />
        <Rows<NonNullable<MovementPhase['read']>['options'][number]>
          at={`${at}.read.options`}
          add="Add an exit"
          fresh={() => ({
            code: freeCode(exits, 'exit'),
            name: '',
            when: '',
            to: movement.phases.at(-1)!.code,
            weight: 1,
          })}
        >
          {(path) => (
            <div className="edit-grid">
              <TextAt at={`${path}.name`} label="Exit" />
              <TextAt at={`${path}.when`} label="Right when it" />
              <ChoiceAt at={`${path}.to`} label="Goes on with" options={phases} />
              <NumberAt at={`${path}.weight`} label="How often, when picked at random" />
            </div>
          )}
        </Rows>
      </div>
    </MaybeAt>
  );
};

/** Everything about one phase. */
export const PhaseForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value: phase } = useAt<MovementPhase>(at);
  const steps = useAt<MovementPhase['steps']>(`${at}.steps`);
  const others = movement.phases.filter((other) => other.code !== phase.code);
  return (
    <>
      <div className="edit-grid">
        <TextAt at={`${at}.name`} label="Name" />
        <Field label="Kind of step" message={steps.message}>
          <Form.Select
            value={phase.steps.kind}
            onChange={(event) => steps.set(plainSteps(event.target.value as PhaseKind))}
          >
            {Object.entries(PHASE_KINDS).map(([kind, { name }]) => (
              <option key={kind} value={kind}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Field>
        <TextAt at={`${at}.eyes`} label="Eyes" />
      </div>
      <div className="edit-grid">
        <ParametersAt at={`${at}.steps`} fields={PHASE_KINDS[phase.steps.kind].fields} />
        <MaybeAt
          at={`${at}.turn`}
          label="The body turns before it"
          fresh={() => ({ deg: 90, to: 'right' })}
        >
          <NumberAt at={`${at}.turn.deg`} label="Turn" unit="°" decimals={0} />
          <ChoiceAt at={`${at}.turn.to`} label="To the" options={FEET} />
        </MaybeAt>
        <FlagAt at={`${at}.again`} label="A foot may land twice running: hop, jab, re-plant" />
        <ChoiceAt at={`${at}.ball`} label="The ball" options={BALL} none="as it was" />
        {!phase.read && (
          <ChoiceAt
            at={`${at}.then`}
            label="Goes on with"
            none="the next in the list"
            options={[
              ...others.map((other) => [other.code, other.name] as const),
              ['end', 'nothing: it ends here'],
            ]}
          />
        )}
        <Read at={at} />
        <MaybeAt
          at={`${at}.posture`}
          label="The posture counts: show it from the side"
          fresh={freshPosture}
        >
          <PostureAt at={`${at}.posture`} />
        </MaybeAt>
      </div>
      <h2>Look at</h2>
      <Rows at={`${at}.checkpoints`} add="Add a checkpoint" fresh={() => ({ look: '', right: '' })}>
        {(path) => (
          <div className="edit-grid">
            <TextAt at={`${path}.look`} label="What is looked at" />
            <TextAt at={`${path}.right`} label="What right looks like" />
            {phase.posture && <DrawnAt at={`${path}.drawn`} />}
          </div>
        )}
      </Rows>
    </>
  );
};
