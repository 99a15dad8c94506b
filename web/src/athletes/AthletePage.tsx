import { currentModel } from '@gravek/core';
import {
  RESTRICTION_KINDS,
  type Athlete,
  type Restriction,
  type RestrictionKind,
} from '@gravek/contract';
import { holding } from '@gravek/library';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../api/client';
import { useApproaches, useAthlete, useFaultCounts, useWrite } from '../api/queries';
import { usePutAway } from '../api/usePutAway';
import { useLengthStyle, useMayPlan, useMember } from '../app/member';
import { PageHead } from '../app/Shell';
import { Field } from '../controls/Field';
import { Figure, Labelled, Length } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { FitChart } from '../drawing/FitChart';
import { FootWord } from '../drawing/FootPrint';
import { AthleteFaultPanel } from '../faults/AthleteFaultPanel';
import { AthleteForm } from './AthleteForm';
import { RESTRICTION_NAMES } from './restrictions';
import { TrialForm } from './TrialForm';

const Steps = ({ athlete, onMeasure }: { athlete: Athlete; onMeasure: () => void }) => {
  const style = useLengthStyle(athlete.shoeM);
  const mayPlan = useMayPlan();
  const { model, source, fit } = currentModel(athlete);
  const putAway = usePutAway('athletes', 'reps');
  const odd = fit?.steps.filter((step) => step.oddLength || step.oddCadence).length ?? 0;
  return (
    <section className="panel stack" aria-label="Steps">
      <div className="row-line">
        <div className="figures-row">
          <Labelled label="First step">
            <Length m={model.firstLengthM} style={style} big />
          </Labelled>
          <Labelled label="Full step">
            <Length m={model.topLengthM} style={style} big />
          </Labelled>
          <Labelled label="Full cadence">
            <Figure
              parts={[{ figure: String(Math.round(model.topCadenceSpm)), unit: 'steps/min' }]}
              big
            />
          </Labelled>
          {fit && (
            <Labelled label="Fits within">
              <Length m={fit.lengthRmsM} style={{ ...style, small: true }} big />
            </Labelled>
          )}
        </div>
        {mayPlan && (
          <Button
            className="ms-auto"
            variant={fit ? 'outline-dark' : 'primary'}
            onClick={onMeasure}
          >
            Add a measured run
          </Button>
        )}
      </div>
      {source === 'estimate' && (
        <div className="note">
          <span className="tag tag-estimate">estimate</span> These figures come from{' '}
          {athlete.heightM ? 'body height' : 'a usual height'} and not from this athlete’s feet.
          Measure a run of ten steps or more before trusting a plan to the centimetre.
        </div>
      )}
      {fit && (
        <>
          <FitChart fit={fit} style={style} />
          {(fit.stillBuilding || odd > 0) && (
            <div className="note">
              {odd > 0 &&
                `${odd} ${odd === 1 ? 'step lies' : 'steps lie'} far from the curve; a slip of the tape, or a stumble. `}
              {fit.stillBuilding &&
                'The steps still grow at the end of the run, so the full step is a guess; measure more steps.'}
            </div>
          )}
        </>
      )}
      {athlete.trials.length > 0 && (
        <ul className="list-plain">
          {athlete.trials.map((trial) => (
            <li key={trial.id} className="row-line">
              <span>{trial.takenOn}</span>
              <span className="quiet">
                {trial.steps.length} steps, counted by{' '}
                {trial.source === 'device'
                  ? 'a device'
                  : trial.source === 'other'
                    ? 'another'
                    : 'the athlete'}
              </span>
              {mayPlan && (
                <Button
                  size="sm"
                  variant="link"
                  className="ms-auto"
                  onClick={() =>
                    void putAway(
                      `/athletes/${athlete.id}/trials/${trial.id}`,
                      'The run is taken out.',
                    )
                  }
                >
                  Take out
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
};

const Plans = ({ athlete }: { athlete: Athlete }) => {
  const approaches = useApproaches();
  const style = useLengthStyle(athlete.shoeM);
  return (
    <section className="panel" aria-label="Plans">
      <h2>Plans</h2>
      <Loaded query={approaches} what="Getting the plans …">
        {(list) => {
          const own = list.filter((one) => !one.archived && one.athleteIds.includes(athlete.id));
          if (own.length === 0) {
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
              {own.map((one) => {
                const solved = one.solved.find((row) => row.athleteId === athlete.id)!;
                return (
                  <li key={one.id} className="row-line">
                    <Link className="row-link" to={`/approaches/${one.id}?athlete=${athlete.id}`}>
                      {one.name}
                    </Link>
                    <span className="ms-auto">
                      {solved.result.feasible ? (
                        <Length m={solved.result.distanceM} style={style} />
                      ) : (
                        <span className="quiet">does not fit</span>
                      )}{' '}
                      {solved.modelSource === 'estimate' && (
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

const Restrictions = ({ athlete }: { athlete: Athlete }) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const [adding, setAdding] = useState(false);
  const [kind, setKind] = useState<RestrictionKind>('reduced');
  const [until, setUntil] = useState('');
  const [messages, setMessages] = useState<Record<string, string>>({});
  const add = useWrite(
    (body: Restriction) => api.post(`/athletes/${athlete.id}/restrictions`, body),
    'athletes',
  );
  const putAway = usePutAway('athletes');
  const held = new Set(holding(athlete.restrictions, today));
  const submit = async (): Promise<void> => {
    try {
      await add.mutateAsync({
        id: uuid(),
        athleteId: athlete.id,
        kind,
        from: today,
        until,
        note: '',
      });
      setAdding(false);
      setMessages({});
    } catch (error) {
      const fields = fieldsOf(error);
      setMessages(Object.keys(fields).length > 0 ? fields : { until: sentenceOf(error) });
    }
  };
  return (
    <section className="panel" aria-label="Restrictions">
      <div className="row-line mb-1">
        <h2 className="mb-0">Restrictions</h2>
        {mayPlan && !adding && (
          <Button size="sm" variant="link" className="ms-auto p-0" onClick={() => setAdding(true)}>
            Add
          </Button>
        )}
      </div>
      {athlete.restrictions.length === 0 && !adding && <span className="quiet">None.</span>}
      <ul className="list-plain">
        {athlete.restrictions.map((one) => (
          <li key={one.id} className="row-line">
            <strong>{RESTRICTION_NAMES[one.kind]}</strong>
            <span className={held.has(one) ? '' : 'quiet'}>
              {one.from} to {one.until}
              {held.has(one) ? '' : ', over'}
            </span>
            {one.note && <span className="quiet">{one.note}</span>}
            {mayPlan && (
              <Button
                size="sm"
                variant="link"
                className="ms-auto p-0"
                onClick={() =>
                  void putAway(
                    `/athletes/${athlete.id}/restrictions/${one.id}`,
                    'The restriction is lifted.',
                  )
                }
              >
                Lift
              </Button>
            )}
          </li>
        ))}
      </ul>
      {adding && (
        <Form
          className="row-line mt-2"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void submit();
          }}
        >
          <Field label="What" message={messages.kind}>
            <Form.Select
              value={kind}
              onChange={(event) => setKind(event.target.value as RestrictionKind)}
            >
              {RESTRICTION_KINDS.map((one) => (
                <option key={one} value={one}>
                  {RESTRICTION_NAMES[one]}
                </option>
              ))}
            </Form.Select>
          </Field>
          <Field label="Until" message={messages.until}>
            <Form.Control
              type="date"
              value={until}
              onChange={(event) => setUntil(event.target.value)}
            />
          </Field>
          <Button type="submit" className="align-self-end">
            Restrict
          </Button>
          <p className="quiet small-text mb-0">
            Return to play needs the clearance of a licensed professional.
          </p>
        </Form>
      )}
    </section>
  );
};

const Page = ({ athlete }: { athlete: Athlete }) => {
  const { role } = useMember();
  const mayPlan = useMayPlan();
  const style = useLengthStyle();
  const navigate = useNavigate();
  const [open, setOpen] = useState<'form' | 'trial' | null>(null);
  const counts = useFaultCounts(athlete.id);
  const putAway = usePutAway('athletes', 'reps');
  const remove = useWrite(
    () => api.remove(`/athletes/${athlete.id}`),
    'athletes',
    'reps',
    'approaches',
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
            <Dropdown align="end">
              <Dropdown.Toggle variant="outline-dark">More</Dropdown.Toggle>
              <Dropdown.Menu>
                <Dropdown.Item
                  onClick={() =>
                    void putAway(
                      `/athletes/${athlete.id}`,
                      athlete.archived
                        ? `${athlete.name} is back.`
                        : `${athlete.name} is archived.`,
                      !athlete.archived,
                    )
                  }
                >
                  {athlete.archived ? 'Bring back' : 'Archive'}
                </Dropdown.Item>
                <Dropdown.Item
                  href={`/api/athletes/${athlete.id}/export`}
                  download={`${athlete.name}.json`}
                >
                  Export everything held
                </Dropdown.Item>
                {role === 'owner' && (
                  <Dropdown.Item onClick={() => void deleteWholly()}>Delete wholly …</Dropdown.Item>
                )}
              </Dropdown.Menu>
            </Dropdown>
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
        <Labelled label="Shoe">
          {athlete.shoeM === null ? (
            <span className="quiet">not known</span>
          ) : (
            <Length m={athlete.shoeM} style={{ unit: style.unit, small: true }} />
          )}
        </Labelled>
        {athlete.birthYear !== null && <Labelled label="Born">{athlete.birthYear}</Labelled>}
      </div>
      <div className="columns">
        <div className="stack">
          <Steps athlete={athlete} onMeasure={() => setOpen('trial')} />
          <Plans athlete={athlete} />
          <Restrictions athlete={athlete} />
        </div>
        <Loaded query={counts} what="Getting the reps …">
          {(list) => <AthleteFaultPanel athleteId={athlete.id} counts={list} />}
        </Loaded>
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
      {(one) => <Page key={one.id} athlete={one} />}
    </Loaded>
  );
};
