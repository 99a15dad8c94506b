import type { Athlete } from '@gravek/contract/athlete';
import type { Ledger } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { LIVE_RATE } from '@gravek/core/cueState';
import { drillOf, faultOf } from '@gravek/library/byCode';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v7 as uuid } from 'uuid';
import { sentenceOf } from '../api/client';
import { counted, dayName } from '../controls/dates';
import { opened } from '../controls/opened';
import { tell } from '../controls/toasts';
import { useMayPlan } from '../member/member';
import { FaultDrills } from './FaultDrills';
import { useChooseCue } from './useChooseCue';
import { chance, percent } from './words';

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

/** The one cue: its words, since when and why, whether it helps, what it has done for others, and the drill. */
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
  const { cue } = ledger;
  const row = cue && ledger.rows.find((one) => one.code === cue.fault);
  const fault = cue && faultOf(movement, cue.fault);
  const others = cue && ledger.others.find((one) => one.fault === cue.fault);
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
          <div className="mt-1">{cue.reason}</div>
          <div className="small-text mt-1">
            {cue.since === null
              ? 'It begins with the next session.'
              : `Given since ${dayName(cue.since)}, in ${counted(cue.sessions, 'session')}.`}
            {row?.span && row.effect !== null && cue.sessions > 1 && (
              <>
                {' '}
                {fault.name} showed in{' '}
                {percent(row.span.before.faults / Math.max(1, row.span.before.reps))} of reps before
                and {percent(row.span.since.faults / Math.max(1, row.span.since.reps))} since: it
                helps with a chance of {chance(row.effect)}.
              </>
            )}
            {others &&
              ` For ${counted(others.athletes, 'other athlete')} of the club the same cue went with ${percent(others.before.faults / Math.max(1, others.before.reps))} before and ${percent(others.since.faults / Math.max(1, others.since.reps))} since; ${others.better === 0 ? 'for none' : `for ${others.better}`} of them for sure.`}
          </div>
          {row?.state === 'stuck' && row.rate >= LIVE_RATE && (
            <div className="note small-text mt-2">
              {counted(row.cuedRun, 'session')} with this cue and no sure gain
              {triedWords(movement, ledger)}: take another drill below, or another cue.
              <Causes movement={movement} ledger={ledger} />
            </div>
          )}
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

/** What may lie behind a fault that stays: earlier faults of the same athlete that bring it about. */
const Causes = ({ movement, ledger }: { movement: Movement; ledger: Ledger }) => {
  const behind = movement.faults.filter(
    (fault) =>
      fault.leadsTo.includes(ledger.cue?.fault ?? '') &&
      ledger.rows.some((row) => row.code === fault.code && row.rate >= LIVE_RATE),
  );
  if (behind.length === 0) return null;
  return (
    <>
      {' '}
      It may come from{' '}
      {behind
        .map((fault) => {
          const { rate } = ledger.rows.find((row) => row.code === fault.code)!;
          return `${fault.name.toLowerCase()} (${percent(rate)}; “${fault.cue}”)`;
        })
        .join(' or ')}
      .
    </>
  );
};
