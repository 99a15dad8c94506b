import {
  DATUMS,
  type Ground,
  groundInput,
  type GroundInput,
  SURFACES,
} from '@gravek/contract/ground';
import { check } from '@gravek/contract/problem';
import { WEEKDAYS } from '@gravek/contract/weekdays';
import { USUAL_GROUNDS } from '@gravek/library/planning/onGround';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api } from '../api/client';
import { useWrite } from '../api/queries';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';
import { ChoiceAt, LengthAt, NumberAt, TextAt } from '../parts/fields/At';
import { FormHere, useDraftedForm } from '../parts/fields/DraftedForm';
import { MaybeAt } from '../parts/fields/PicksAt';
import { Rows } from '../parts/fields/Rows';

const asOptions = <T extends string>(words: readonly T[]) =>
  words.map((word) => [word, word] as const);

/** What a ground may have, each a length or nothing. */
const LENGTHS = [
  ['laneM', 'Lane length before the target'],
  ['goalM', 'Goal, between the posts'],
  ['gapM', 'Fixed gaps, from one to the next'],
  ['baseM', 'From base to base'],
  ['uprightGapM', 'Bar, between the uprights'],
] as const;

/** What is built there or not, with the figures that are usual for it. */
const BUILT = [
  {
    ...{ at: 'rim', label: 'a rim and its lane' },
    usual: { outM: 1.6, laneM: 4.9, laneOutM: 5.8 },
    lengths: [
      ['outM', 'rim before the end line'],
      ['laneM', 'lane across'],
      ['laneOutM', 'lane from the end line'],
    ],
  },
  {
    ...{ at: 'net', label: 'a net' },
    usual: { heightM: 2.24, wideM: 9, lineM: 3 },
    lengths: [
      ['heightM', 'net, how high'],
      ['wideM', 'net across'],
      ['lineM', 'line before the net'],
    ],
  },
  {
    ...{ at: 'apron', label: 'the apron ends' },
    usual: { besideM: 12, outM: 16 },
    lengths: [
      ['besideM', 'beside the upright at'],
      ['outM', 'out from the bar at'],
    ],
  },
] as const;

const fresh = (): GroundInput => ({
  id: uuid(),
  name: '',
  note: '',
  surface: 'hall floor',
  lanes: 1,
  laneM: null,
  goalM: null,
  uprightGapM: null,
  apron: null,
  gapM: null,
  baseM: null,
  rim: null,
  net: null,
  marks: [],
  slots: [],
});

/** A ground of the club: what plans, drawings and sessions take from it. */
export const GroundForm = ({ stored, onDone }: { stored: Ground | null; onDone: () => void }) => {
  const write = useWrite((send: () => Promise<Ground>) => send(), 'grounds', 'run');
  const form = useDraftedForm<GroundInput, Ground>({
    name: `ground.${stored?.id ?? 'new'}`,
    stored: stored,
    valueOf: (stored) => {
      if (!stored) return fresh();
      const { version: _version, archived: _archived, ...ground } = stored;
      return ground;
    },
    older: (kept) => (kept as { ground: GroundInput }).ground,
    check: (value) => check(groundInput, value),
    send: ({ id, ...body }, version) =>
      write.mutateAsync(() =>
        version === null
          ? api.post<Ground>('/grounds', { id, ...body })
          : api.put<Ground>(`/grounds/${id}`, { ...body, version }),
      ),
    onSaved: (stored) => {
      tell(`${stored.name} is saved.`);
      onDone();
    },
  });
  return (
    <FormHere
      form={form}
      onClose={onDone}
      label={stored ? `Change ${stored.name}` : 'A new ground'}
    >
      {!stored && (
        <Field label="Begin with the usual figures of">
          <Form.Select
            value=""
            onChange={(event) => {
              const usual = USUAL_GROUNDS.find((ground) => ground.name === event.target.value);
              if (usual) form.set({ ...form.value, ...usual.figures });
            }}
          >
            <option value="">choose …</option>
            {USUAL_GROUNDS.map(({ name }) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Field>
      )}
      <div className="edit-grid">
        <TextAt at="name" label="Name of the ground" />
        <ChoiceAt at="surface" label="Surface" options={asOptions(SURFACES)} />
        <NumberAt at="lanes" label="Lanes side by side" decimals={0} />
        {LENGTHS.map(([at, label]) => (
          <LengthAt key={at} at={at} label={label} optional />
        ))}
        {BUILT.map(({ at, label, usual, lengths }) => (
          <MaybeAt key={at} at={at} label={label} fresh={() => usual}>
            {lengths.map(([part, name]) => (
              <LengthAt key={part} at={`${at}.${part}`} label={name} />
            ))}
          </MaybeAt>
        ))}
      </div>
      <fieldset className="stack" style={{ gap: 8 }}>
        <legend className="form-label mb-0">Lines that are there already</legend>
        <Rows
          at="marks"
          add="Add a line"
          fresh={(): GroundInput['marks'][number] => ({ name: '', of: 'board', fromM: 5 })}
        >
          {(row) => (
            <div className="edit-grid">
              <TextAt at={`${row}.name`} label="Called" />
              <ChoiceAt at={`${row}.of`} label="From the" options={asOptions(DATUMS)} />
              <LengthAt at={`${row}.fromM`} label="so far" />
            </div>
          )}
        </Rows>
      </fieldset>
      <fieldset className="stack" style={{ gap: 8 }}>
        <legend className="form-label mb-0">When the club has it</legend>
        <Rows
          at="slots"
          add="Add a slot"
          fresh={(): GroundInput['slots'][number] => ({
            day: 'Monday',
            from: '18:00',
            to: '19:30',
          })}
        >
          {(row) => (
            <div className="edit-grid">
              <ChoiceAt at={`${row}.day`} label="On" options={asOptions(WEEKDAYS)} />
              <TextAt at={`${row}.from`} label="from" type="time" />
              <TextAt at={`${row}.to`} label="to" type="time" />
            </div>
          )}
        </Rows>
      </fieldset>
      <TextAt at="note" label="Note" hint="Keys, lights, what floods after rain." />
    </FormHere>
  );
};
