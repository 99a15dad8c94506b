import { bodyOf } from '@gravek/core/layout/body';
import { currentModel } from '@gravek/core/runup/currentModel';
import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { Approach } from '@gravek/contract/plan';
import { phaseOf } from '@gravek/library/movement/byCode';
import { sideOf } from '@gravek/library/movement/sideOf';
import { taughtTo } from '@gravek/library/planning/plan';
import { outlineOf, solve } from '@gravek/library/planning/solvePlan';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { Figure, Labelled, Length, Speed } from '../../controls/Figure';
import { opened } from '../../controls/opened';
import { unread } from '../../controls/typed';
import { UndoRedo } from '../../controls/UndoRedo';
import { Zoom } from '../../controls/Zoom';
import { SideView } from '../../drawing/SideView';
import { usePlayer } from '../../hearing/player';
import { useLengthStyle, useMayPlan } from '../../member/member';
import { estimatedNote } from '../../parts/catalogue/usual';
import { type Asked, newPlan, usualName } from './draft';
import { outdatedOf, OutOfDate } from './OutOfDate';
import type { PlanParts } from './parts';
import { PlanHead, PlanNotes } from './PlanHead';
import { useChecked } from './useChecked';
import { usePlan } from './usePlan';

// Straight and sequence have little in common; a plan is one of them.
const loadRunUp = () => import('./RunUpParts');
const loadSequence = () => import('./SequenceParts');
const RunUpDrawing = opened(async () => (await loadRunUp()).RunUpDrawing);
const RunUpPanels = opened(async () => (await loadRunUp()).RunUpPanels);
const SequenceDrawing = opened(async () => (await loadSequence()).SequenceDrawing);
const SequencePanels = opened(async () => (await loadSequence()).SequencePanels);

const NO_BEATS: readonly never[] = [];

/** Any plan for one athlete at a time: what holds for every movement; a run-up to a target and other sequences bring their own parts. */
export const PlanPage = ({
  movement: written,
  saved,
  athletes,
  first,
  ground,
  fromAddress,
  onTaken,
}: {
  movement: Movement;
  saved: Approach | null;
  athletes: Athlete[];
  first: Athlete;
  /** where a new plan is set out until the coach says otherwise */
  ground: OnGround | null;
  /** what was chosen just before, for whom and what of the movement; null when nothing was */
  fromAddress: Asked | null;
  onTaken: () => void;
}) => {
  const mayPlan = useMayPlan();
  const work = usePlan(
    saved,
    newPlan(written, first, ground, fromAddress ?? {}),
    fromAddress,
    onTaken,
  );
  const { draft, change, served } = work;
  const { choices } = draft;
  const [athleteId, setAthleteId] = useState(
    saved || draft.athleteIds.length === 0 ? first.id : draft.athleteIds[0]!,
  );
  const athlete = athletes.find((athlete) => athlete.id === athleteId) ?? first;
  const style = useLengthStyle(athlete.shoeM);
  const [typed, setTyped] = useState<Record<string, string | null>>({});
  const [zoom, setZoom] = useState(1);

  const body = useMemo(() => bodyOf(athlete), [athlete]);
  const { schools } = choices;
  const { drill = null, spot = null } = isSequence(choices) ? choices : {};
  // What is read and looked for is as it is taught; what is solved is asked of the movement as written.
  const movement = useMemo(
    () => taughtTo(written, { drill, schools, spot }, body),
    [written, drill, schools, spot, body],
  );
  const { drawn, invalid, pending } = useChecked(choices, !work.found);
  const solved = useMemo(() => drawn && solve(written, drawn, body), [written, drawn, body]);
  const outline = useMemo(() => solved && outlineOf(solved), [solved]);
  const seen = useMemo(
    () => (solved?.layout ? sideOf(movement, solved.layout, body) : null),
    [movement, solved, body],
  );
  const player = usePlayer(outline?.contacts ?? NO_BEATS, outline?.totalTimeS ?? 0);
  const wrong = Object.values(typed).some(Boolean) || Object.keys(invalid).length > 0;
  const save = (): void => void work.save(athlete.id, wrong);

  const setChoices = (next: Choices, what: string): void =>
    change({ ...draft, choices: next }, what);
  /** A plan that is new is of whoever is on the screen; one that is kept changes its list on request only. */
  const choose = (id: string): void => {
    const next = athletes.find((athlete) => athlete.id === id);
    setAthleteId(id);
    if (draft.version !== null || !next || draft.athleteIds.length > 1) return;
    const isRenamed = draft.name !== usualName(written, athlete);
    change({
      ...draft,
      athleteIds: [id],
      name: isRenamed ? draft.name : usualName(written, next),
    });
  };
  const list = (ids: readonly string[], on: boolean): void =>
    change({
      ...draft,
      athleteIds: [...draft.athleteIds.filter((id) => !ids.includes(id)), ...(on ? ids : [])],
    });

  const plan: PlanParts = {
    draft,
    movement,
    athlete,
    athletes,
    body,
    solved: pending ? null : solved,
    player,
    style,
    zoom,
    disabled: !mayPlan,
    messages: { ...served, ...invalid, ...unread(typed) },
    onDraft: change,
    onMessage: (field, message) => setTyped((before) => ({ ...before, [field]: message })),
    onLeave: saved && mayPlan ? () => void work.leave() : undefined,
  };
  // What is being changed is drawn as it was until it can be checked.
  const inDrawing: PlanParts =
    pending && drawn ? { ...plan, draft: { ...draft, choices: drawn }, solved } : plan;
  const straight = solved?.straight;
  const target = isSequence(choices) ? null : choices.target;
  // A run-up to a target is counted in nothing but the athlete's own steps.
  const estimated = target
    ? body.estimated.filter((measure) => measure === 'steps')
    : body.estimated;
  const outdated = outdatedOf(saved, athlete.id, currentModel(athlete).model);
  // Beside the drawing where feet and posture are all there is; below the counts of a run-up.
  const side = solved?.layout && seen && (
    <div className="panel my-3 no-print">
      <SideView
        view={seen}
        layout={solved.layout}
        body={body}
        player={player}
        nameOf={(code) => phaseOf(movement, code)?.name ?? ''}
      />
    </div>
  );
  return (
    <>
      <PlanHead
        plan={{ ...work, rename: (name) => change({ ...draft, name }, 'name') }}
        athlete={athlete}
        athletes={athletes}
        movement={written}
        saved={saved !== null}
        onAthlete={choose}
        onList={list}
        onSave={save}
      >
        {outline && (
          <>
            {outline.startM !== null && (
              <Labelled label="Start mark">
                <Length m={outline.startM} style={style} big />
              </Labelled>
            )}
            <Labelled label="Steps">
              <Figure parts={[{ figure: String(outline.steps), unit: '' }]} big />
            </Labelled>
            <Labelled label="First foot">
              <span className="figure figure-big">{outline.firstFoot}</span>
            </Labelled>
            <Labelled label={target ? `On the ${target}` : 'Last foot'}>
              <span className="figure figure-big">{outline.lastFoot}</span>
            </Labelled>
            {straight?.feasible ? (
              <Labelled label={`Speed at the ${target}`}>
                <Speed mps={straight.endSpeedMps} unit={style.unit} big />
              </Labelled>
            ) : (
              <Labelled label="Takes">
                <Figure parts={[{ figure: outline.totalTimeS.toFixed(1), unit: 's' }]} big />
              </Labelled>
            )}
          </>
        )}
      </PlanHead>
      <PlanNotes
        plan={work}
        athlete={athlete}
        movement={movement}
        choices={choices}
        estimated={estimatedNote(athlete, estimated)}
        inForm={!estimated.includes('steps')}
      />
      {outdated && (
        <OutOfDate
          stored={outdated}
          nowM={outline?.startM ?? null}
          target={target ?? 'target'}
          style={style}
          onSolve={mayPlan ? save : undefined}
        />
      )}
      <div className="strip-panel">
        <div className="row-line no-print strip-tools">
          <UndoRedo {...work.history} />
          <Zoom zoom={zoom} onZoom={setZoom} />
          {saved && target && (
            <Link
              className="btn btn-outline-dark btn-sm ms-auto"
              to={`/approaches/${saved.id}/squad`}
            >
              {work.unsaved ? 'Squad sheet, as saved' : 'Squad sheet'}
            </Link>
          )}
        </div>
        {isSequence(inDrawing.draft.choices) ? (
          <SequenceDrawing {...inDrawing} choices={inDrawing.draft.choices} />
        ) : (
          <RunUpDrawing {...inDrawing} choices={inDrawing.draft.choices} onChoices={setChoices} />
        )}
      </div>
      {isSequence(choices) && side}
      {isSequence(choices) ? (
        <SequencePanels {...plan} choices={choices} onChoices={setChoices} />
      ) : (
        <RunUpPanels {...plan} choices={choices} onChoices={setChoices} />
      )}
      {!isSequence(choices) && side}
    </>
  );
};
