import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import { drillOf, faultOf } from '@gravek/library/movement/byCode';
import { sequenceStart } from '@gravek/library/planning/planStart';
import { barredBy, demandOf, whyBarred } from '@gravek/library/session/restrictions';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { CauseChart } from '../drawing/CauseChart';
import { useMember } from '../member/member';

/** What goes wrong in a movement and what that brings about, with the cue and the drills of the fault chosen. */
export const WhatGoesWrong = ({ movement }: { movement: Movement }) => {
  const [query] = useSearchParams();
  const [fault, setFault] = useState<string>(
    faultOf(movement, query.get('fault') ?? '')?.code ?? movement.faults[0]!.code,
  );
  const shown = faultOf(movement, fault) ?? movement.faults[0];
  return (
    <div className="cause-columns">
      <CauseChart faults={movement.faults} chosen={fault} onChoose={setFault} />
      {shown && (
        <div className="cue-card" aria-live="polite">
          <div className="figure-label">{shown.name}</div>
          <div className="cue-words">{shown.cue}</div>
          <div className="mt-1">{shown.sees}</div>
          {shown.leadsTo.length > 0 && (
            <div className="small-text mt-1">
              Brings about:{' '}
              {shown.leadsTo.map((code) => faultOf(movement, code)?.name.toLowerCase()).join(', ')}.
            </div>
          )}
          <div className="small-text mt-1">
            Drill:{' '}
            {shown.drills.map((code, i) => (
              <span key={code}>
                {i > 0 && ', '}
                <a href={`#drill-${code}`}>{drillOf(movement, code)?.name}</a>
              </span>
            ))}
          </div>
        </div>
      )}
    </div>
  );
};

/** Who may not do a movement now, and why; nothing where all may. */
export const NotFor = ({
  movement,
  drill,
  athletes,
}: {
  movement: Movement;
  /** the drill shown, which may ask for less */
  drill: string | null;
  athletes: readonly Athlete[];
}) => {
  const { today } = useMember();
  // At the top of its ladder; footwork on air is open to more.
  const demand = demandOf(movement, { ...sequenceStart(), drill, rung: 'opponent' });
  const barred = athletes.flatMap((athlete) => {
    const restriction = athlete.archived ? null : barredBy(demand, athlete.restrictions, today);
    return restriction ? [{ athlete, restriction }] : [];
  });
  if (barred.length === 0) return null;
  return (
    <section className="panel" aria-label="Not for">
      <h2>Not for</h2>
      <ul className="plain-points">
        {barred.map(({ athlete, restriction }) => (
          <li key={athlete.id}>{whyBarred(athlete.name, restriction)}</li>
        ))}
      </ul>
    </section>
  );
};
