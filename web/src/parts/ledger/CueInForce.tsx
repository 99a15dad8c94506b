import type { Athlete } from '@gravek/contract/athlete';
import type { Ledger } from '@gravek/contract/faults';
import type { Fault, Movement } from '@gravek/contract/movement';
import type { RepCounts } from '@gravek/core/cue/cueEffect';
import { drillOf, faultOf } from '@gravek/library/movement/byCode';
import { cueVerdict } from '@gravek/library/cue/cueVerdict';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v7 as uuid } from 'uuid';
import { sentenceOf } from '../../api/client';
import { dayName } from '../../controls/dates';
import { counted } from '@gravek/core/words';
import { opened } from '../../controls/opened';
import { tell } from '../../controls/toasts';
import { useMayPlan, useMember } from '../../member/member';
import { FaultDrills } from './FaultDrills';
import { useChooseCue } from './useChooseCue';
import { chance } from './words';

const CueForm = opened(async () => (await import('./CueForm')).CueForm);

/** Which drills against the cued fault were done, in how many reps. */
const triedWords = (movement: Movement, { axes, cue }: Ledger): string => {
  const fault = cue && faultOf(movement, cue.fault);
  const done = axes.flatMap(({ axis, value, reps }) =>
    axis === 'part' && fault?.drills.includes(value)
      ? [`${drillOf(movement, value)?.name ?? value} in ${counted(reps, 'rep')}`]
      : [],
  );
  return done.length === 0 ? ', and none of its drills done' : `, ${done.join(' and ')} done`;
};

/** Counts, and no share of them: the one rate of a fault stands in the table. */
const shownOf = ({ reps, faults }: RepCounts): string =>
  `${Math.round(faults)} of ${counted(Math.round(reps), 'rep')}`;

/** The one cue: its words, whether it works and what to do, since when and why, whether it helps, what it has done for others, and the drill. */
export const CueInForce = ({
  athlete,
  movement,
  ledger,
}: {
  athlete: Athlete;
  movement: Movement;
  ledger: Ledger;
}) => {
  const mayPlan = useMayPlan();
  const { club } = useMember();
  const [changing, setChanging] = useState(false);
  const choose = useChooseCue(athlete.id);
  const handBack = async (): Promise<void> => {
    const choice = { id: uuid(), movement: movement.code, fault: null, drill: null, reason: '' };
    try {
      await choose.mutateAsync(choice);
      tell('The figures choose the cue again.');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const giveInstead = async ({ code }: Fault): Promise<void> => {
    const reason = `${faultOf(movement, ledger.cue!.fault)!.cue}: not working after ${counted(ledger.cue!.sessions, 'session')}`;
    try {
      await choose.mutateAsync({
        ...{ id: uuid(), movement: movement.code, fault: code, drill: null },
        reason: reason.slice(0, 200),
      });
      tell('The cue is changed. A session under way keeps its own until it is changed there.');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const { cue } = ledger;
  const verdict = cueVerdict(movement, ledger, club.cueSchool);
  const row = cue && ledger.rows.find((row) => row.code === cue.fault);
  const fault = cue && faultOf(movement, cue.fault);
  const others = cue && ledger.others.find((other) => other.fault === cue.fault);
  return (
    <div className="cue-card">
      <div className="row-line">
        <span className="figure-label">The one cue</span>
        {mayPlan && !changing && (
          <span className="ms-auto row-line small-text">
            {cue?.by && (
              <Button
                variant="link"
                size="sm"
                className="p-0"
                disabled={choose.isPending}
                onClick={() => void handBack()}
              >
                Let the figures choose
              </Button>
            )}
            <Button variant="link" size="sm" className="p-0" onClick={() => setChanging(true)}>
              Another cue
            </Button>
          </span>
        )}
      </div>
      {fault ? (
        <>
          <div className="cue-words">{fault.cue}</div>
          {verdict && (
            <div className={`cue-verdict cue-${verdict.kind}`} role="status">
              <strong>{verdict.sentence}</strong>
              {verdict.instead && mayPlan && (
                <Button
                  size="sm"
                  disabled={choose.isPending}
                  onClick={() => void giveInstead(verdict.instead!)}
                >
                  Cue that instead
                </Button>
              )}
            </div>
          )}
          <details className="small-text mt-1">
            <summary>
              {row?.effect !== null && row?.effect !== undefined && cue.sessions > 1
                ? `${chance(row.effect)} likely to be helping`
                : 'Why this one'}
            </summary>
            <p className="mb-1">{cue.reason}</p>
            <p className="mb-1">
              {cue.since !== null &&
                `Given since ${dayName(cue.since)}, in ${counted(cue.sessions, 'session')}.`}
              {row?.span && cue.sessions > 1 && (
                <>
                  {' '}
                  {fault.name}: {shownOf(row.span.before)} before, {shownOf(row.span.since)} since.
                </>
              )}
              {row?.state === 'stuck' &&
                ` None of this is a sure gain${triedWords(movement, ledger)}.`}
            </p>
            {others && (
              <p className="mb-1">
                For {counted(others.athletes, 'other athlete')} of the club:{' '}
                {shownOf(others.before)} before, {shownOf(others.since)} since;{' '}
                {others.better === 0
                  ? 'not certain to help any of them'
                  : `certain to help ${others.better} of them`}
                .
              </p>
            )}
          </details>
          <FaultDrills
            athlete={athlete}
            movement={movement}
            fault={fault}
            first={cue.drill}
            rung={ledger.ladder?.rung ?? null}
          />
        </>
      ) : (
        <div>No fault shows often enough to deserve a cue. Let it run.</div>
      )}
      {changing && (
        <CueForm
          athlete={athlete}
          movement={movement}
          ledger={ledger}
          onDone={() => setChanging(false)}
        />
      )}
    </div>
  );
};
