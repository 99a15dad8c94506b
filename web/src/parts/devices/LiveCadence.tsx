import { isInBand } from '@gravek/core/measuring/deviceCourse';
import { type LengthStyle, speedParts } from '@gravek/core/units';
import type { Movement } from '@gravek/contract/movement';
import { courseSuggestions, measuredMeans } from '@gravek/library/measuring/measuredRows';
import { plannedCadence, type PlannedRun, runsFrom } from '@gravek/library/measuring/measuredRun';
import { useEffect } from 'react';
import Button from 'react-bootstrap/Button';
import { useDraft } from '../../controls/draft';
import { opened } from '../../controls/opened';
import { useLengthStyle } from '../../member/member';
import { bluetoothPod } from './bluetoothPod';
import type { Connect, Device } from './device';
import { FollowingBeat } from './FollowingBeat';
import { GateTimes } from './GateTimes';
import { microphone } from './microphone';
import { phoneMotion } from './phoneMotion';
import { madeUpGates, madeUpPod, typedGates } from './simulated';
import { tap, taps } from './taps';
import {
  connect,
  courseNow,
  disconnect,
  isUp,
  measuredNow,
  measures,
  useDevice,
  wearBy,
  type Wearer,
} from './useDevice';
import { measuredWords } from './words';

const MeasuredChart = opened(
  async () => (await import('../../drawing/MeasuredChart')).MeasuredChart,
);

/** Rows under which there is nothing to draw. */
const DRAWN_FROM = 2;

/** What did not come as it should, in words. */
const troubles = (
  { doubled, late, impossible, gaps }: ReturnType<typeof courseNow>,
  device: Device | null,
): string[] => [
  ...(impossible > 0 ? [`${impossible} that nobody runs (other units?) left out`] : []),
  ...(doubled > 0 ? [`${doubled} sent twice`] : []),
  ...(late > 0 ? [`${late} came late`] : []),
  // Between reps no foot lands: a device that tells contacts is silent then.
  ...(gaps.length > 0 && !device?.contacts
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

/** Which device is to measure. */
const Choice = ({
  plan,
  gatesAt,
  gateStyle,
  who,
}: {
  plan: PlannedRun | null;
  gatesAt: string;
  gateStyle: LengthStyle;
  who: Wearer;
}) => {
  const { is, problem } = useDevice();
  const hasLengths = plan?.steps.some(({ lengthM }) => lengthM !== null) ?? false;
  const devices: [name: string, by: Connect][] = [
    ['Step pod', bluetoothPod],
    ['This phone', phoneMotion],
    ['Taps', taps],
    ['Microphone', microphone],
    ['Gates', typedGates(gatesAt, gateStyle)],
    ...(plan ? [['Simulated pod', madeUpPod(plan)] as [string, Connect]] : []),
    ...(plan && hasLengths ? [['Simulated gates', madeUpGates(plan)] as [string, Connect]] : []),
  ];
  return (
    <div className="measure-choice">
      {is === 'off' && (
        <div className="row-line">
          {devices.map(([name, by]) => (
            <Button
              key={name}
              size="sm"
              variant="outline-dark"
              onClick={() => void connect(by, who)}
            >
              {name}
            </Button>
          ))}
        </div>
      )}
      {problem && (
        <div className="note note-wrong small-text" role="alert">
          {problem}
        </div>
      )}
    </div>
  );
};

/** What is run, against the plan, large enough for an arm's length; and what it speaks for. */
export const LiveCadence = ({
  movement,
  plan,
  who,
  turn,
  marked,
  onFault,
}: {
  movement: Movement;
  /** who is up */
  who: Wearer;
  /** which turn it is */
  turn: string;
  /** null without one that fits */
  plan: PlannedRun | null;
  marked: readonly string[];
  onFault: (code: string) => void;
}) => {
  const { is, device, of, said, factor, gates, choosing } = useDevice();
  // Anew for each device as well: it measures from the turn on at which it was chosen.
  useEffect(() => isUp(turn), [turn, is]);
  const { unit } = useLengthStyle();
  // Nobody sets out gates in shoes.
  const gateStyle: LengthStyle = { unit: unit === 'shoes' ? 'metric' : unit };
  const [gatesAt, keepGatesAt] = useDraft(
    `gates.at.${gateStyle.unit}`,
    unit === 'imperial' ? '15 30 60' : '5 10 20',
  );
  if (is === 'off' || is === 'connecting')
    return choosing && <Choice plan={plan} gatesAt={gatesAt} gateStyle={gateStyle} who={who} />;
  if (!measures({ device, of }, who.id))
    return (
      <section className="live row-line small-text" aria-label="Measured live">
        <span>
          {device?.name}: {of?.name} wears it.
        </span>
        <Button size="sm" variant="outline-dark" className="ms-auto" onClick={() => wearBy(who)}>
          {who.name} has it now
        </Button>
        <button type="button" className="cue-change" onClick={disconnect}>
          Stop
        </button>
      </section>
    );

  const course = courseNow({ said, factor });
  const { run, why } = measuredNow({ device, gates }, course, plan);
  const means = run && measuredMeans(run);
  const last = course.readings.at(-1);
  // On the way back the figure of the run is shown, not of the walk.
  const runs = last && last.cadenceSpm > runsFrom(plan);
  const cadence = gates
    ? null
    : runs
      ? { seen: last.cadenceSpm, planned: means?.rows.at(-1)?.plannedSpm ?? null }
      : (means?.cadence ?? null);
  const speed = gates && (means?.rows.at(-1) ?? null);
  const planned = cadence ? cadence.planned : plan && !gates ? plannedCadence(plan) : null;
  const [seen, was] = [
    gates ? (speed?.seenMps ?? null) : (cadence?.seen ?? null),
    gates ? (speed?.plannedMps ?? null) : planned,
  ];
  const about = [
    `${device?.name}${device?.by === 'sound' ? ' by the track; it hears a beat as well' : ''}`,
    ...(device?.simulated ? ['nothing real is measured'] : []),
    ...(factor === 2 ? ['counts one foot: doubled'] : []),
    ...(means?.cadence ? [`on average ${Math.round(means.cadence.seen)}`] : []),
    ...(means?.per === 'minute' && means.compared > 0
      ? [`${means.inBand} of ${means.compared} min in the band`]
      : []),
    ...troubles(course, device),
  ];
  const write = (value: number): string =>
    gates ? speedParts(value, unit).figure : value.toFixed(0);
  const suggested = run ? courseSuggestions(movement, run) : [];
  return (
    <section className="live" aria-label="Measured live">
      <div className="row-line">
        <span className="live-now" role="status" aria-label={gates ? 'Speed now' : 'Cadence now'}>
          {seen === null ? '–' : write(seen)}
        </span>
        <span className="quiet">
          {gates ? speedParts(0, unit).unit : 'steps/min'}
          {was !== null && (
            <>
              , planned <strong>{write(was)}</strong>
            </>
          )}
          <span className="d-block">
            {seen !== null &&
              was !== null &&
              (isInBand(seen, was) ? 'in the band ' : seen < was ? 'under it ' : 'over it ')}
            {device?.simulated && <span className="tag tag-estimate ms-1">made up</span>}
          </span>
        </span>
        <div className="live-acts ms-auto">
          <button type="button" className="cue-change" onClick={disconnect}>
            Stop
          </button>
          {plan?.steady && !gates && (
            <FollowingBeat
              cadences={course.readings.flatMap(({ cadenceSpm }) =>
                cadenceSpm > runsFrom(plan) ? [cadenceSpm] : [],
              )}
              targetSpm={plan.steady.cadenceSpm}
            />
          )}
        </div>
      </div>
      {device?.by === 'taps' && (
        <Button className="live-tap" variant="outline-dark" onPointerDown={tap}>
          Tap as each foot lands
        </Button>
      )}
      {gates && (
        <GateTimes
          gates={gates}
          why={why}
          onChange={(typed) => {
            if (!device?.simulated) keepGatesAt(typed.distances);
            useDevice.setState({ gates: typed });
          }}
        />
      )}
      {means && (means.per === 'minute' || means.rows.length >= DRAWN_FROM) && (
        <MeasuredChart
          per={means.per}
          rows={means.rows}
          what={gates ? 'Mps' : 'Spm'}
          unit={unit}
          height={68}
        />
      )}
      {is === 'lost' && (
        <strong className="small-text">
          The connection is lost; it comes back by itself. What was measured stays.
        </strong>
      )}
      <div className="small-text quiet">{about.join('; ')}</div>
      {suggested
        .filter(({ fault }) => !marked.includes(fault.code))
        .map((found) => (
          <div key={found.fault.code} className="row-line small-text">
            <span>{measuredWords(found, unit)}:</span>
            <Button size="sm" variant="outline-dark" onClick={() => onFault(found.fault.code)}>
              {found.fault.name}
            </Button>
          </div>
        ))}
    </section>
  );
};
