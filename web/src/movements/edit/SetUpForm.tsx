import { STANDS } from '@gravek/core/session/runOrder';
import { type Call, HELPERS, PACES, SIDES, TARGET_KINDS } from '@gravek/contract/drillSet';
import type { Drill } from '@gravek/contract/movement';
import { RUNGS } from '@gravek/contract/rungs';
import { asDrilled } from '@gravek/library/movement/asDrilled';
import { spotsOf } from '@gravek/library/planning/place';
import { AS_USUAL } from '@gravek/library/session/setOfWork';
import { paceWord, RUNG_NAMES } from '@gravek/library/session/setWords';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { ChoiceAt, FlagAt, LinesAt, NumberAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { FEET, MaybeAt, PicksAt } from '../../parts/fields/PicksAt';
import {
  CALL_NAMES,
  freshCall,
  HELPER_NAMES,
  STAND_NAMES,
  TARGET_NAMES,
} from '../../parts/intoSession/setNames';
import { useWork } from './work';

const pairs = <K extends string>(
  codes: readonly K[],
  names: Readonly<Record<K, string>>,
): [K, string][] => codes.map((code) => [code, names[code]]);

/** What is called in a drill, with the figures of the call. */
const CallAt = ({ at }: { at: string }) => {
  const { value: call = null, message, set } = useAt<Call | null | undefined>(at);
  const waits = call?.kind === 'steps' || call?.kind === 'start';
  return (
    <>
      <Field label="What is called" message={message}>
        <Form.Select
          value={call?.kind ?? ''}
          onChange={({ target }) => set(freshCall(target.value as Call['kind'] | '', 180))}
        >
          <option value="">nothing</option>
          {pairs(Object.keys(CALL_NAMES) as Call['kind'][], CALL_NAMES).map(([kind, name]) => (
            <option key={kind} value={kind}>
              {name}
            </option>
          ))}
        </Form.Select>
      </Field>
      {call?.kind === 'steps' && <NumberAt at={`${at}.steps`} label="Steps called" decimals={0} />}
      {waits && <NumberAt at={`${at}.leastS`} label="Shortest wait" unit="s" />}
      {waits && <NumberAt at={`${at}.mostS`} label="Longest wait" unit="s" />}
      {call?.kind === 'tempo' && (
        <NumberAt at={`${at}.cadenceSpm`} label="Tempo, steps a minute" decimals={0} />
      )}
    </>
  );
};

/** How a drill is run: what one press puts into a session. */
export const SetUpAt = ({ at, drill }: { at: string; drill: Drill }) => {
  const { movement } = useWork();
  const { target = 'attempts' } = drill.setUp ?? {};
  const drilled = asDrilled(movement, drill.code);
  const exits = drilled.phases.flatMap(({ code, read }) =>
    (read?.options ?? []).map((option) => [`${code}:${option.code}`, option.name] as const),
  );
  const ways = movement.schools.flatMap(({ code, options }) =>
    options.map((option) => [`${code}:${option.code}`, option.name] as const),
  );
  const spots = spotsOf(drilled).map(({ name }) => [name, name] as const);
  return (
    <MaybeAt
      at={at}
      label="It is run in a way of its own"
      fresh={() => ({ ...AS_USUAL })}
      none={undefined}
    >
      <ChoiceAt
        at={`${at}.stand`}
        label="How they stand"
        options={pairs(STANDS, STAND_NAMES)}
        usual="turns"
      />
      <ChoiceAt
        at={`${at}.target`}
        label="What counts"
        options={pairs(TARGET_KINDS, TARGET_NAMES)}
        usual="attempts"
      />
      {target !== 'attempts' && (
        <NumberAt at={`${at}.amount`} label="How many of them" decimals={0} usual={5} />
      )}
      <NumberAt at={`${at}.sets`} label="Rounds" decimals={0} usual={1} />
      <NumberAt at={`${at}.reps`} label="Reps of each" decimals={0} usual={5} />
      <NumberAt at={`${at}.restS`} label="Rest" unit="s" decimals={0} usual={15} />
      <NumberAt
        at={`${at}.setRestS`}
        label="Rest between rounds"
        unit="s"
        decimals={0}
        usual={60}
      />
      {drill.setUp?.stand === 'row' && (
        <NumberAt at={`${at}.watch`} label="Watched at a call" decimals={0} usual={3} />
      )}
      {drill.setUp?.stand === 'pairs' && (
        <NumberAt at={`${at}.apartPaces`} label="Paces apart" decimals={0} usual={3} />
      )}
      <CallAt at={`${at}.call`} />
      <FlagAt at={`${at}.freeze`} label="Freeze at the end" />
      <FlagAt at={`${at}.redo`} label="Done again where the finish is missed" />
      {target === 'makes' && (
        <FlagAt at={`${at}.retryMissed`} label="What was missed comes once more at the end" />
      )}
      <div className="span-12 stack">
        <PicksAt
          at={`${at}.sides`}
          label="Sides"
          options={pairs(SIDES, { own: 'own side', other: 'other side' })}
          usual={['own']}
        />
        <PicksAt at={`${at}.leadFeet`} label="Foot that goes first" options={FEET} />
        <PicksAt
          at={`${at}.paces`}
          label="Speeds"
          options={[...PACES].reverse().map((pace) => [pace, paceWord(pace)] as const)}
          usual={[1]}
        />
        <PicksAt
          at={`${at}.rungs`}
          label="Rungs, one after another"
          options={RUNGS.map((rung) => [rung, RUNG_NAMES[rung]] as const)}
        />
        {exits.length > 0 && <PicksAt at={`${at}.exits`} label="Exits" options={exits} />}
        {ways.length > 0 && <PicksAt at={`${at}.ways`} label="Ways of teaching" options={ways} />}
        {spots.length > 0 && <PicksAt at={`${at}.spots`} label="Spots" options={spots} />}
        <PicksAt
          at={`${at}.helpers`}
          label="The others are"
          options={pairs(HELPERS, HELPER_NAMES)}
        />
        <LinesAt at={`${at}.bring`} label="What to bring" />
      </div>
    </MaybeAt>
  );
};
