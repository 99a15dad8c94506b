import { OTHERS, type OtherThing } from '@gravek/core/layout/otherThings';
import { ChoiceAt, NumberAt, TextAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { SpanAt } from '../../parts/fields/Parameters';
import { FEET, MaybeAt } from '../../parts/fields/PicksAt';
import { useWork } from './work';

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
