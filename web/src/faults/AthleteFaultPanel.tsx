import { LIVE_RATE, type TrendPoint } from '@gravek/core';
import type { Athlete, AthleteFaults, FaultStanding, Movement } from '@gravek/contract';
import { drillFor, faultOf, toldTo } from '@gravek/library';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useAthleteFaults, useFaultHistory } from '../api/queries';
import { Empty, Loaded } from '../controls/Notice';
import { RateChart } from '../drawing/RateChart';
import { StateMark } from '../drawing/StateMark';
import { useCatalogue } from '../movements/useCatalogue';
import { counted } from '../controls/dates';

const SHOWN = 5;

/** Worth a chart: live now, or with a story to tell. */
const matters = ({ rate, state, seen }: FaultStanding): boolean =>
  rate >= LIVE_RATE || state === 'clearing' || state === 'back' || seen >= 10;

const advice = (state: FaultStanding['state']): string | null =>
  state === 'stuck'
    ? 'The cue has not moved it in three sessions: change the words or the drill.'
    : null;

const InMovement = ({ picture, movement }: { picture: AthleteFaults; movement: Movement }) => {
  const [all, setAll] = useState(false);
  const history = useFaultHistory(picture.athleteId, picture.movement);
  const pointsOf = (code: string): TrendPoint[] =>
    [...(history.data?.pages ?? [])]
      .reverse()
      .flatMap((page) => page.faults.find((fault) => fault.code === code)?.points ?? []);
  const { cue } = picture;
  const cueFault = cue && faultOf(movement, cue.fault);
  const drill = cueFault && drillFor(movement, cueFault);
  const main = picture.faults.filter(matters).slice(0, SHOWN);
  const shown = all ? picture.faults : main;
  const cued = cue && picture.faults.find((one) => one.code === cue.fault);
  return (
    <div className="stack">
      <div className="cue-card">
        <div className="figure-label">The one cue</div>
        {cue ? (
          <>
            <div className="cue-words">{cueFault?.cue}</div>
            <div className="mt-1">{cue.reason}</div>
            {drill && (
              <div className="quiet small-text mt-1">
                Drill: {drill.name}. {drill.how}
              </div>
            )}
            {cued && advice(cued.state) && (
              <div className="note small-text mt-2">{advice(cued.state)}</div>
            )}
          </>
        ) : (
          <div>No fault shows often enough to deserve a cue. Let it run.</div>
        )}
      </div>
      <Loaded query={history} what="Getting the sessions …">
        {() =>
          shown.map(({ code, state }) => (
            <div key={code}>
              <div className="row-line">
                <strong>{faultOf(movement, code)?.name ?? code.replaceAll('-', ' ')}</strong>
                <StateMark state={state} />
              </div>
              <RateChart name={faultOf(movement, code)?.name ?? code} points={pointsOf(code)} />
            </div>
          ))
        }
      </Loaded>
      {history.hasNextPage && (
        <Button
          variant="link"
          className="p-0 align-self-start"
          disabled={history.isFetchingNextPage}
          onClick={() => void history.fetchNextPage()}
        >
          {history.isFetchingNextPage ? 'Getting earlier sessions …' : 'Earlier sessions'}
        </Button>
      )}
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
export const AthleteFaultPanel = ({ athlete }: { athlete: Athlete }) => {
  const catalogue = useCatalogue();
  const faults = useAthleteFaults(athlete.id);
  return (
    <section className="panel" aria-label="Faults">
      <h2>Faults</h2>
      <Loaded query={faults} what="Getting the reps …">
        {(list) =>
          list.length === 0 ? (
            <Empty title="No reps yet.">
              Watch two or three at full speed, then log reps in a session; rates and the cue appear
              here.
            </Empty>
          ) : (
            list.map((one) => (
              <div key={one.movement}>
                <div className="quiet small-text mb-2">
                  {catalogue.of(one.movement).name}: {counted(one.reps, 'rep')} in{' '}
                  {counted(one.sessions, 'session')}
                </div>
                <InMovement picture={one} movement={toldTo(catalogue.of(one.movement), athlete)} />
              </div>
            ))
          )
        }
      </Loaded>
    </section>
  );
};
