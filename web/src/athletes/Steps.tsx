import { currentModel } from '@gravek/core/runup/currentModel';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import Button from 'react-bootstrap/Button';
import { dayName } from '../controls/dates';
import { Figure, Labelled, Length } from '../controls/Figure';
import { usePutAway } from '../controls/usePutAway';
import { FitChart } from '../drawing/FitChart';
import { useLengthStyle, useMayPlan } from '../member/member';
import { UNTIMED } from './untimed';

export const Steps = ({ athlete, onMeasure }: { athlete: Athlete; onMeasure: () => void }) => {
  const style = useLengthStyle(athlete.shoeM);
  const mayPlan = useMayPlan();
  const { model, source, fit } = currentModel(athlete);
  const putAway = usePutAway('athletes', 'run');
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
          <Labelled label={fit?.timed === false ? 'Full cadence (estimate)' : 'Full cadence'}>
            <Figure
              parts={[{ figure: String(Math.round(model.topCadenceSpm)), unit: 'steps/min' }]}
              big
            />
          </Labelled>
          {fit && (
            <Labelled label="Measured steps lie within">
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
          {!fit.timed && (
            <div className="note">
              <span className="tag tag-estimate">estimate</span> {UNTIMED}
            </div>
          )}
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
              <span>{dayName(trial.takenOn)}</span>
              <span className="quiet">
                {counted(trial.steps.length, 'step')}
                {trial.steps.every(({ intervalS }) => intervalS === null) && ', tape only'}, counted
                by{' '}
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
