import type { Athlete } from '@gravek/contract/athlete';
import type { ProgressStand } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { setOfWork } from '@gravek/library/session/setOfWork';
import { targetWords, variesWords } from '@gravek/library/session/setWords';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { sentenceOf } from '../api/client';
import { useProgress } from '../api/queries';
import { tell } from '../controls/toasts';
import { useMayPlan } from '../member/member';
import { howItIsRun } from '../parts/intoSession/howItIsRun';
import { IntoNext } from '../parts/intoSession/IntoNext';
import { useChooseDrill } from '../parts/ledger/useChooseRung';
import { partName } from '../parts/movement/partName';

type Drill = Movement['drills'][number];

/** How a drill is run, in a line: who stands how, what counts, what differs, the rest, and what to bring. */
const setUpWords = (movement: Movement, drill: Drill): string => {
  const work = { kind: 'movement', movement: movement.code, drill: drill.code } as const;
  const set = setOfWork('', work, [], movement);
  const varies = variesWords({ movement }, set);
  const bring = drill.setUp?.bring ?? [];
  const [stands, ...rest] = howItIsRun(set);
  return [
    stands,
    ...(set.sets > 1 ? [`${set.sets} rounds of ${targetWords(set)}`] : [targetWords(set)]),
    ...(varies ? [varies] : []),
    ...rest,
    ...(bring.length > 0 ? [`bring ${bring.join(', ')}`] : []),
  ].join(' · ');
};

const Entry = ({
  movement,
  drill,
  athletes,
  isShown,
  onShow,
  move,
  children,
}: {
  movement: Movement;
  drill: Drill;
  athletes: readonly Athlete[];
  isShown: boolean;
  onShow: (code: string | null) => void;
  /** where somebody is moved to it by hand */
  move?: React.ReactNode;
  children?: React.ReactNode;
}) => {
  const against = movement.faults.filter((fault) => fault.drills.includes(drill.code));
  return (
    <li id={`drill-${drill.code}`} className="drill">
      <div>
        <strong>{drill.name}</strong>
        {children}
        <div>{drill.how}</div>
        <div className="small-text">{setUpWords(movement, drill)}</div>
        <div className="quiet small-text">
          {drill.phases?.length ? 'steps of its own' : partName(movement, drill.part)}
          {against.length > 0 &&
            `. Against: ${against.map((fault) => fault.name.toLowerCase()).join(', ')}`}
        </div>
      </div>
      <div className="drill-acts">
        <Button
          size="sm"
          variant="outline-dark"
          aria-pressed={isShown}
          onClick={() => onShow(isShown ? null : drill.code)}
        >
          {isShown ? 'Show the whole' : 'Show it'}
        </Button>
        <IntoNext movement={movement} drill={drill} athletes={athletes} />
        {move}
      </div>
    </li>
  );
};

const HOW: Record<ProgressStand['step'], string> = {
  up: 'Ready for the next',
  stay: 'At it now',
  down: 'Too hard yet, one back',
};

const saidOf = ({ by, reps, clean }: ProgressStand): string =>
  by === null
    ? `${clean} of ${reps} clean`
    : reps === 0
      ? `(${by} says so)`
      : `${clean} of ${reps} clean (${by} says so)`;

/** A coach moves somebody to a drill by hand: kept at once, until something is run after it. */
const MoveHere = ({
  movement,
  drill,
  stands,
  athletes,
}: {
  movement: Movement;
  drill: Drill;
  /** of all drills */
  stands: readonly ProgressStand[];
  athletes: readonly Athlete[];
}) => {
  const mayPlan = useMayPlan();
  const choose = useChooseDrill();
  const elsewhere = athletes.filter(
    ({ id }) => !stands.some((stand) => stand.athleteId === id && stand.drill === drill.code),
  );
  if (!mayPlan || elsewhere.length === 0) return null;
  const move = async (athleteId: string): Promise<void> => {
    const { name } = athletes.find(({ id }) => id === athleteId)!;
    const words = { athleteId, id: uuid(), movement: movement.code, drill: drill.code };
    try {
      await choose.mutateAsync(words);
      tell(`${name} is at “${drill.name}” now.`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <Form.Select
      size="sm"
      aria-label={`Move somebody to ${drill.name}`}
      value=""
      disabled={choose.isPending}
      onChange={(event) => void move(event.target.value)}
    >
      <option value="">Move here …</option>
      {elsewhere.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </Form.Select>
  );
};

/** Who stands at a drill of the progression, by the club's reps: the ready with the next drill for them. */
const Standing = ({
  movement,
  stands,
  athletes,
  next,
}: {
  movement: Movement;
  /** of this drill */
  stands: readonly ProgressStand[];
  athletes: readonly Athlete[];
  /** undefined after the last */
  next: Drill | undefined;
}) => (
  <>
    {(['up', 'stay', 'down'] as const).map((step) => {
      const some = stands.flatMap((stand) => {
        const athlete = athletes.find(({ id }) => id === stand.athleteId);
        return stand.step === step && athlete ? [{ athlete, stand }] : [];
      });
      if (some.length === 0) return null;
      return (
        <div key={step} className="row-line small-text">
          <span>
            <strong>{HOW[step]}:</strong>{' '}
            {some.map(({ athlete, stand }) => `${athlete.name} ${saidOf(stand)}`).join(', ')}
          </span>
          {step === 'up' && next && (
            <IntoNext
              movement={movement}
              drill={next}
              athletes={some.map(({ athlete }) => athlete)}
            />
          )}
        </div>
      );
    })}
  </>
);

/** Drills with how they are run and the faults each is for: first those of the progression, in its order. */
export const Drills = ({
  movement,
  athletes,
  shown,
  onShow,
}: {
  movement: Movement;
  /** whom a drill is put into a session for */
  athletes: readonly Athlete[];
  shown: string | null;
  onShow: (code: string | null) => void;
}) => {
  const steps = (movement.progression ?? []).flatMap((step) => {
    const drill = movement.drills.find((drill) => drill.code === step.drill);
    return drill ? [{ ...step, drill }] : [];
  });
  const progress = useProgress(movement);
  const others = movement.drills.filter((drill) => !steps.some((step) => step.drill === drill));
  const entry = (drill: Drill, more?: React.ReactNode, move?: React.ReactNode): React.ReactNode => (
    <Entry
      key={drill.code}
      movement={movement}
      drill={drill}
      athletes={athletes}
      isShown={shown === drill.code}
      onShow={onShow}
      move={move}
    >
      {more}
    </Entry>
  );
  return (
    <section className="panel" aria-label="Drills">
      <h2>Drills</h2>
      {movement.drills.length === 0 && (
        <p className="quiet mb-0">This movement has no drills yet.</p>
      )}
      {steps.length > 0 && (
        <>
          <h3>In order</h3>
          <ol className="list-plain numbered" aria-label="Progression">
            {steps.map(({ drill, weeks, goOn }, i) =>
              entry(
                drill,
                <>
                  {(weeks || goOn) && (
                    <span className="quiet small-text">
                      {weeks && ` ${weeks}.`}
                      {goOn && ` On when ${goOn}.`}
                    </span>
                  )}
                  <Standing
                    movement={movement}
                    stands={(progress.data ?? []).filter((stand) => stand.drill === drill.code)}
                    athletes={athletes}
                    next={steps[i + 1]?.drill}
                  />
                </>,
                <MoveHere
                  movement={movement}
                  drill={drill}
                  stands={progress.data ?? []}
                  athletes={athletes}
                />,
              ),
            )}
          </ol>
        </>
      )}
      {others.length > 0 && (
        <>
          {steps.length > 0 && <h3>Against single faults</h3>}
          <ul className="list-plain">{others.map((drill) => entry(drill))}</ul>
        </>
      )}
    </section>
  );
};
