import {
  DATUMS,
  groundInput,
  SURFACES,
  type Ground,
  type GroundInput,
} from '@gravek/contract/ground';
import { WEEKDAYS } from '@gravek/contract/weekdays';
import { check } from '@gravek/contract/problem';
import { useState } from 'react';
import { USUAL_GROUNDS } from '@gravek/library/planning/onGround';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict, DraftBack, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';
import { useLengthStyle } from '../member/member';
import { ChoiceAt, LengthAt, MaybeAt, NumberAt, TextAt } from '../parts/fields/At';
import { changesOf, FieldsContext, messagesOf, type TypedTexts } from '../parts/fields/fields';
import { Rows } from '../parts/fields/Rows';

type Draft = {
  ground: GroundInput;
  /** null before it was first saved */
  version: number | null;
  /** what stands in fields and cannot be read, by field */
  typed: TypedTexts;
};

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

const draftOf = (own: Ground | null): Draft => {
  if (!own) return { ground: fresh(), version: null, typed: {} };
  const { version, archived: _archived, ...ground } = own;
  return { ground, version, typed: {} };
};

/** A ground of the club: what plans, drawings and sessions take from it. */
export const GroundForm = ({ own, onDone }: { own: Ground | null; onDone: () => void }) => {
  const style = useLengthStyle();
  const [draft, setDraft, discard, found] = useDraft<Draft>(
    `ground.${own?.id ?? 'new'}`,
    draftOf(own),
  );
  const { ground, typed } = draft;
  const [refused, setRefused] = useState<Record<string, string>>({});
  const conflict = useConflict<Ground>(
    (theirs) => discard(draftOf(theirs)),
    (version) => setDraft({ ...draft, version }),
  );
  const write = useWrite(
    ({ id, ...body }: GroundInput) =>
      draft.version === null
        ? api.post<Ground>('/grounds', { id, ...body })
        : api.put<Ground>(`/grounds/${id}`, { ...body, version: draft.version }),
    'grounds',
    'run',
  );
  const submit = async (): Promise<void> => {
    conflict.clear();
    const checked = check(groundInput, ground);
    setRefused(checked.ok ? {} : checked.fields);
    if (!checked.ok || Object.keys(typed).length > 0) {
      conflict.say('Mend the fields that are marked, then save.');
      return;
    }
    try {
      await write.mutateAsync(checked.value);
      discard();
      tell(`${checked.value.name} is saved.`);
      onDone();
    } catch (error) {
      setRefused(fieldsOf(error));
      conflict.show(error);
    }
  };

  return (
    <FieldsContext
      value={{
        ...changesOf(ground, typed, (next, texts) =>
          setDraft({ ...draft, ground: next, typed: texts }),
        ),
        ...{ problems: { ...refused, ...messagesOf(typed) }, style, body: null },
      }}
    >
      <Form
        noValidate
        className="stack mt-2"
        style={{ gap: 10 }}
        aria-label={own ? `Change ${own.name}` : 'A new ground'}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Conflict {...conflict.shown} />
        {found && <DraftBack onDrop={() => discard(draftOf(own))} />}
        {!own && (
          <Field label="Begin with the usual figures of">
            <Form.Select
              value=""
              onChange={(event) => {
                const usual = USUAL_GROUNDS.find((ground) => ground.name === event.target.value);
                if (usual)
                  setDraft({ ...draft, ground: { ...ground, ...usual.figures }, typed: {} });
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
        <div className="row-line">
          <Button type="submit" size="sm" disabled={write.isPending}>
            {write.isPending ? 'Saving …' : 'Save'}
          </Button>
          <Button size="sm" variant="outline-dark" onClick={onDone}>
            Close
          </Button>
        </div>
      </Form>
    </FieldsContext>
  );
};
