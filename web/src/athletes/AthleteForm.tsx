import { type Foot, usualTakeoffFoot } from '@gravek/core/feet';
import {
  type Athlete,
  athleteFields,
  type AthleteFields,
  athleteUpdate,
} from '@gravek/contract/athlete';
import { check } from '@gravek/contract/problem';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api } from '../api/client';
import { useAthletes, useWrite } from '../api/queries';
import { tell } from '../controls/toasts';
import { useLengthStyle } from '../member/member';
import { ChoiceAt, LengthAt, NumberAt, TextAt, WordListAt } from '../parts/fields/At';
import { FormWindow, useDraftedForm } from '../parts/fields/DraftedForm';
import { FEET } from '../parts/fields/PicksAt';

type Fields = AthleteFields & { id: string };

const fieldsOf = (athlete: Athlete | null): Fields => ({
  id: athlete?.id ?? uuid(),
  name: athlete?.name ?? '',
  squad: athlete?.squad ?? '',
  hand: athlete?.hand ?? 'right',
  takeoffFoot: athlete?.takeoffFoot ?? 'left',
  shoeM: athlete?.shoeM ?? null,
  legM: athlete?.legM ?? null,
  heightM: athlete?.heightM ?? null,
  birthYear: athlete?.birthYear ?? null,
  bornOn: athlete?.bornOn ?? null,
  positions: athlete?.positions ?? [],
});

/** From a draft in which the birth year and the positions were texts. */
const older = (kept: object): Fields => {
  const before = kept as Omit<Fields, 'positions'> & { birthYear: unknown; positions?: unknown };
  const { id, name, squad, hand, takeoffFoot, shoeM, legM, heightM, bornOn } = before;
  return {
    ...{ id, name, squad, hand, takeoffFoot, shoeM, legM, heightM, bornOn: bornOn || null },
    birthYear: Number(before.birthYear) || null,
    positions: String(before.positions ?? '')
      .split(',')
      .map((position) => position.trim())
      .filter(Boolean),
  };
};

/** Positions are named once. */
const tidy = ({ id: _id, ...athlete }: Fields): AthleteFields => ({
  ...athlete,
  positions: [...new Set(athlete.positions.map((position) => position.trim()).filter(Boolean))],
});

/** Add an athlete, or change one. */
export const AthleteForm = ({
  athlete = null,
  onClose,
}: {
  athlete?: Athlete | null;
  onClose: () => void;
}) => {
  const { unit } = useLengthStyle();
  const ofBody = { unit: unit === 'shoes' ? 'metric' : unit } as const;
  const navigate = useNavigate();
  const squads = [...new Set((useAthletes().data ?? []).map(({ squad }) => squad))];
  const write = useWrite((send: () => Promise<Athlete>) => send(), 'athletes', 'run');
  const form = useDraftedForm<Fields, Athlete>({
    name: `athlete.${athlete?.id ?? 'new'}`,
    stored: athlete,
    valueOf: fieldsOf,
    older,
    check: (value) => {
      const checked = athlete
        ? check(athleteUpdate, { ...tidy(value), version: athlete.version })
        : check(athleteFields, tidy(value));
      return checked.ok ? { ok: true, value: { ...checked.value, id: value.id } } : checked;
    },
    send: ({ id, ...body }, version) =>
      write.mutateAsync(() =>
        version === null
          ? api.post<Athlete>('/athletes', { ...body, id })
          : api.put<Athlete>(`/athletes/${id}`, { ...body, version }),
      ),
    onSaved: (stored) => {
      tell(athlete ? `${stored.name} is saved.` : `${stored.name} is in the club.`);
      onClose();
      if (!athlete) void navigate(`/athletes/${stored.id}`);
    },
  });
  const { value, set } = form;
  const chooseHand = (hand: Foot): void => {
    // Of somebody new the foot follows the hand until it is chosen; what is stored stays.
    const follows = !athlete && value.takeoffFoot === usualTakeoffFoot(value.hand);
    set({ ...value, hand, ...(follows && { takeoffFoot: usualTakeoffFoot(hand) }) });
  };
  const chooseBirthday = (bornOn: string): void =>
    set({
      ...value,
      bornOn: bornOn || null,
      birthYear: bornOn ? Number(bornOn.slice(0, 4)) : value.birthYear,
    });
  return (
    <FormWindow
      form={form}
      onClose={onClose}
      title={athlete ? `Change ${athlete.name}` : 'Add athlete'}
    >
      <TextAt at="name" label="Name" />
      <div className="set-editor">
        <div className="span-6">
          <TextAt at="squad" label="Squad" suggestions={squads} />
        </div>
        <div className="span-6">
          <WordListAt at="positions" label="Positions" />
        </div>
        <div className="span-6">
          <ChoiceAt
            at="hand"
            label="Dominant hand"
            options={FEET}
            onChange={(hand) => chooseHand(hand as Foot)}
          />
        </div>
        <div className="span-6">
          <ChoiceAt
            at="takeoffFoot"
            label="Take-off foot"
            options={FEET}
            hint="Mostly across from the hand."
          />
        </div>
        <div className="span-3">
          <LengthAt at="heightM" label="Height" style={ofBody} optional ofBody />
        </div>
        <div className="span-3">
          <LengthAt at="legM" label="Leg, hip to floor" style={ofBody} optional ofBody />
        </div>
        <div className="span-3">
          <LengthAt at="shoeM" label="Shoe, heel to toe" style={{ unit, small: true }} optional />
        </div>
        <div className="span-3">
          <NumberAt
            key={String(value.bornOn !== null)}
            at="birthYear"
            label="Birth year"
            decimals={0}
            optional
            disabled={value.bornOn !== null}
          />
        </div>
        <div className="span-6">
          <TextAt at="bornOn" label="Birthday, if known" type="date" onChange={chooseBirthday} />
        </div>
      </div>
    </FormWindow>
  );
};
