import type { Layout } from '@gravek/core/layout/shape';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement } from '@gravek/contract/movement';
import { type ClubMovement, movementSchema } from '@gravek/contract/movementSchema';
import { check } from '@gravek/contract/problem';
import { withFaultPhases } from '@gravek/library/movement/olderMovement';
import { laidOut } from '@gravek/library/planning/plan';
import { sequenceStart } from '@gravek/library/planning/planStart';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams } from 'react-router';
import { api, fieldsOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict, DraftBack, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { useHistory } from '../controls/history';
import { Empty, Waiting } from '../controls/Notice';
import { Segments } from '../controls/Segments';
import { useTitle } from '../controls/useTitle';
import { tell } from '../controls/toasts';
import { UndoRedo } from '../controls/UndoRedo';
import { PlanView } from '../drawing/PlanView';
import { useLengthStyle, useMayPlan } from '../member/member';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { bodyFor } from '../parts/catalogue/usual';
import { changesOf, FieldsContext, messagesOf, type TypedTexts } from '../parts/fields/fields';
import { ReadChoices } from '../parts/movement/ReadChoices';
import { SpotChoice } from '../parts/movement/SpotChoice';
import { Wrong } from './edit/Items';
import { LawsBroken } from './edit/LawsBroken';
import { EditorPart, type Part, PARTS } from './EditorParts';

/** The movement with what was typed and cannot be read beside it. */
type Draft = { movement: Movement; version: number; typed: TypedTexts };

const draftOf = ({ movement, version }: ClubMovement): Draft => ({ movement, version, typed: {} });

const Editor = ({ clubMovement }: { clubMovement: ClubMovement }) => {
  const navigate = useNavigate();
  const [kept, setDraft, discard, found] = useDraft<Draft>(
    `movement.${clubMovement.id}`,
    draftOf(clubMovement),
  );
  // A draft may be from before a fault named all its phases.
  const draft = useMemo(
    () => ({ ...kept, movement: withFaultPhases(kept.movement, clubMovement.basedOn?.code) }),
    [kept, clubMovement.basedOn?.code],
  );
  const { change, ...history } = useHistory(draft, setDraft);
  const { movement, typed } = draft;
  const [part, setPart] = useState<Part>('phases');
  const [served, setServed] = useState<Record<string, string>>({});
  const style = useLengthStyle(null);
  const body = useMemo(() => bodyFor(undefined), []);
  const [chosen, setChosen] =
    useState<Pick<SequenceChoices, 'reads' | 'schools' | 'spot'>>(sequenceStart);
  const checked = useMemo(() => check(movementSchema, movement), [movement]);
  const problems = useMemo(
    () => ({
      ...served,
      ...(checked.ok ? {} : checked.fields),
      ...messagesOf(typed),
    }),
    [served, checked, typed],
  );
  // The drawing follows what can be drawn; what cannot leaves the last that could.
  const laid = useMemo((): Layout | null => {
    try {
      return checked.ok ? laidOut(movement, body, chosen) : null;
    } catch {
      return null;
    }
  }, [checked, movement, body, chosen]);
  const [lastLaid, setLastLaid] = useState<Layout | null>(laid);
  if (laid && laid !== lastLaid) setLastLaid(laid);
  const layout = laid ?? lastLaid;

  const conflict = useConflict<ClubMovement>(
    (theirs) => discard(draftOf(theirs)),
    (version) => setDraft({ ...draft, version }),
  );
  const write = useWrite(
    (sent: object) => api.put<ClubMovement>(`/movements/${clubMovement.id}`, sent),
    'movements',
    'approaches',
    'run',
  );
  const count = Object.keys(problems).length;
  const save = async (): Promise<void> => {
    conflict.clear();
    setServed({});
    if (!checked.ok || Object.keys(typed).length > 0) {
      conflict.say(
        count === 1
          ? 'One thing must be mended first; it is marked below.'
          : `${count} things must be mended first; they are marked below.`,
      );
      return;
    }
    try {
      const stored = await write.mutateAsync({
        basedOn: clubMovement.basedOn,
        movement,
        version: draft.version,
      });
      discard(draftOf(stored));
      tell(`${stored.movement.name} is saved. Plans made of it change when they are saved again.`);
      void navigate(`/movements/${clubMovement.id}`);
    } catch (error) {
      conflict.show(error);
      setServed(
        Object.fromEntries(
          Object.entries(fieldsOf(error)).map(([path, text]) => [
            path.replace(/^movement\./, ''),
            text,
          ]),
        ),
      );
    }
  };

  useTitle(movement.name);
  const [firstPath, firstText] = Object.entries(problems)[0] ?? [];
  const firstPart = PARTS.find(({ under }) =>
    under.some((path) => firstPath === path || firstPath?.match(new RegExp(`^${path}[.[]`))),
  );
  return (
    <FieldsContext
      value={{
        ...changesOf(movement, typed, (next, texts, path) =>
          change({ ...draft, movement: next, typed: texts }, path),
        ),
        ...{ problems, body, style },
      }}
    >
      <header className="planner-head">
        <h1 className="visually-hidden">Movement being changed</h1>
        <div className="planner-title flex-grow-1">
          <div className="quiet small-text">
            The club’s own movement
            {clubMovement.basedOn && ', copied from a built-in one'}
          </div>
          <Form.Control
            aria-label="Name of the movement"
            className="edit-name"
            value={movement.name}
            onChange={(event) =>
              change({ ...draft, movement: { ...movement, name: event.target.value } }, 'name')
            }
          />
          {problems.name && (
            <div className="field-message" role="alert">
              {problems.name}
            </div>
          )}
        </div>
        <div className="page-acts ms-auto d-flex gap-2">
          <UndoRedo {...history} />
          <Link className="btn btn-outline-dark" to={`/movements/${clubMovement.id}`}>
            Leave
          </Link>
          <Button disabled={write.isPending} onClick={() => void save()}>
            {write.isPending ? 'Saving …' : 'Save'}
          </Button>
        </div>
      </header>
      <div className="stack" style={{ gap: 8 }}>
        <Conflict {...conflict.shown} />
        {found && <DraftBack onDrop={() => discard(draftOf(clubMovement))} />}
        {firstText && (
          <div className="note note-wrong" role="status">
            {firstPart && <strong>{firstPart.label}: </strong>}
            {firstText}
            {count > 1 && ` And ${count - 1} more.`}{' '}
            {firstPart && firstPart.value !== part && (
              <Button size="sm" variant="outline-dark" onClick={() => setPart(firstPart.value)}>
                Go there
              </Button>
            )}
          </div>
        )}
      </div>
      {layout && (
        <div className="strip-panel mt-2">
          {laid && (
            <div className="plan-choices">
              <ReadChoices
                movement={movement}
                chosen={chosen}
                onChoose={(change) => setChosen({ ...chosen, ...change })}
              />
              <SpotChoice
                movement={movement}
                ground={null}
                spot={chosen.spot}
                onSpot={(spot) => setChosen({ ...chosen, spot })}
              />
            </div>
          )}
          <div style={laid ? undefined : { opacity: 0.4 }}>
            <PlanView
              layout={layout}
              shoeM={body.shoeM}
              maxHeight={230}
              label={`${movement.name} ${laid ? 'as it stands' : 'as it last could be drawn'}, for a usual body: ${layout.footfalls.at(-1)?.n ?? 0} steps`}
            />
          </div>
        </div>
      )}
      {checked.ok && <LawsBroken movement={movement} />}
      <div className="mb-3 edit-parts">
        <Segments
          label="What to change"
          value={part}
          onChoose={setPart}
          options={PARTS.map(({ value, label, under }) => ({
            value,
            label: (
              <>
                {label} <Wrong under={under} />
              </>
            ),
          }))}
        />
      </div>
      <EditorPart part={part} movement={movement} />
    </FieldsContext>
  );
};

/** Where a movement of the club's own is changed, all of it. */
export const MovementEditor = () => {
  const { code = '' } = useParams();
  const catalogue = useCatalogue();
  const mayPlan = useMayPlan();
  if (!catalogue.ready) return <Waiting what="Getting the movement …" />;
  const clubMovement = catalogue.clubMovements.find((movement) => movement.id === code);
  if (!clubMovement || !mayPlan) {
    return (
      <Empty
        title={
          clubMovement
            ? 'Assistants do not change movements.'
            : 'Only the club’s own movements can be changed.'
        }
      >
        Copy a built-in one, then change the copy.{' '}
        <Link className="btn btn-primary" to="/movements">
          All movements
        </Link>
      </Empty>
    );
  }
  return <Editor key={clubMovement.id} clubMovement={clubMovement} />;
};
