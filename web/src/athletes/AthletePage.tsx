import type { Athlete } from '@gravek/contract/athlete';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, sentenceOf } from '../api/client';
import { useAthlete, useAthletePlans, useWrite } from '../api/queries';
import { usePutAway } from '../controls/usePutAway';
import { useLengthStyle, useMayPlan, useMember } from '../member/member';
import { Menu } from '../controls/Menu';
import { opened } from '../controls/opened';
import { PageHead } from '../controls/PageHead';
import { Figure, Labelled, Length } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { FootWord } from '../drawing/FootPrint';
import { LedgerPanel } from '../parts/ledger/LedgerPanel';
import { MeasuredRuns } from '../parts/measuring/MeasuredRuns';
import { Readings } from '../parts/measuring/Readings';
import { SteadyWeeks } from '../parts/measuring/SteadyWeeks';
import { OwnCounts } from './OwnCounts';
import { OwnLink } from './OwnLink';
import { Restrictions } from './Restrictions';
import { Steps } from './Steps';

const AthleteForm = opened(async () => (await import('./AthleteForm')).AthleteForm);
const TrialForm = opened(async () => (await import('./TrialForm')).TrialForm);

const Plans = ({ athlete }: { athlete: Athlete }) => {
  const plans = useAthletePlans(athlete.id);
  const style = useLengthStyle(athlete.shoeM);
  return (
    <section className="panel" aria-label="Plans">
      <h2>Plans</h2>
      <Loaded query={plans} what="Getting the plans …">
        {(ledgers) => {
          if (ledgers.length === 0) {
            return (
              <Empty title="No plan yet.">
                <Link className="btn btn-primary" to={`/approaches/new?athlete=${athlete.id}`}>
                  Plan a run-up
                </Link>
              </Empty>
            );
          }
          return (
            <ul className="list-plain">
              {ledgers.map((plan) => {
                const { outline } = plan;
                return (
                  <li key={plan.id} className="row-line">
                    <Link className="row-link" to={`/approaches/${plan.id}?athlete=${athlete.id}`}>
                      {plan.name}
                    </Link>
                    <span className="ms-auto">
                      {!outline && <span className="quiet">does not fit</span>}
                      {outline &&
                        (outline.startM === null ? (
                          <Figure
                            parts={[
                              {
                                figure: String(outline.steps),
                                unit: outline.steps === 1 ? 'step' : 'steps',
                              },
                            ]}
                          />
                        ) : (
                          <Length m={outline.startM} style={style} />
                        ))}{' '}
                      {plan.modelSource === 'estimate' && (
                        <span className="tag tag-estimate">estimate</span>
                      )}
                    </span>
                  </li>
                );
              })}
            </ul>
          );
        }}
      </Loaded>
    </section>
  );
};

const Page = ({ athlete }: { athlete: Athlete }) => {
  const { role } = useMember();
  const mayPlan = useMayPlan();
  const style = useLengthStyle();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  // Sent here to measure a run, or height, leg or shoe: those are in the form.
  const [open, setOpen] = useState<'form' | 'trial' | null>(
    !mayPlan ? null : query.has('run') ? 'trial' : query.has('measure') ? 'form' : null,
  );
  const putAway = usePutAway('athletes', 'faults');
  const remove = useWrite(
    () => api.remove(`/athletes/${athlete.id}`),
    'athletes',
    'faults',
    'approaches',
    'run',
  );

  const deleteWholly = async (): Promise<void> => {
    const typed = window.prompt(
      `Everything held of ${athlete.name} goes: measures, plans and reps. This cannot be undone. Type the name to go on.`,
    );
    if (typed === null) return;
    if (typed.trim() !== athlete.name) {
      tell('That is not the name; nothing was deleted.');
      return;
    }
    try {
      await remove.mutateAsync(undefined);
      void navigate('/athletes');
      tell(`${athlete.name} is deleted.`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };

  return (
    <>
      <PageHead
        over={
          [athlete.squad, ...athlete.positions].join(', ') + (athlete.archived ? ', archived' : '')
        }
        title={athlete.name}
      >
        {mayPlan && (
          <>
            <Link className="btn btn-primary" to={`/approaches/new?athlete=${athlete.id}`}>
              Plan a run-up
            </Link>
            <Button variant="outline-dark" onClick={() => setOpen('form')}>
              Change
            </Button>
            <Menu
              name="More"
              items={[
                {
                  name: athlete.archived ? 'Bring back' : 'Archive',
                  onChoose: () =>
                    void putAway(
                      `/athletes/${athlete.id}`,
                      athlete.archived
                        ? `${athlete.name} is back.`
                        : `${athlete.name} is archived.`,
                      !athlete.archived,
                    ),
                },
                { name: 'Sheet to print', to: `/athletes/${athlete.id}/sheet` },
                {
                  name: 'Export everything held',
                  href: `/api/athletes/${athlete.id}/export`,
                  saveAs: `${athlete.name}.json`,
                },
                ...(role === 'owner'
                  ? [{ name: 'Delete wholly …', onChoose: () => void deleteWholly() }]
                  : []),
              ]}
            />
          </>
        )}
      </PageHead>
      <div className="figures-row mb-3">
        <Labelled label="Takes off from">
          <FootWord foot={athlete.takeoffFoot} />
        </Labelled>
        <Labelled label="Dominant hand">{athlete.hand}</Labelled>
        <Labelled label="Height">
          {athlete.heightM === null ? (
            <span className="quiet">not known</span>
          ) : (
            <Length
              m={athlete.heightM}
              style={{ unit: style.unit === 'shoes' ? 'metric' : style.unit }}
            />
          )}
        </Labelled>
        <Labelled label="Leg">
          {athlete.legM === null ? (
            <span className="quiet">not known</span>
          ) : (
            <Length
              m={athlete.legM}
              style={{ unit: style.unit === 'shoes' ? 'metric' : style.unit }}
            />
          )}
        </Labelled>
        <Labelled label="Shoe">
          {athlete.shoeM === null ? (
            <span className="quiet">not known</span>
          ) : (
            <Length m={athlete.shoeM} style={{ unit: style.unit, small: true }} />
          )}
        </Labelled>
        {athlete.birthYear !== null && (
          <Labelled label="Born">{athlete.bornOn ?? athlete.birthYear}</Labelled>
        )}
      </div>
      <LedgerPanel athlete={athlete} />
      <div className="columns mt-4">
        <div className="stack">
          <Steps athlete={athlete} onMeasure={() => setOpen('trial')} />
          <Readings athlete={athlete} style={style} />
          <SteadyWeeks athlete={athlete} style={style} />
        </div>
        <div className="stack">
          <Restrictions athlete={athlete} />
          <Plans athlete={athlete} />
          <MeasuredRuns athlete={athlete} style={style} />
          {mayPlan && <OwnLink athlete={athlete} />}
          <OwnCounts athleteId={athlete.id} />
        </div>
      </div>
      {open === 'form' && <AthleteForm athlete={athlete} onClose={() => setOpen(null)} />}
      {open === 'trial' && <TrialForm athlete={athlete} onClose={() => setOpen(null)} />}
    </>
  );
};

export const AthletePage = () => {
  const { id = '' } = useParams();
  const athlete = useAthlete(id);
  return (
    <Loaded query={athlete} what="Getting the athlete …">
      {(athlete) => <Page key={athlete.id} athlete={athlete} />}
    </Loaded>
  );
};
