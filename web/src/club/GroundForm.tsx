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
import { LengthInput } from '../controls/LengthInput';
import { NumberInput } from '../controls/NumberInput';
import { tell } from '../controls/toasts';
import { useLengthStyle } from '../member/member';

type Typed = { text: string; message: string | null };

type Draft = {
  ground: GroundInput;
  /** null before it was first saved */
  version: number | null;
  /** what stands in fields and cannot be read, by field */
  typed: Record<string, Typed>;
};

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

/** Some of a list are taken out: what was typed in any of them goes too, since they are counted anew. */
const without = (typed: Draft['typed'], list: string): Draft['typed'] =>
  Object.fromEntries(Object.entries(typed).filter(([path]) => !path.startsWith(`${list}[`)));

/** A ground of the club: what plans, drawings and sessions take from it. */
export const GroundForm = ({ own, onDone }: { own: Ground | null; onDone: () => void }) => {
  const style = useLengthStyle();
  const [draft, setDraft, discard, found] = useDraft<Draft>(
    `ground.${own?.id ?? 'new'}`,
    draftOf(own),
  );
  const { ground, typed } = draft;
  const [fields, setFields] = useState<Record<string, string>>({});
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
  const set = (change: Partial<GroundInput>): void =>
    setDraft({ ...draft, ground: { ...ground, ...change } });
  /** A field that holds text: what it says, and what cannot be read of it. */
  const take = (path: string, change: Partial<GroundInput>, wrong: Typed | null): void => {
    const { [path]: _before, ...others } = typed;
    setDraft({
      ...draft,
      ground: { ...ground, ...change },
      typed: wrong ? { ...others, [path]: wrong } : others,
    });
  };
  const messageOf = (path: string): string | undefined =>
    typed[path]?.message ?? fields[path] ?? undefined;

  const submit = async (): Promise<void> => {
    conflict.clear();
    const checked = check(groundInput, ground);
    setFields(checked.ok ? {} : checked.fields);
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
      setFields(fieldsOf(error));
      conflict.show(error);
    }
  };

  const length = (
    path: string,
    label: string,
    valueM: number | null,
    change: (m: number | null) => Partial<GroundInput>,
    optional = true,
  ) => (
    <Field label={label} message={messageOf(path)}>
      <LengthInput
        valueM={valueM}
        style={style}
        optional={optional}
        kept={typed[path]?.text}
        onLength={(m) => take(path, change(m), null)}
        onMessage={(message, text) => message !== null && take(path, {}, { text, message })}
      />
    </Field>
  );
  /** Something that is built there or not, with the figures that are usual for it. */
  const built = <K extends 'rim' | 'net' | 'apron'>(
    what: K,
    label: string,
    usual: NonNullable<GroundInput[K]>,
  ) => (
    <Form.Check
      type="switch"
      id={`${what}-${ground.id}`}
      className="align-self-end"
      label={label}
      checked={Boolean(ground[what])}
      onChange={() =>
        setDraft({
          ...draft,
          ground: { ...ground, [what]: ground[what] ? null : usual },
          typed: Object.fromEntries(
            Object.entries(typed).filter(([path]) => !path.startsWith(`${what}.`)),
          ),
        })
      }
    />
  );
  return (
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
              const usual = USUAL_GROUNDS.find((one) => one.name === event.target.value);
              if (usual) setDraft({ ...draft, ground: { ...ground, ...usual.figures }, typed: {} });
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
        <Field label="Name of the ground" message={messageOf('name')}>
          <Form.Control
            value={ground.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </Field>
        <Field label="Surface" message={messageOf('surface')}>
          <Form.Select
            value={ground.surface}
            onChange={(event) => set({ surface: event.target.value as GroundInput['surface'] })}
          >
            {SURFACES.map((surface) => (
              <option key={surface}>{surface}</option>
            ))}
          </Form.Select>
        </Field>
        <Field label="Lanes side by side" message={messageOf('lanes')}>
          <NumberInput
            value={ground.lanes}
            decimals={0}
            kept={typed.lanes?.text}
            onNumber={(lanes) => take('lanes', { lanes }, null)}
            onMessage={(message, text) => message !== null && take('lanes', {}, { text, message })}
          />
        </Field>
        {length('laneM', 'Lane length before the target', ground.laneM, (laneM) => ({ laneM }))}
        {length('goalM', 'Goal, between the posts', ground.goalM, (goalM) => ({ goalM }))}
        {length('gapM', 'Fixed gaps, from one to the next', ground.gapM, (gapM) => ({ gapM }))}
        {length('baseM', 'From base to base', ground.baseM, (baseM) => ({ baseM }))}
        {length('uprightGapM', 'Bar, between the uprights', ground.uprightGapM, (uprightGapM) => ({
          uprightGapM,
        }))}
        {built('rim', 'a rim and its lane', { outM: 1.6, laneM: 4.9, laneOutM: 5.8 })}
        {ground.rim && (
          <>
            {length(
              'rim.outM',
              'rim before the end line',
              ground.rim.outM,
              (m) => ({ rim: { ...ground.rim!, outM: m! } }),
              false,
            )}
            {length(
              'rim.laneM',
              'lane across',
              ground.rim.laneM,
              (m) => ({ rim: { ...ground.rim!, laneM: m! } }),
              false,
            )}
            {length(
              'rim.laneOutM',
              'lane from the end line',
              ground.rim.laneOutM,
              (m) => ({ rim: { ...ground.rim!, laneOutM: m! } }),
              false,
            )}
          </>
        )}
        {built('net', 'a net', { heightM: 2.24, wideM: 9, lineM: 3 })}
        {ground.net && (
          <>
            {length(
              'net.heightM',
              'net, how high',
              ground.net.heightM,
              (m) => ({ net: { ...ground.net!, heightM: m! } }),
              false,
            )}
            {length(
              'net.wideM',
              'net across',
              ground.net.wideM,
              (m) => ({ net: { ...ground.net!, wideM: m! } }),
              false,
            )}
            {length(
              'net.lineM',
              'line before the net',
              ground.net.lineM,
              (m) => ({ net: { ...ground.net!, lineM: m! } }),
              false,
            )}
          </>
        )}
        {built('apron', 'the apron ends', { besideM: 12, outM: 16 })}
        {ground.apron && (
          <>
            {length(
              'apron.besideM',
              'beside the upright at',
              ground.apron.besideM,
              (m) => ({ apron: { ...ground.apron!, besideM: m! } }),
              false,
            )}
            {length(
              'apron.outM',
              'out from the bar at',
              ground.apron.outM,
              (m) => ({ apron: { ...ground.apron!, outM: m! } }),
              false,
            )}
          </>
        )}
      </div>
      <fieldset className="stack" style={{ gap: 8 }}>
        <legend className="form-label mb-0">Lines that are there already</legend>
        {ground.marks.map((mark, i) => {
          const change = (part: Partial<typeof mark>) => ({
            marks: ground.marks.map((one, o) => (o === i ? { ...one, ...part } : one)),
          });
          return (
            <div key={i} className="row-line align-items-start">
              <Field label="Called" message={messageOf(`marks[${i}].name`)}>
                <Form.Control
                  value={mark.name}
                  onChange={(event) => set(change({ name: event.target.value }))}
                />
              </Field>
              <Field label="From the" message={messageOf(`marks[${i}].of`)}>
                <Form.Select
                  value={mark.of}
                  onChange={(event) => set(change({ of: event.target.value as typeof mark.of }))}
                >
                  {DATUMS.map((datum) => (
                    <option key={datum}>{datum}</option>
                  ))}
                </Form.Select>
              </Field>
              {length(
                `marks[${i}].fromM`,
                'so far',
                mark.fromM,
                (m) => change({ fromM: m! }),
                false,
              )}
              <Button
                size="sm"
                variant="link"
                className="align-self-end"
                aria-label={`Take out the line ${mark.name}`}
                onClick={() =>
                  setDraft({
                    ...draft,
                    ground: { ...ground, marks: ground.marks.filter((_, o) => o !== i) },
                    typed: without(typed, 'marks'),
                  })
                }
              >
                Take out
              </Button>
            </div>
          );
        })}
        <Button
          size="sm"
          variant="outline-dark"
          className="align-self-start"
          onClick={() => set({ marks: [...ground.marks, { name: '', of: 'board', fromM: 5 }] })}
        >
          Add a line
        </Button>
      </fieldset>
      <fieldset className="stack" style={{ gap: 8 }}>
        <legend className="form-label mb-0">When the club has it</legend>
        {ground.slots.map((slot, i) => {
          const change = (part: Partial<typeof slot>) =>
            set({ slots: ground.slots.map((one, o) => (o === i ? { ...one, ...part } : one)) });
          return (
            <div key={i} className="row-line align-items-start">
              <Field label="On" message={messageOf(`slots[${i}].day`)}>
                <Form.Select
                  value={slot.day}
                  onChange={(event) => change({ day: event.target.value as typeof slot.day })}
                >
                  {WEEKDAYS.map((day) => (
                    <option key={day}>{day}</option>
                  ))}
                </Form.Select>
              </Field>
              <Field label="from" message={messageOf(`slots[${i}].from`)}>
                <Form.Control
                  type="time"
                  value={slot.from}
                  onChange={(event) => change({ from: event.target.value })}
                />
              </Field>
              <Field label="to" message={messageOf(`slots[${i}].to`)}>
                <Form.Control
                  type="time"
                  value={slot.to}
                  onChange={(event) => change({ to: event.target.value })}
                />
              </Field>
              <Button
                size="sm"
                variant="link"
                className="align-self-end"
                aria-label={`Take out ${slot.day}, ${slot.from}`}
                onClick={() => set({ slots: ground.slots.filter((_, o) => o !== i) })}
              >
                Take out
              </Button>
            </div>
          );
        })}
        <Button
          size="sm"
          variant="outline-dark"
          className="align-self-start"
          onClick={() =>
            set({ slots: [...ground.slots, { day: 'Monday', from: '18:00', to: '19:30' }] })
          }
        >
          Add a slot
        </Button>
      </fieldset>
      <Field label="Note" message={messageOf('note')} hint="Keys, lights, what floods after rain.">
        <Form.Control value={ground.note} onChange={(event) => set({ note: event.target.value })} />
      </Field>
      {[fields.marks, fields.slots, fields.apron].filter(Boolean).map((message) => (
        <div key={message} className="field-message" role="alert">
          {message}
        </div>
      ))}
      <div className="row-line">
        <Button type="submit" size="sm" disabled={write.isPending}>
          {write.isPending ? 'Saving …' : 'Save'}
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onDone}>
          Close
        </Button>
      </div>
    </Form>
  );
};
