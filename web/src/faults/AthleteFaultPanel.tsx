import { LIVE_RATE } from '@gravek/core';
import type { Athlete, FaultCount, Movement } from '@gravek/contract';
import { drillFor, faultOf, toldTo, type AthleteFaults, type FaultPicture } from '@gravek/library';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Empty, Loaded } from '../controls/Notice';
import { RateChart } from '../drawing/RateChart';
import { StateMark } from '../drawing/StateMark';
import { useCatalogue } from '../movements/useCatalogue';
import { usePicture } from './usePicture';

const SHOWN = 5;

/** Worth a chart: live now, or with a story to tell. */
const matters = ({ trend, seen }: FaultPicture): boolean =>
  trend.now.rate >= LIVE_RATE || trend.state === 'clearing' || trend.state === 'back' || seen >= 10;

const advice = (state: FaultPicture['trend']['state']): string | null =>
  state === 'stuck'
    ? 'The cue has not moved it in three sessions: change the words or the drill.'
    : null;

const InMovement = ({ picture, movement }: { picture: AthleteFaults; movement: Movement }) => {
  const [all, setAll] = useState(false);
  const { cue } = picture;
  const drill = cue && drillFor(movement, cue.fault);
  const main = picture.faults.filter(matters).slice(0, SHOWN);
  const shown = all ? picture.faults : main;
  const cued = cue && picture.faults.find((one) => one.code === cue.fault.code);
  return (
    <div className="stack">
      <div className="cue-card">
        <div className="figure-label">The one cue</div>
        {cue ? (
          <>
            <div className="cue-words">{faultOf(movement, cue.fault.code)?.cue}</div>
            <div className="mt-1">{cue.reason}</div>
            {drill && (
              <div className="quiet small-text mt-1">
                Drill: {drill.name}. {drill.how}
              </div>
            )}
            {cued && advice(cued.trend.state) && (
              <div className="note small-text mt-2">{advice(cued.trend.state)}</div>
            )}
          </>
        ) : (
          <div>No fault shows often enough to deserve a cue. Let it run.</div>
        )}
      </div>
      {shown.map(({ code, trend }) => (
        <div key={code}>
          <div className="row-line">
            <strong>{faultOf(movement, code)?.name}</strong>
            <StateMark state={trend.state} />
          </div>
          <RateChart name={faultOf(movement, code)?.name ?? code} points={trend.points} />
        </div>
      ))}
      <p className="quiet small-text mb-0">
        Line: rate, recent sessions count more. Band: 5 to 95 %. Rings: what was counted. Dashes: 15
        %, from where a fault deserves a cue.
      </p>
      {picture.faults.length > main.length && (
        <Button variant="link" className="p-0 align-self-start" onClick={() => setAll(!all)}>
          {all ? 'Only those that matter' : `All ${picture.faults.length} that were ever seen`}
        </Button>
      )}
    </div>
  );
};

/** One athlete's faults: the cue with its reason first, then rate and band session by session. */
export const AthleteFaultPanel = ({
  athlete,
  counts,
}: {
  athlete: Athlete;
  counts: readonly FaultCount[];
}) => {
  const catalogue = useCatalogue();
  const picture = usePicture(counts, catalogue.documents);
  return (
    <section className="panel" aria-label="Faults">
      <h2>Faults</h2>
      {counts.length === 0 ? (
        <Empty title="No reps yet.">
          Watch two or three at full speed, then log reps in a session; rates and the cue appear
          here.
        </Empty>
      ) : (
        <Loaded query={picture} what="Working out the rates …">
          {(list) =>
            list
              .filter((one) => one.athleteId === athlete.id)
              .map((one) => (
                <div key={one.movement}>
                  <div className="quiet small-text mb-2">
                    {catalogue.of(one.movement).name}: {one.reps} reps in {one.sessions} sessions
                  </div>
                  <InMovement
                    picture={one}
                    movement={toldTo(catalogue.of(one.movement), athlete)}
                  />
                </div>
              ))
          }
        </Loaded>
      )}
    </section>
  );
};
