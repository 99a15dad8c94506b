import type { Movement } from '@gravek/contract';
import { isInBand, minutesOf } from '@gravek/core';
import { courseSuggestions, isSteady, runPart } from '@gravek/library';
import Button from 'react-bootstrap/Button';
import { bluetoothPod } from './bluetoothPod';
import { FollowingBeat } from './FollowingBeat';
import { phoneMotion } from './phoneMotion';
import { simulatedPod } from './simulatedPod';
import { tap, taps } from './taps';
import { connect, courseNow, disconnect, useDevice } from './useDevice';

/** What did not come as it should, in words. */
const troubles = ({ doubled, late, impossible, gaps }: ReturnType<typeof courseNow>): string[] => [
  ...(impossible > 0 ? [`${impossible} that nobody runs (other units?) left out`] : []),
  ...(doubled > 0 ? [`${doubled} sent twice`] : []),
  ...(late > 0 ? [`${late} came late`] : []),
  ...(gaps.length > 0
    ? [`silent for ${Math.round(gaps.reduce((sum, gap) => sum + gap.toS - gap.fromS, 0))} s`]
    : []),
];

/** Opens the choice of devices, while none measures. */
export const MeasureButton = () => {
  const { is, choosing } = useDevice();
  return (
    (is === 'off' || is === 'connecting') && (
      <button
        type="button"
        className="cue-change"
        aria-expanded={choosing}
        onClick={() => useDevice.setState({ choosing: !choosing })}
      >
        {is === 'connecting' ? 'Reaching the device …' : 'Measure it'}
      </button>
    )
  );
};

/** Cadence as it is run, against the plan, large enough for an arm's length; and what it speaks for. */
export const LiveCadence = ({
  movement,
  planned,
  marked,
  onFault,
}: {
  movement: Movement | null;
  /** steps a minute; null without a plan that fits */
  planned: number | null;
  marked: readonly string[];
  onFault: (code: string) => void;
}) => {
  const { is, device, said, problem, choosing } = useDevice();
  if (is === 'off' || is === 'connecting') {
    if (!choosing) return null;
    return (
      <div>
        {is === 'off' && (
          <div className="row-line">
            <Button size="sm" variant="outline-dark" onClick={() => void connect(bluetoothPod)}>
              Step pod
            </Button>
            <Button size="sm" variant="outline-dark" onClick={() => void connect(phoneMotion)}>
              This phone
            </Button>
            <Button size="sm" variant="outline-dark" onClick={() => void connect(taps)}>
              Taps
            </Button>
            {planned !== null && (
              <Button
                size="sm"
                variant="outline-dark"
                onClick={() => void connect(simulatedPod(planned))}
              >
                Simulated pod
              </Button>
            )}
          </div>
        )}
        {problem && (
          <div className="note note-wrong small-text" role="alert">
            {problem}
          </div>
        )}
      </div>
    );
  }
  const course = courseNow(said);
  const last = course.readings.at(-1);
  const suggested =
    movement && planned !== null
      ? courseSuggestions(movement, course.readings, { cadenceSpm: planned, speedMps: null })
      : [];
  const run = runPart(course.readings, planned);
  const mean =
    run.length > 0 ? run.reduce((sum, one) => sum + one.cadenceSpm, 0) / run.length : null;
  const minutes = minutesOf(course);
  const told = troubles(course);
  return (
    <section className="live" aria-label="Measured live">
      <div className="row-line">
        <span className="live-now" role="status" aria-label="Cadence now">
          {last ? Math.round(last.cadenceSpm) : '–'}
        </span>
        <span className="quiet">
          steps/min
          {planned !== null && (
            <>
              , planned <strong>{Math.round(planned)}</strong>
            </>
          )}
          {last && planned !== null && (
            <span className="d-block">
              {isInBand(last.cadenceSpm, planned)
                ? 'in the band'
                : last.cadenceSpm < planned
                  ? 'under it'
                  : 'over it'}
            </span>
          )}
        </span>
        <div className="live-acts ms-auto">
          <button type="button" className="cue-change" onClick={disconnect}>
            Stop
          </button>
          {movement && planned !== null && isSteady(movement) && (
            <FollowingBeat cadences={run.map((one) => one.cadenceSpm)} targetSpm={planned} />
          )}
        </div>
      </div>
      {device?.by === 'taps' && (
        <Button className="live-tap" variant="outline-dark" onPointerDown={tap}>
          Tap as each foot lands
        </Button>
      )}
      <div className="small-text quiet">
        {device?.name}
        {device?.simulated && ', made up: nothing real is measured'}
        {is === 'lost' && (
          <strong className="d-block">
            The connection is lost; it comes back by itself. What was measured stays.
          </strong>
        )}
        {said.at(-1)?.oneFoot && ', counts one foot: doubled'}
        {mean !== null && `; on average ${Math.round(mean)}`}
        {planned !== null &&
          minutes.length > 0 &&
          `; ${minutes.filter((spm) => isInBand(spm, planned)).length} of ${minutes.length} min in the band`}
        {told.length > 0 && `; ${told.join(', ')}`}
      </div>
      {suggested
        .filter(({ fault }) => !marked.includes(fault.code))
        .map(({ fault, seen, planned: was }) => (
          <div key={fault.code} className="row-line small-text">
            <span>
              {Math.round(seen)} where {Math.round(was)} is planned:
            </span>
            <Button size="sm" variant="outline-dark" onClick={() => onFault(fault.code)}>
              {fault.name}
            </Button>
          </div>
        ))}
    </section>
  );
};
