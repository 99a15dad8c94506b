import { PLACES, type Movement } from '@gravek/contract/movement';
import Button from 'react-bootstrap/Button';
import { ChoiceAt, FEET, LengthAt, MaybeAt, NumberAt, TextAt } from './At';
import { freeCode, useAt, useWork } from './work';

type Place = NonNullable<Movement['place']>;
type Spot = Place['spots'][number];

const PLACE_NAMES: Record<Place['kind'], string> = {
  rim: 'a rim with its lane',
  goal: 'a goal',
  net: 'a net',
};
const PLACES_NAMED = PLACES.map((kind) => [kind, PLACE_NAMES[kind]] as const);

const freshSpot = (spots: readonly Spot[]): Spot => ({
  ...{ code: freeCode(spots, 'spot'), name: '', outM: 6, besideM: 0, faceDeg: 0 },
  onGoal: null,
});

/** A list in the place: its things one below the other, with one more by a press. */
const List = <T,>({
  at,
  title,
  more,
  fresh,
  children,
}: {
  at: string;
  title: string;
  more: string;
  fresh: (list: readonly T[]) => T;
  children: (path: string) => React.ReactNode;
}) => {
  const { value: list = [], message, set } = useAt<T[] | undefined>(at);
  return (
    <div className="span-12 stack" role="group" aria-label={title}>
      <div className="form-label mb-0">{title}</div>
      {list.map((_, i) => (
        <div key={i} className="edit-row">
          <div className="edit-grid">{children(`${at}[${i}]`)}</div>
          <Button
            size="sm"
            variant="link"
            onClick={() => set(list.filter((__, other) => other !== i))}
          >
            Take out
          </Button>
        </div>
      ))}
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
      <Button
        size="sm"
        variant="outline-dark"
        className="align-self-start"
        onClick={() => set([...list, fresh(list)])}
      >
        {more}
      </Button>
    </div>
  );
};

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
      <List<Spot> at="place.spots" title="Spots" more="Add a spot" fresh={freshSpot}>
        {(path) => (
          <>
            <TextAt at={`${path}.name`} label="Called" />
            <LengthAt at={`${path}.outM`} label="Out from its line" />
            <LengthAt at={`${path}.besideM`} label="Beside the middle" />
            <NumberAt at={`${path}.faceDeg`} label="Turned from facing it, °" decimals={0} />
          </>
        )}
      </List>
      <List<{ a: string; b: string }>
        at="place.swaps"
        title="Change over on the other side"
        more="Add a pair"
        fresh={() => ({ a: first, b: first })}
      >
        {(path) => (
          <>
            <ChoiceAt at={`${path}.a`} label="To the middle" options={phases} />
            <ChoiceAt at={`${path}.b`} label="To the end" options={phases} />
          </>
        )}
      </List>
    </MaybeAt>
  );
};
