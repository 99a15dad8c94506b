import { type Call, type DrillSet, HELPERS, MOST_WATCHED } from '@gravek/contract/drillSet';
import Form from 'react-bootstrap/Form';
import { ChoiceAt, FlagAt, NumberAt, TextAt } from '../parts/fields/At';
import { PicksAt } from '../parts/fields/PicksAt';
import { CALL_NAMES, freshCall, HELPER_NAMES, STAND_NAMES } from '../parts/intoSession/setNames';

/** One up to so many, to choose from. */
const upTo = (most: number): (readonly [number, string])[] =>
  Array.from({ length: most }, (_, i) => [i + 1, String(i + 1)] as const);

const PARTNERS = ['partner', 'opponent', 'watcher', 'feeder'] as const;

/** How people stand in a drill set, what the others do, and how it is called. */
export const StandForm = ({
  at,
  set,
  lanes,
  inGroups,
  canRead,
  tempoSpm,
  onSet,
}: {
  /** where the set is in the session that is changed */
  at: string;
  set: DrillSet;
  /** of the ground */
  lanes: number;
  /** groups go round the sets that are stations */
  inGroups: boolean;
  /** the plan has a read whose exits can be called */
  canRead: boolean;
  /** steps a minute that a steady tempo begins with: the own target of whoever runs */
  tempoSpm: number;
  onSet: (change: Partial<DrillSet>) => void;
}) => {
  const { call, stand } = set;
  return (
    <div className="set-fields">
      <ChoiceAt at={`${at}.stand`} label="They stand" options={Object.entries(STAND_NAMES)} />
      {(stand === 'turns' || stand === 'roles') && (
        <ChoiceAt
          at={`${at}.lanes`}
          label="Lanes"
          none={`all of ${lanes}`}
          options={upTo(Math.max(lanes, set.lanes ?? 1, 6))}
        />
      )}
      {stand === 'row' && (
        <ChoiceAt
          at={`${at}.watch`}
          label="Watched at a call"
          none="as on the phone"
          options={upTo(MOST_WATCHED)}
        />
      )}
      {stand === 'pairs' && (
        <>
          <ChoiceAt
            at={`${at}.helpers[0]`}
            label="The other is"
            options={PARTNERS.map((role) => [role, HELPER_NAMES[role]])}
            usual="partner"
          />
          <ChoiceAt
            at={`${at}.apartPaces`}
            label="Own paces apart"
            none="not walked off"
            options={upTo(12)}
          />
        </>
      )}
      {stand === 'roles' && (
        <PicksAt
          at={`${at}.helpers`}
          label="The others"
          options={HELPERS.map((role) => [role, HELPER_NAMES[role]])}
        />
      )}
      <ChoiceAt
        at={`${at}.call.kind`}
        label="Called"
        none="not at all"
        options={Object.entries(CALL_NAMES).filter(([kind]) => kind !== 'reads' || canRead)}
        onChange={(kind) => onSet({ call: freshCall(kind as Call['kind'] | '', tempoSpm) })}
      />
      {call?.kind === 'tempo' && (
        <NumberAt at={`${at}.call.cadenceSpm`} label="Steps a minute" decimals={0} />
      )}
      {call?.kind === 'steps' && <NumberAt at={`${at}.call.steps`} label="Steps" decimals={0} />}
      {(call?.kind === 'steps' || call?.kind === 'start') && (
        <>
          <NumberAt at={`${at}.call.leastS`} label="Wait, least s" decimals={1} />
          <NumberAt at={`${at}.call.mostS`} label="most s" decimals={1} />
        </>
      )}
      {inGroups && set.station && <TextAt at={`${at}.coach`} label="Coach of the station" />}
      <div className="axis">
        <FlagAt at={`${at}.redo`} label="again without the finish" />
        <FlagAt at={`${at}.freeze`} label="freeze and check" />
        {inGroups && (
          <Form.Check
            type="checkbox"
            id={`${at}.station`}
            label="a station that groups go round"
            checked={set.station ?? false}
            onChange={(event) => onSet({ station: event.target.checked })}
          />
        )}
        {!at.startsWith('drillSets[0]') && !set.station && (
          <FlagAt at={`${at}.beside`} label="at the same time as the set before" />
        )}
      </div>
    </div>
  );
};
