import { type Movement, PLACES } from '@gravek/contract/movement';
import { ChoiceAt, LengthAt, NumberAt, TextAt } from '../../parts/fields/At';
import { FEET, MaybeAt } from '../../parts/fields/PicksAt';
import { Rows } from '../../parts/fields/Rows';
import { freshOther, OtherForm } from './OtherForm';
import { OtherwiseForm } from './SchoolForm';
import { freeCode, useWork } from './work';

type Place = NonNullable<Movement['place']>;
type Spot = Place['spots'][number];
type OtherSide = NonNullable<Place['otherSide']>;

const PLACE_NAMES: Record<Place['kind'], string> = {
  rim: 'a rim with its lane',
  goal: 'a goal',
  net: 'a net',
  diamond: 'the bases',
};
const PLACES_NAMED = PLACES.map((kind) => [kind, PLACE_NAMES[kind]] as const);

const freshSpot = (spots: readonly Spot[]): Spot => ({
  ...{ code: freeCode(spots, 'spot'), name: '', outM: 6, besideM: 0, faceDeg: 0 },
  onGoal: null,
});

/** What is built where the movement is done, and at which spots of it. */
export const PlaceForm = () => {
  const { movement } = useWork();
  const moments: [string, string][] = [
    ['start', 'the start'],
    ['end', 'the end'],
    ...movement.phases.map(({ code, name }): [string, string] => [code, name]),
  ];
  const phases = movement.phases.map(({ code, name }) => [code, name] as const);
  const first = movement.phases[0]!.code;
  const ways = movement.schools.flatMap(({ code, options }) =>
    options.map((way): [string, string] => [`${code}:${way.code}`, way.name]),
  );
  return (
    <MaybeAt
      at="place"
      label="It is done before something that is built"
      fresh={(): Place => ({
        ...{ kind: 'goal', at: 'start', writtenOn: 'right', swaps: [] },
        spots: [{ ...freshSpot([]), name: 'middle' }],
      })}
    >
      <ChoiceAt at="place.kind" label="Before" options={PLACES_NAMED} />
      <ChoiceAt at="place.at" label="What is at the spot" options={moments} />
      <ChoiceAt at="place.writtenOn" label="Written for the side" options={FEET} />
      <div className="span-12 stack" role="group" aria-label="Spots">
        <div className="form-label mb-0">Spots</div>
        <Rows<Spot> at="place.spots" add="Add a spot" fresh={freshSpot}>
          {(path) => (
            <div className="edit-grid">
              <TextAt at={`${path}.name`} label="Called" />
              <TextAt at={`${path}.twin`} label="On the other side, where it is something else" />
              <LengthAt at={`${path}.outM`} label="Out from its line" />
              <LengthAt at={`${path}.besideM`} label="Beside the middle" />
              <NumberAt
                at={`${path}.faceDeg`}
                label="Turned from facing it"
                unit="°"
                decimals={0}
              />
            </div>
          )}
        </Rows>
      </div>
      <div className="span-12 stack" role="group" aria-label="Change over on the other side">
        <div className="form-label mb-0">Change over on the other side</div>
        <Rows<{ a: string; b: string }>
          at="place.swaps"
          add="Add a pair"
          fresh={() => ({ a: first, b: first })}
        >
          {(path) => (
            <div className="edit-grid">
              <ChoiceAt at={`${path}.a`} label="To the middle" options={phases} />
              <ChoiceAt at={`${path}.b`} label="To the end" options={phases} />
            </div>
          )}
        </Rows>
      </div>
      <MaybeAt
        at="place.otherSide"
        label="Other steps on the other side, for the same hand"
        fresh={(): OtherSide => ({ changes: [], turns: [], checkpoints: [], others: [] })}
      >
        <div className="span-12 stack" role="group" aria-label="On the other side">
          <OtherwiseForm at="place.otherSide">
            {(change) =>
              ways.length > 0 && (
                <ChoiceAt
                  at={`${change}.taughtBy`}
                  label="Only where it is taught"
                  options={ways}
                  none="any way"
                />
              )
            }
          </OtherwiseForm>
          <div className="form-label mb-0">What stands there instead</div>
          <Rows at="place.otherSide.others" add="Add a thing or person" fresh={freshOther}>
            {(path) => <OtherForm at={path} />}
          </Rows>
        </div>
      </MaybeAt>
    </MaybeAt>
  );
};
