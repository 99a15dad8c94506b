import {
  athleteFields,
  athleteUpdate,
  type Athlete,
  type AthleteFields,
  type AthleteUpdate,
} from '@gravek/contract/athlete';
import { check } from '@gravek/contract/problem';
import { usualTakeoffFoot } from '@gravek/core/feet';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, ApiProblem, fieldsOf, sentenceOf } from '../api/client';
import { useAthletes, useWrite } from '../api/queries';
import { useLengthStyle } from '../member/member';
import { Conflict, DraftBack } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { numberOrNull, unread } from '../controls/typed';
import { LengthInput } from '../controls/LengthInput';
import { tell } from '../controls/toasts';

type Draft = Omit<AthleteFields, 'positions' | 'birthYear' | 'bornOn'> & {
  bornOn: string;
  id: string;
  positions: string;
  birthYear: string;
  version: number;
};

const draftOf = (athlete: Athlete | undefined): Draft => ({
  id: athlete?.id ?? uuid(),
  name: athlete?.name ?? '',
  squad: athlete?.squad ?? '',
  hand: athlete?.hand ?? 'right',
  takeoffFoot: athlete?.takeoffFoot ?? 'left',
  shoeM: athlete?.shoeM ?? null,
  legM: athlete?.legM ?? null,
  heightM: athlete?.heightM ?? null,
  birthYear: athlete?.birthYear?.toString() ?? '',
  bornOn: athlete?.bornOn ?? '',
  positions: athlete?.positions.join(', ') ?? '',
  version: athlete?.version ?? 1,
});

const positionsOf = (text: string): string[] => [
  ...new Set(
    text
      .split(',')
      .map((text) => text.trim())
      .filter(Boolean),
  ),
];

/** Add an athlete, or change one. */
export const AthleteForm = ({ athlete, onClose }: { athlete?: Athlete; onClose: () => void }) => {
  const [draft, setDraft, discard, found] = useDraft<Draft>(
    `athlete.${athlete?.id ?? 'new'}`,
    draftOf(athlete),
  );
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [typed, setTyped] = useState<Record<string, string | null>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const style = useLengthStyle();
  const navigate = useNavigate();
  const squads = [...new Set((useAthletes().data ?? []).map((athlete) => athlete.squad))];
  const save = useWrite(
    (body: AthleteFields & { version: number }) =>
      athlete
        ? api.put<Athlete>(`/athletes/${athlete.id}`, body)
        : api.post<Athlete>('/athletes', { ...body, id: draft.id }),
    'athletes',
    'run',
  );
  const set = (change: Partial<Draft>): void => setDraft({ ...draft, ...change });

  const submit = async (): Promise<void> => {
    const { id: _id, ...rest } = draft;
    const body = {
      ...rest,
      // What was typed before birthdays were asked for has none.
      bornOn: draft.bornOn || null,
      birthYear: draft.bornOn ? Number(draft.bornOn.slice(0, 4)) : numberOrNull(draft.birthYear),
      positions: positionsOf(draft.positions),
    };
    const checked = check(athlete ? athleteUpdate : athleteFields, body);
    const wrong = unread(typed);
    if (!checked.ok || Object.keys(wrong).length > 0) {
      setMessages({ ...(checked.ok ? {} : checked.fields), ...wrong });
      return;
    }
    setMessages({});
    try {
      const saved = await save.mutateAsync(checked.value as AthleteUpdate);
      discard();
      tell(athlete ? `${saved.name} is saved.` : `${saved.name} is in the club.`);
      onClose();
      if (!athlete) void navigate(`/athletes/${saved.id}`);
    } catch (error) {
      setMessages(fieldsOf(error));
      setProblem(sentenceOf(error));
      if (error instanceof ApiProblem && error.status === 409) {
        const current = error.problem.current as Athlete;
        setProblem(
          `${sentenceOf(error)} Save again to put yours over it; it now has the name ${current.name} and squad ${current.squad}.`,
        );
        set({ version: current.version });
      }
    }
  };

  const messageOf = (field: string): string | undefined =>
    typed[field] ?? messages[field] ?? undefined;
  return (
    <Modal show onHide={onClose} aria-labelledby="athlete-form">
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title as="h2" id="athlete-form" className="h5 mb-0 text-reset">
            {athlete ? `Change ${athlete.name}` : 'Add athlete'}
          </Modal.Title>
        </Modal.Header>
        <Modal.Body className="stack">
          {found && <DraftBack onDrop={() => discard(draftOf(athlete))} />}
          <Conflict problem={problem} />
          <Field label="Name" message={messageOf('name')}>
            <Form.Control
              value={draft.name}
              autoComplete="off"
              onChange={(event) => set({ name: event.target.value })}
            />
          </Field>
          <div className="set-editor">
            <div className="span-6">
              <Field label="Squad" message={messageOf('squad')}>
                <Form.Control
                  value={draft.squad}
                  list="squads"
                  onChange={(event) => set({ squad: event.target.value })}
                />
              </Field>
              <datalist id="squads">
                {squads.map((squad) => (
                  <option key={squad} value={squad} />
                ))}
              </datalist>
            </div>
            <div className="span-6">
              <Field
                label="Positions"
                message={messageOf('positions')}
                hint="Separate with commas."
              >
                <Form.Control
                  value={draft.positions}
                  onChange={(event) => set({ positions: event.target.value })}
                />
              </Field>
            </div>
            <div className="span-6">
              <Field label="Dominant hand" message={messageOf('hand')}>
                <Form.Select
                  value={draft.hand}
                  onChange={(event) => {
                    const hand = event.target.value as Draft['hand'];
                    // Of somebody new the foot follows the hand until it is chosen; what is stored stays.
                    const follows = !athlete && draft.takeoffFoot === usualTakeoffFoot(draft.hand);
                    set({ hand, ...(follows && { takeoffFoot: usualTakeoffFoot(hand) }) });
                  }}
                >
                  <option value="right">right</option>
                  <option value="left">left</option>
                </Form.Select>
              </Field>
            </div>
            <div className="span-6">
              <Field
                label="Take-off foot"
                message={messageOf('takeoffFoot')}
                hint="Mostly across from the hand."
              >
                <Form.Select
                  value={draft.takeoffFoot}
                  onChange={(event) =>
                    set({ takeoffFoot: event.target.value as Draft['takeoffFoot'] })
                  }
                >
                  <option value="left">left</option>
                  <option value="right">right</option>
                </Form.Select>
              </Field>
            </div>
            <div className="span-3">
              <Field label="Height" message={messageOf('heightM')}>
                <LengthInput
                  valueM={draft.heightM}
                  style={{ unit: style.unit === 'shoes' ? 'metric' : style.unit }}
                  optional
                  ofBody
                  onLength={(heightM) => set({ heightM })}
                  onMessage={(message) => setTyped({ ...typed, heightM: message })}
                />
              </Field>
            </div>
            <div className="span-3">
              <Field label="Leg, hip to floor" message={messageOf('legM')}>
                <LengthInput
                  valueM={draft.legM}
                  style={{ unit: style.unit === 'shoes' ? 'metric' : style.unit }}
                  optional
                  ofBody
                  onLength={(legM) => set({ legM })}
                  onMessage={(message) => setTyped({ ...typed, legM: message })}
                />
              </Field>
            </div>
            <div className="span-3">
              <Field label="Shoe, heel to toe" message={messageOf('shoeM')}>
                <LengthInput
                  valueM={draft.shoeM}
                  style={{ unit: style.unit, small: true }}
                  optional
                  onLength={(shoeM) => set({ shoeM })}
                  onMessage={(message) => setTyped({ ...typed, shoeM: message })}
                />
              </Field>
            </div>
            <div className="span-3">
              <Field label="Birth year" message={messageOf('birthYear')}>
                <Form.Control
                  value={draft.bornOn ? draft.bornOn.slice(0, 4) : draft.birthYear}
                  disabled={Boolean(draft.bornOn)}
                  inputMode="numeric"
                  onChange={(event) => set({ birthYear: event.target.value })}
                />
              </Field>
            </div>
            <div className="span-3">
              <Field label="Birthday, if known" message={messageOf('bornOn')}>
                <Form.Control
                  type="date"
                  value={draft.bornOn ?? ''}
                  onChange={(event) => set({ bornOn: event.target.value })}
                />
              </Field>
            </div>
          </div>
        </Modal.Body>
        <Modal.Footer>
          <Button variant="outline-dark" onClick={onClose}>
            Close
          </Button>
          <Button type="submit" disabled={save.isPending}>
            {save.isPending ? 'Saving …' : 'Save'}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
};
