import { arcLanes, arcMove, keepersAt, onArc, type ArcPlace } from '@gravek/core/curve/goalArc';
import type { LengthStyle } from '@gravek/core/units';
import type { SequenceChoices } from '@gravek/contract/approach';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Figure, Labelled, Length } from '../../controls/Figure';
import { Slider } from '../../controls/Slider';
import { useWidth } from '../../drawing/useWidth';

type Chosen = NonNullable<SequenceChoices['arc']>;

const HEIGHT = 250;

/** The depth at which the outermost lanes stand before the posts. */
const fitting = (goalM: number, spreadDeg: number): { depthM: number } => ({
  depthM: Number((goalM / 2 / Math.sin((spreadDeg * Math.PI) / 180)).toFixed(1)),
});

/** A keeper's lanes to set out, and both schools of the wide move raced against each other. */
export const ArcPanel = ({
  chosen: now,
  ground,
  shuffleM,
  style,
  disabled,
  onChoose,
}: {
  /** what the coach chose, or what the movement says */
  chosen: Chosen & { goalM: number };
  /** where it is set out: its goal holds */
  ground: SequenceChoices['ground'];
  /** the athlete's own shuffle */
  shuffleM: number;
  style: LengthStyle;
  disabled: boolean;
  onChoose: (chosen: Chosen) => void;
}) => {
  const set = (change: Partial<Chosen>): void => {
    const next = { ...now, ...change };
    onChoose({
      ...next,
      fromLane: Math.min(next.fromLane, next.lanes),
      toLane: Math.min(next.toLane, next.lanes),
    });
  };
  const lanes = arcLanes({ ...now, shuffleStepM: shuffleM });
  const fromDeg = lanes.marks[now.fromLane - 1]!.angleDeg;
  const toDeg = lanes.marks[now.toLane - 1]!.angleDeg;
  const arcInput = { depthM: now.depthM, fromDeg, toDeg, speedMps: now.speedMps };
  const move = arcMove(arcInput);
  const endS = Math.max(move.straight.setS, move.angleFirst.setS);
  const [timeS, setTimeS] = useState(endS);
  const [racing, setRacing] = useState(false);
  useEffect(() => {
    if (!racing) return undefined;
    let frame = 0;
    const began = performance.now();
    const next = (t: number): void => {
      const passed = (t - began) / 1000;
      setTimeS(Math.min(endS, passed));
      if (passed > endS) {
        setRacing(false);
        return;
      }
      frame = requestAnimationFrame(next);
    };
    frame = requestAnimationFrame(next);
    return () => cancelAnimationFrame(frame);
  }, [racing, endS]);
  const shownS = racing ? timeS : endS;
  const [ref, width] = useWidth<HTMLDivElement>(600);
  const reach = Math.max(now.goalM / 2 + 0.3, now.depthM + 0.3);
  const pixels = Math.min((width - 40) / (2 * reach), (HEIGHT - 46) / (now.depthM + 0.4));
  const x = scaleLinear([-reach, reach], [width / 2 - reach * pixels, width / 2 + reach * pixels]);
  // Out of the goal is up, as in the drawing of the plan.
  const y = (outM: number): number => HEIGHT - 34 - outM * pixels;
  const keepers = keepersAt(arcInput, shownS);
  const from = onArc(fromDeg, now.depthM);
  const to = onArc(toDeg, now.depthM);
  const points = (list: ArcPlace[]): string =>
    list.map((place) => `${x(place.acrossM)},${y(place.outM)}`).join(' ');
  return (
    <section className="panel no-print" aria-label="Lanes and the wide move">
      <h2>Lanes, and the wide move both ways</h2>
      <div className="figures-row mb-1">
        <Labelled label="Between lanes">
          <Length m={lanes.gapM} style={style} big />
        </Labelled>
        <Labelled label="Shuffles a lane">
          <span className="figure figure-big">{lanes.stepsPerGap}</span>
        </Labelled>
        <Labelled label="Straight: on angle and set">
          <Figure parts={[{ figure: move.straight.setS.toFixed(2), unit: 's' }]} big />
        </Labelled>
        <Labelled label="Angle first: on angle">
          <Figure parts={[{ figure: move.angleFirst.onAngleS.toFixed(2), unit: 's' }]} big />
        </Labelled>
        <Labelled label="set">
          <Figure parts={[{ figure: move.angleFirst.setS.toFixed(2), unit: 's' }]} big />
        </Labelled>
      </div>
      <div ref={ref}>
        <svg
          className="chart race"
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`${now.lanes} lanes on an arc; straight is set after ${move.straight.setS.toFixed(2)} s, angle first is on angle after ${move.angleFirst.onAngleS.toFixed(2)} s and set after ${move.angleFirst.setS.toFixed(2)} s`}
        >
          <line
            x1={x(-now.goalM / 2)}
            x2={x(now.goalM / 2)}
            y1={y(0)}
            y2={y(0)}
            stroke="var(--ink)"
            strokeWidth="5"
          />
          <text x={x(-now.goalM / 2) - 6} y={y(0) + 4} textAnchor="end">
            goal
          </text>
          {lanes.marks.map((mark, i) => (
            <g key={mark.angleDeg}>
              <line
                x1={x(0)}
                y1={y(0)}
                x2={x(mark.acrossM * 1.16)}
                y2={y(mark.outM * 1.16)}
                stroke="var(--rule)"
              />
              <circle
                cx={x(mark.acrossM)}
                cy={y(mark.outM)}
                r="5"
                fill="var(--surface)"
                stroke="var(--mark)"
                strokeWidth="2"
              />
              <text
                x={x(mark.acrossM * 1.22)}
                y={y(mark.outM * 1.22) + 4}
                textAnchor="middle"
                className={i + 1 === now.fromLane || i + 1 === now.toLane ? 'strong' : undefined}
              >
                {i + 1}
              </text>
            </g>
          ))}
          <polyline points={points([from, to])} className="other" />
          <polyline points={points([from, keepers.corner, to])} className="me" />
          <circle
            cx={x(keepers.straight.acrossM)}
            cy={y(keepers.straight.outM)}
            r="8"
            fill="var(--mark)"
          />
          <circle
            cx={x(keepers.angleFirst.acrossM)}
            cy={y(keepers.angleFirst.outM)}
            r="8"
            fill="var(--ink)"
          />
          <text x={8} y={HEIGHT - 8}>
            dashed: straight to the spot; solid: on angle first, then out
          </text>
        </svg>
      </div>
      <div className="row-line mb-2 no-print">
        <Button variant="outline-dark" size="sm" onClick={() => setRacing(!racing)}>
          {racing ? 'Stop' : 'Race them'}
        </Button>
        <span className="figure">{shownS.toFixed(2)}</span>
        <span className="unit">s</span>
      </div>
      <div className="slider-grid">
        {ground?.goalM ? (
          <div>
            Goal of {ground.name}: <Length m={ground.goalM} style={style} />
          </div>
        ) : (
          <Slider
            label="Goal"
            value={now.goalM}
            min={1.5}
            max={7.5}
            step={0.1}
            written={<Length m={now.goalM} style={style} />}
            disabled={disabled}
            onValue={(goalM) => set({ goalM, ...fitting(goalM, now.spreadDeg) })}
          />
        )}
        <Slider
          label="Depth"
          value={now.depthM}
          min={0.5}
          max={6}
          step={0.1}
          written={<Length m={now.depthM} style={style} />}
          disabled={disabled}
          onValue={(depthM) => set({ depthM })}
        />
        <Slider
          label="Lanes"
          value={now.lanes}
          min={2}
          max={9}
          step={1}
          written={<span className="figure">{now.lanes}</span>}
          disabled={disabled}
          onValue={(lanesN) => set({ lanes: lanesN })}
        />
        <Slider
          label="Outermost lane"
          value={now.spreadDeg}
          min={20}
          max={85}
          step={5}
          written={<Figure parts={[{ figure: String(now.spreadDeg), unit: '°' }]} />}
          disabled={disabled}
          onValue={(spreadDeg) => set({ spreadDeg })}
        />
        <Slider
          label="From lane"
          value={now.fromLane}
          min={1}
          max={now.lanes}
          step={1}
          written={<span className="figure">{now.fromLane}</span>}
          disabled={disabled}
          onValue={(fromLane) => set({ fromLane })}
        />
        <Slider
          label="To lane"
          value={now.toLane}
          min={1}
          max={now.lanes}
          step={1}
          written={<span className="figure">{now.toLane}</span>}
          disabled={disabled}
          onValue={(toLane) => set({ toLane })}
        />
        <Slider
          label="Speed"
          value={now.speedMps}
          min={0.5}
          max={4}
          step={0.1}
          written={<Figure parts={[{ figure: now.speedMps.toFixed(1), unit: 'm/s' }]} />}
          disabled={disabled}
          onValue={(speedMps) => set({ speedMps })}
        />
      </div>
    </section>
  );
};
