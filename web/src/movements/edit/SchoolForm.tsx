import type { School } from '@gravek/contract/movement';
import { PHASE_KINDS } from '@gravek/contract/phaseKinds';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { ChoiceAt, NumberAt, TextAt, WordsAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { ParameterAt } from '../../parts/fields/Parameters';
import { FEET, PicksAt } from '../../parts/fields/PicksAt';
import { Rows } from '../../parts/fields/Rows';
import { freshPosture, PostureAt } from './PostureForm';
import { freeCode, codeNames, useWork } from './work';

const Change = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value, set, message } = useAt<{ phase: string; set: Record<string, unknown> }>(at);
  const phase = movement.phases.find((phase) => phase.code === value.phase);
  const fields = phase ? PHASE_KINDS[phase.steps.kind].fields : {};
  const free = Object.entries(fields).filter(([key]) => !Object.hasOwn(value.set, key));
  const wrong = useAt(`${at}.set`).message ?? message;
  return (
    <div className="edit-grid">
      <ChoiceAt at={`${at}.phase`} label="Changes" options={codeNames(movement.phases)} />
      {Object.keys(value.set).flatMap((key) => {
        const field = fields[key];
        return field ? [<ParameterAt key={key} at={`${at}.set.${key}`} field={field} />] : [];
      })}
      {free.length > 0 && (
        <Field label="Also change" message={wrong}>
          <Form.Select
            value=""
            onChange={(event) => {
              const key = event.target.value;
              const now = (phase?.steps as Record<string, unknown> | undefined)?.[key];
              set({ ...value, set: { ...value.set, [key]: now ?? null } });
            }}
          >
            <option value="">choose …</option>
            {free.map(([key, field]) => (
              <option key={key} value={key}>
                {field.label}
              </option>
            ))}
          </Form.Select>
        </Field>
      )}
    </div>
  );
};

/** What is otherwise in a way of teaching, or on the other side of a place: steps, turns, what is looked at. */
export const OtherwiseForm = ({
  at,
  children,
}: {
  at: string;
  /** more of each change, by its path */
  children?: (change: string) => React.ReactNode;
}) => {
  const { movement } = useWork();
  const phases = codeNames(movement.phases);
  const phase = movement.phases[0]!.code;
  return (
    <>
      <Rows at={`${at}.changes`} add="Change a phase" fresh={() => ({ phase, set: {} })}>
        {(row) => (
          <>
            <Change at={row} />
            {children?.(row)}
          </>
        )}
      </Rows>
      <Rows
        at={`${at}.turns`}
        add="Turn otherwise"
        fresh={() => ({ phase, turn: { deg: 0, to: 'right' } })}
      >
        {(row) => (
          <div className="edit-grid">
            <ChoiceAt at={`${row}.phase`} label="Turns otherwise before" options={phases} />
            <NumberAt at={`${row}.turn.deg`} label="By" unit="°" decimals={0} />
            <ChoiceAt at={`${row}.turn.to`} label="To the" options={FEET} />
          </div>
        )}
      </Rows>
      <Rows
        at={`${at}.checkpoints`}
        add="Look at something else"
        fresh={() => ({ phase, look: '', right: '' })}
      >
        {(row) => (
          <div className="edit-grid">
            <ChoiceAt at={`${row}.phase`} label="Looks otherwise at" options={phases} />
            <TextAt at={`${row}.look`} label="What is looked at" />
            <TextAt at={`${row}.right`} label="What right looks like" />
          </div>
        )}
      </Rows>
    </>
  );
};

export const SchoolForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value: school, set } = useAt<School>(at);
  return (
    <>
      <TextAt at={`${at}.question`} label="What they disagree on" />
      {school.options.map((option, i) => {
        const path = `${at}.options[${i}]`;
        return (
          <fieldset key={option.code} className="edit-group">
            <legend>
              Way {i + 1}
              {i === 0 && ', the usual one'}{' '}
              {school.options.length > 2 && (
                <Button
                  size="sm"
                  variant="link"
                  onClick={() =>
                    set({ ...school, options: school.options.filter((_, o) => o !== i) })
                  }
                >
                  Take out
                </Button>
              )}
            </legend>
            <TextAt at={`${path}.name`} label="Name" />
            <WordsAt at={`${path}.reason`} label="The reason its coaches give" />
            <OtherwiseForm at={path} />
            <PicksAt at={`${path}.skips`} label="Leaves out" options={codeNames(movement.phases)} />
            <PicksAt
              at={`${path}.without`}
              label="Does not count as a fault"
              options={codeNames(movement.faults)}
            />
            <Rows
              at={`${path}.faults`}
              add="See a fault otherwise"
              fresh={() => ({ code: movement.faults[0]!.code, sees: '', cue: '' })}
            >
              {(row) => (
                <div className="edit-grid">
                  <ChoiceAt
                    at={`${row}.code`}
                    label="Sees otherwise"
                    options={codeNames(movement.faults)}
                  />
                  <TextAt at={`${row}.sees`} label="What is seen" />
                  <TextAt at={`${row}.cue`} label="Cue" />
                </div>
              )}
            </Rows>
            <Rows
              at={`${path}.postures`}
              add="Hold the body otherwise"
              fresh={() => ({
                phase: movement.phases[0]!.code,
                posture: movement.phases[0]!.posture ?? freshPosture(),
              })}
            >
              {(row) => (
                <div className="edit-grid">
                  <ChoiceAt
                    at={`${row}.phase`}
                    label="Held otherwise in"
                    options={codeNames(movement.phases)}
                  />
                  <PostureAt at={`${row}.posture`} />
                </div>
              )}
            </Rows>
          </fieldset>
        );
      })}
      {school.options.length < 4 && (
        <Button
          size="sm"
          variant="outline-dark"
          className="align-self-start"
          onClick={() => set({ ...school, options: [...school.options, freshWay(school.options)] })}
        >
          Add a way
        </Button>
      )}
    </>
  );
};

export const freshWay = (options: readonly { code: string }[]): School['options'][number] => ({
  code: freeCode(options, 'way'),
  name: '',
  reason: '',
  changes: [],
  skips: [],
});
