import '../look/look.scss';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { OwnView } from '@gravek/contract/ownView';
import { useQuery } from '@tanstack/react-query';
import { Pause, Play } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useStore } from 'zustand';
import { api } from '../api/client';
import { dayName } from '../controls/dates';
import { Empty, Loaded } from '../controls/Notice';
import { useTitle } from '../controls/useTitle';
import { FootWord } from '../drawing/FootPrint';
import { RateChart } from '../drawing/RateChart';
import { pointsOf } from '../parts/ledger/points';
import { toggle, usePlayer } from '../hearing/player';
import { Alone } from './Alone';
import { useCounts } from './useCounts';
import { Rhythm } from '../parts/field/Rhythm';

const Plan = ({ plan, style }: { plan: OwnView['plans'][number]; style: LengthStyle }) => {
  const { outline } = plan;
  const player = usePlayer(outline.contacts, outline.totalTimeS);
  const playing = useStore(player, (state) => state.playing);
  return (
    <section className="panel own-plan" aria-label={plan.name}>
      <h2>{plan.name}</h2>
      <div className="figures-row">
        {outline.startM !== null && (
          <div>
            <div className="figure-label">Start mark</div>
            <div className="figure figure-big">{formatLength(outline.startM, style)}</div>
          </div>
        )}
        {outline.checkMarks.map(({ stepsOut, toTargetM }) => (
          <div key={stepsOut}>
            <div className="figure-label">Check mark, {stepsOut} steps out</div>
            <div className="figure figure-big">{formatLength(toTargetM, style)}</div>
          </div>
        ))}
        <div>
          <div className="figure-label">Steps</div>
          <div className="figure figure-big">{outline.steps}</div>
        </div>
        <div>
          <div className="figure-label">First foot</div>
          <div>
            <FootWord foot={outline.firstFoot} />
          </div>
        </div>
      </div>
      {plan.estimate && (
        <p className="quiet small-text mb-0">Reckoned from height and age; not measured yet.</p>
      )}
      <Rhythm plan={outline} />
      <Button variant="outline-dark" onClick={() => toggle(player)}>
        {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}{' '}
        {playing ? 'Stop' : 'Hear the rhythm'}
      </Button>
    </section>
  );
};

const Standing = ({ standing }: { standing: OwnView['standings'][number] }) => {
  const { cue, row } = standing;
  return (
    <section className="panel" aria-label={standing.movement}>
      <h2>{standing.movement}</h2>
      <div className="figure-label">The one thing</div>
      <p className="film-cue mb-1">{cue ? cue.words : 'Nothing: let it run.'}</p>
      {cue?.drill && (
        <p className="small-text">
          Drill: <strong>{cue.drill.name}.</strong> {cue.drill.how}
        </p>
      )}
      {cue && row && (
        <>
          <div className="figure-label">{cue.fault}, share of reps</div>
          <RateChart name={cue.fault} points={pointsOf(standing, row)} />
        </>
      )}
    </section>
  );
};

const Own = ({ view, token }: { view: OwnView; token: string }) => {
  const counts = useCounts(token, view.counts);
  useTitle(view.name);
  const style: LengthStyle = { unit: view.unit, shoeM: view.shoeM ?? undefined };
  return (
    <>
      <header className="page-head">
        <div>
          <div className="page-over">{view.club}</div>
          <h1>{view.name}</h1>
        </div>
      </header>
      {view.standings.length + view.plans.length + view.lists.length === 0 && (
        <Empty title="Nothing yet.">Plans and cues come here once your coach has made them.</Empty>
      )}
      <div className="stack">
        <Alone lists={view.lists} counts={counts} />
        {view.standings.map((standing) => (
          <Standing key={standing.movement} standing={standing} />
        ))}
        {view.plans.map((plan) => (
          <Plan key={plan.id} plan={plan} style={style} />
        ))}
      </div>
      <p className="quiet small-text mt-3">
        This page is yours alone. The link holds until {dayName(view.until.slice(0, 10))}.
      </p>
    </>
  );
};

/** What athletes see of themselves, by the link that a coach has given. */
export const OwnPage = () => {
  // After the #, so that it goes to no server and no log before it is used.
  const [token] = useState(() => window.location.hash.slice(1));
  const view = useQuery({
    queryKey: ['own', token],
    retry: false,
    queryFn: () => api.post<OwnView>('/own', { token }),
  });
  return (
    <main className="own-page">
      <Loaded query={view} what="Opening your page …">
        {(ownView) => <Own view={ownView} token={token} />}
      </Loaded>
    </main>
  );
};
