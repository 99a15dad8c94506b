import { STEP_BOUNDS } from '@gravek/core/runup/stepModel';
import { formatLength } from '@gravek/core/units';
import type { Athlete, Trial } from '@gravek/contract/athlete';
import type { Reviewed } from '@gravek/library/film/reviewed';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v5 as idOf } from 'uuid';
import { api, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Field } from '../controls/Field';
import { LengthInput } from '../controls/LengthInput';
import { tell } from '../controls/toasts';
import { useLengthStyle, useMayPlan } from '../member/member';
import type { Marks } from './useReview';

/** Steps of a run from a standing start, along the way that is run. */
const stepsOf = ({ seen, rows }: Reviewed): Trial['steps'] =>
  seen
    ? seen.steps.map(({ intervalS }, i) => ({
        lengthM: Number(
          Math.abs(seen.contacts[i + 1]!.alongM - seen.contacts[i]!.alongM).toFixed(3),
        ),
        intervalS: rows[i]?.isTimed ? Number(intervalS.toFixed(3)) : null,
      }))
    : [];

/** Takes what was measured over to the athlete's measures, one press each; and a still to send on. */
export const Takes = ({
  marks,
  reviewed,
  athlete,
  onStill,
}: {
  marks: Marks;
  reviewed: Reviewed;
  athlete: Athlete;
  onStill: () => void;
}) => {
  const style = useLengthStyle(athlete.shoeM);
  const mayPlan = useMayPlan();
  const [taken, setTaken] = useState<readonly string[]>([]);
  const [radiusM, setRadiusM] = useState<number | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const write = useWrite(
    ({ path, body }: { path: string; body: object }) =>
      api.post(`/athletes/${athlete.id}/${path}`, body),
    'athletes',
    'run',
  );
  const { seen, firstStep, beyond, rows } = reviewed;
  const common = {
    athleteId: athlete.id,
    takenOn: marks.takenOn,
    source: 'device',
    note: `From the film ${marks.film.name}`.slice(0, 200),
  };
  const take = async (
    what: 'trial' | 'curve' | 'miss',
    path: string,
    body: object,
    said: string,
  ): Promise<void> => {
    // The same figures of the same film are one measure, on whichever visit they are taken.
    const id = idOf(JSON.stringify([what, body]), marks.id);
    try {
      await write.mutateAsync({ path, body: { ...common, id, ...body } });
      setTaken([...taken, what]);
      tell(said);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const steps = stepsOf(reviewed);
  const enough = steps.length >= STEP_BOUNDS.trialSteps.min;
  const reached = rows.at(-1)?.planned?.toLineM === 0;
  const reading = (what: 'curve' | 'miss', reading: object, said: string) =>
    take(what, 'readings', { reading }, said);
  return (
    <section aria-label="Take over">
      <h3>Take over</h3>
      <div className="stack film-takes">
        {mayPlan && seen && (
          <>
            {firstStep === 0 && enough ? (
              <Button
                size="sm"
                variant="outline-dark"
                disabled={taken.includes('trial')}
                onClick={() =>
                  void take(
                    'trial',
                    'trials',
                    { steps },
                    `A measured run of ${steps.length} steps is with ${athlete.name}.`,
                  )
                }
              >
                {taken.includes('trial')
                  ? 'Kept as a measured run'
                  : `As a measured run, ${steps.length} steps`}
              </Button>
            ) : (
              <p className="quiet small-text mb-0">
                {firstStep > 0
                  ? 'A measured run needs the steps from the start on.'
                  : `A measured run needs ${STEP_BOUNDS.trialSteps.min} steps.`}
              </p>
            )}
            {beyond && reached && (
              <Button
                size="sm"
                variant="outline-dark"
                disabled={taken.includes('miss')}
                onClick={() =>
                  void reading(
                    'miss',
                    { kind: 'run-through', missesM: [Number(beyond.m.toFixed(3))] },
                    'The miss is with the run-throughs.',
                  )
                }
              >
                {taken.includes('miss')
                  ? 'Kept with the run-throughs'
                  : `As a run-through: ${formatLength(Math.abs(beyond.m), { ...style, small: true })} ${beyond.m > 0 ? 'beyond' : 'short'}`}
              </Button>
            )}
            {steps.length >= 2 && (
              <details>
                <summary className="small-text">As a test circle</summary>
                <div className="row-line align-items-end">
                  <Field label="Radius that was run" message={message ?? undefined}>
                    <LengthInput
                      valueM={radiusM}
                      style={style}
                      optional
                      onLength={setRadiusM}
                      onMessage={setMessage}
                    />
                  </Field>
                  <Button
                    size="sm"
                    variant="outline-dark"
                    disabled={radiusM === null || taken.includes('curve')}
                    onClick={() =>
                      void reading(
                        'curve',
                        {
                          kind: 'curve',
                          radiusM,
                          chordsM: seen.steps.map((step) => Number(step.lengthM.toFixed(3))),
                        },
                        'The test circle is kept.',
                      )
                    }
                  >
                    {taken.includes('curve') ? 'Kept' : `${steps.length} steps on the circle`}
                  </Button>
                </div>
              </details>
            )}
          </>
        )}
        <Button size="sm" variant="outline-dark" onClick={onStill}>
          This frame as a picture
        </Button>
      </div>
    </section>
  );
};
