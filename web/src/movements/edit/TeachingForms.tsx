import { PART_KINDS, type Part } from '@gravek/core/layout/part';
import { OTHERS, type OtherThing } from '@gravek/core/layout/sequence';
import {
  FAULT_FIGURES,
  LOADS,
  type Drill,
  type FaultFigure,
  type School,
} from '@gravek/contract/movement';
import { RUNGS } from '@gravek/contract/rungs';
import { PHASE_KINDS } from '@gravek/contract/phaseKinds';
import { RUNG_NAMES } from '@gravek/library/session/work';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { useRuleSets } from '../../parts/catalogue/useCatalogue';
import {
  ChoiceAt,
  FEET,
  FlagAt,
  LinesAt,
  MaybeAt,
  NumberAt,
  PicksAt,
  TextAt,
  WordsAt,
} from '../../parts/fields/At';
import { ParameterAt, SpanAt } from '../../parts/fields/Parameters';
import { Rows } from '../../parts/fields/Rows';
import { SetUpAt } from './SetUpForm';
import { useAt } from '../../parts/fields/fields';
import { freeCode, useWork } from './work';
import { freshPosture, PostureAt } from './PostureForm';

const FIGURE_NAMES: Record<FaultFigure, string> = {
  'first-step-shorter': 'first step shorter than planned',
  'shortened-before': 'a step shortened before the zone',
  'short-steps-longer': 'short steps longer than planned',
  slowed: 'speed lost at the end',
  'last-step-longer': 'last step longer than planned',
  'over-line': 'foot beyond the line',
  'foot-ahead-of-hip': 'foot ahead of the hip',
  drifted: 'drift in the jump',
  'cadence-under': 'cadence under the plan',
  'speed-over': 'speed over the plan',
};
const FIGURES_NAMED = FAULT_FIGURES.map((figure) => [figure, FIGURE_NAMES[figure]] as const);

const named = (list: readonly { code: string; name: string }[]): [string, string][] =>
  list.map((item) => [item.code, item.name]);

export const FaultForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value } = useAt<{ code: string; read?: boolean }>(at);
  const wrong = value.read === true;
  return (
    <>
      <div className="edit-grid">
        <TextAt at={`${at}.name`} label="Name" />
        <NumberAt at={`${at}.severity`} label="Severity, 1 small to 3 grave" decimals={0} />
        <FlagAt at={`${at}.safety`} label="Can hurt somebody" />
        <FlagAt at={`${at}.read`} label="A wrong answer to a read" />
        <ChoiceAt
          at={`${at}.figure`}
          label="A film or device shows it by"
          options={FIGURES_NAMED}
          none="nothing: it is seen"
        />
      </div>
      <WordsAt at={`${at}.sees`} label="What is seen" />
      <TextAt at={`${at}.cue`} label="Cue" hint="A few words, said before the next rep." />
      <PicksAt
        at={`${at}.phases`}
        label={wrong ? 'Answers the reads of' : 'Shows in'}
        options={named(wrong ? movement.phases.filter((phase) => phase.read) : movement.phases)}
        empty="No phase has a read yet."
      />
      <PicksAt
        at={`${at}.leadsTo`}
        label="Brings about"
        options={named(movement.faults.filter((fault) => fault.code !== value.code))}
        empty="There is no other fault yet."
      />
      <PicksAt
        at={`${at}.drills`}
        label="Drills against it"
        options={named(movement.drills)}
        empty="There is no drill yet."
      />
    </>
  );
};

const LOAD_NAMES: Record<(typeof LOADS)[number], string> = {
  jump: 'jumping',
  sprint: 'sprinting',
  contact: 'contact',
  volume: 'many reps',
};

const LOADS_NAMED = LOADS.map((load) => [load, LOAD_NAMES[load]] as const);

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
  const phases = named(movement.phases);
  const exits = movement.phases.flatMap((phase) => named(phase.read?.options ?? []));
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
      <ChoiceAt at={`${at}.drill`} label="Drill" options={named(movement.drills)} />
      <TextAt at={`${at}.goOn`} label="On when" hint="What shows that it is time for the next." />
      <TextAt at={`${at}.weeks`} label="Weeks, where it is a matter of weeks" />
    </div>
  );
};

/** What is changed in one phase: some of its parameters. */
const Change = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value, set, message } = useAt<{ phase: string; set: Record<string, unknown> }>(at);
  const phase = movement.phases.find((phase) => phase.code === value.phase);
  const fields = phase ? PHASE_KINDS[phase.steps.kind].fields : {};
  const free = Object.entries(fields).filter(([key]) => !Object.hasOwn(value.set, key));
  const wrong = useAt(`${at}.set`).message ?? message;
  return (
    <div className="edit-grid">
      <ChoiceAt at={`${at}.phase`} label="Changes" options={named(movement.phases)} />
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
  const phases = named(movement.phases);
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
            <PicksAt at={`${path}.skips`} label="Leaves out" options={named(movement.phases)} />
            <PicksAt
              at={`${path}.without`}
              label="Does not count as a fault"
              options={named(movement.faults)}
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
                    options={named(movement.faults)}
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
                    options={named(movement.phases)}
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

const ends = [
  ['start', 'where the athlete starts'],
  ['end', 'where the athlete ends'],
] as const;

export const freshOther = (): OtherThing => ({
  ...{ kind: 'opponent', name: 'opponent', from: 'start', to: 'right' },
  ...{ ahead: { value: 2, of: 'm' }, aside: { value: 0, of: 'm' }, wideM: 0, moves: null },
});

export const OtherForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value } = useAt<OtherThing>(at);
  const froms = [
    ...ends,
    ...movement.phases.map((phase) => [phase.code, `at the first step of: ${phase.name}`] as const),
  ];
  const nowhere = { value: 0, of: 'm' } as const;
  return (
    <div className="edit-grid">
      <TextAt at={`${at}.name`} label="Name" />
      <TextAt at={`${at}.twin`} label="In the mirror, where it is something else" />
      <ChoiceAt
        at={`${at}.kind`}
        label="What it is"
        options={OTHERS.map((other) => [other, other])}
      />
      <ChoiceAt at={`${at}.from`} label="Set out from" options={froms} />
      <SpanAt at={`${at}.ahead`} label="Ahead" />
      <SpanAt at={`${at}.aside`} label="Aside" />
      <ChoiceAt at={`${at}.to`} label="To the" options={FEET} />
      <NumberAt at={`${at}.wideM`} label="Width, 0 for a point" unit="m" />
      {value.wideM === 0 && (
        <MaybeAt
          at={`${at}.moves`}
          label="It moves"
          fresh={() => ({
            ahead: nowhere,
            aside: nowhere,
            to: 'right',
            speedMps: 3,
            afterS: 0,
          })}
        >
          <SpanAt at={`${at}.moves.ahead`} label="Ahead by" />
          <SpanAt at={`${at}.moves.aside`} label="Aside by" />
          <ChoiceAt at={`${at}.moves.to`} label="To the" options={FEET} />
          <NumberAt at={`${at}.moves.speedMps`} label="Speed" unit="m/s" />
          <NumberAt at={`${at}.moves.afterS`} label="Starts after" unit="s" />
        </MaybeAt>
      )}
      {value.wideM === 0 && value.from !== 'start' && (
        <MaybeAt
          at={`${at}.comes`}
          label="It comes, and is there at that moment"
          fresh={() => ({ ahead: { value: 5, of: 'm' }, aside: nowhere, to: 'right', speedMps: 3 })}
        >
          <SpanAt at={`${at}.comes.ahead`} label="From ahead" />
          <SpanAt at={`${at}.comes.aside`} label="From aside" />
          <ChoiceAt at={`${at}.comes.to`} label="To the" options={FEET} />
          <NumberAt at={`${at}.comes.speedMps`} label="Speed" unit="m/s" />
        </MaybeAt>
      )}
    </div>
  );
};

const SIDES = [
  ['hand', 'the dominant hand'],
  ['take-off foot', 'the take-off foot'],
  ['neither', 'nothing: a call to the right goes right for everybody'],
] as const;

/** What a coach finds the movement by, and what holds for all of it. */
export const AboutForm = () => {
  const ruleSets = useRuleSets();
  return (
    <div className="stack">
      <WordsAt at="summary" label="In a sentence: what is planned" />
      <div className="edit-grid">
        <LinesAt at="usedBy" label="Used by" />
        <LinesAt at="faces" label="What the athlete faces" />
        <LinesAt at="alsoCalled" label="What else people call it" />
      </div>
      <LinesAt at="cautions" label="Mind" rows={4} />
      <div className="edit-grid">
        <ChoiceAt at="writtenFor.by" label="The side is decided by" options={SIDES} />
        <ChoiceAt at="writtenFor.side" label="It is written for the" options={FEET} />
      </div>
      <PicksAt at="loads" label="Asks of the body" options={LOADS_NAMED} />
      <PicksAt
        at="ruleSets"
        label="Held to the step rules of"
        options={ruleSets.map((set) => [set.id, set.name] as const)}
      />
    </div>
  );
};
