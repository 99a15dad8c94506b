import { cushion, cushionTracks, type CushionInput } from '@gravek/core/cushion';
import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { cushionInput, HORIZON_S, runnerTimes } from '@gravek/library/givingGround';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Figure, Labelled, Length, Speed } from '../../controls/Figure';
import { Slider } from '../../controls/Slider';
import { useWidth } from '../../drawing/useWidth';

type Chosen = NonNullable<SequenceChoices['cushion']>;

const HEIGHT = 210;
const PAD = { left: 40, right: 14, top: 16, bottom: 26 };

const Drawn = ({
  input,
  openS,
  style,
}: {
  input: CushionInput;
  openS: number;
  style: LengthStyle;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(600);
  const tracks = cushionTracks(input, openS);
  const farthest = Math.max(...tracks.map((at) => Math.max(at.defenderM, at.runnerM)));
  const x = scaleLinear([0, input.horizonS], [PAD.left, width - PAD.right]);
  const y = scaleLinear([-input.depthM, Math.max(farthest, 1)], [HEIGHT - PAD.bottom, PAD.top]);
  type At = (typeof tracks)[number];
  const path = (pick: (at: At) => number): string =>
    line<At>(
      (at) => x(at.timeS),
      (at) => y(pick(at)),
    )(tracks) ?? '';
  const between =
    area<At>()
      .x((at) => x(at.timeS))
      .y0((at) => y(at.runnerM))
      .y1((at) => y(at.defenderM))(tracks) ?? '';
  const { reactionS, cadenceSpm } = input.defender;
  const count = Math.max(0, Math.floor(((openS - reactionS) * cadenceSpm) / 60));
  const steps = Array.from({ length: count }, (_, i) => reactionS + ((i + 1) * 60) / cadenceSpm);
  return (
    <div ref={ref}>
      <svg
        className="chart race"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label="Runner and defender over time; between them the gap"
      >
        <path d={between} className="between" />
        <path d={path((at) => at.runnerM)} className="other" />
        <path d={path((at) => at.defenderM)} className="me" />
        {steps.map((at) => (
          <line
            key={at}
            x1={x(at)}
            x2={x(at)}
            y1={HEIGHT - PAD.bottom}
            y2={HEIGHT - PAD.bottom - 8}
            stroke="var(--ink)"
            strokeWidth="2.4"
          />
        ))}
        {openS <= input.horizonS && (
          <g>
            <line
              x1={x(openS)}
              x2={x(openS)}
              y1={PAD.top}
              y2={HEIGHT - PAD.bottom}
              className="moment"
            />
            <text x={x(openS) + 5} y={PAD.top + 8} className="strong">
              turn by here
            </text>
          </g>
        )}
        <line
          x1={PAD.left}
          x2={width - PAD.right}
          y1={HEIGHT - PAD.bottom}
          y2={HEIGHT - PAD.bottom}
          stroke="var(--ink-quiet)"
        />
        {x.ticks(6).map((second) => (
          <text key={second} x={x(second)} y={HEIGHT - 8} textAnchor="middle">
            {second} s
          </text>
        ))}
        {y.ticks(4).map((metre) => (
          <text key={metre} x={PAD.left - 6} y={y(metre) + 4} textAnchor="end">
            {style.unit === 'metric' ? metre : (metre / 0.3048).toFixed(0)}
          </text>
        ))}
        <text
          x={width - PAD.right}
          y={y(tracks.at(-1)!.defenderM) - 6}
          textAnchor="end"
          className="strong"
        >
          defender
        </text>
        <text x={width - PAD.right} y={y(tracks.at(-1)!.runnerM) + 16} textAnchor="end">
          runner
        </text>
      </svg>
    </div>
  );
};

/** Giving ground to a runner: how deep is enough, and when to turn and run. */
export const CushionPanel = ({
  chosen: now,
  athletes,
  body,
  style,
  disabled,
  onChoose,
}: {
  /** what the coach chose, or what is usual for this body */
  chosen: Chosen;
  /** who may be the runner */
  athletes: readonly Athlete[];
  body: Body;
  style: LengthStyle;
  disabled: boolean;
  onChoose: (chosen: Chosen) => void;
}) => {
  const set = (change: Partial<Chosen>): void => onChoose({ ...now, ...change });
  const runners = athletes.filter((one) => !one.archived || one.id === now.runnerId);
  const runner = runners.find((one) => one.id === now.runnerId);
  const own = runner && runnerTimes(runner);
  const stale = own && (own.runnerTopMps !== now.runnerTopMps || own.runnerTauS !== now.runnerTauS);
  const race = (id: string): void => {
    const next = runners.find((one) => one.id === id);
    set(next ? { runnerId: id, ...runnerTimes(next) } : { runnerId: null });
  };
  const input = cushionInput(now, body);
  const plan = cushion(input);
  const speed = (value: number): React.ReactNode => <Speed mps={value} unit={style.unit} />;
  const slider = (
    key: keyof Chosen,
    label: string,
    [min, max, step]: [number, number, number],
    written: React.ReactNode,
  ) => (
    <Slider
      label={label}
      value={now[key] as number}
      min={min}
      max={max}
      step={step}
      written={written}
      disabled={disabled}
      onValue={(value) => set({ [key]: value })}
    />
  );
  return (
    <section className="panel no-print" aria-label="The cushion">
      <h2>How deep, and when to turn</h2>
      <div className="figures-row mb-1">
        <Labelled label="Turn and run by">
          {plan.openByS === null ? (
            <span className="figure figure-big">too late</span>
          ) : (
            <Figure parts={[{ figure: plan.openByS.toFixed(2), unit: 's' }]} big />
          )}
        </Labelled>
        <Labelled label="Short steps before">
          <span className="figure figure-big">{plan.stepsBeforeOpen ?? '–'}</span>
        </Labelled>
        <Labelled label={`Deep enough for ${HORIZON_S} s`}>
          <Length m={Math.max(0, plan.minDepthM)} style={style} big />
        </Labelled>
        <Labelled label="Never turning, even after">
          {plan.evenAtS === null ? (
            <span className="figure figure-big">never</span>
          ) : (
            <Figure parts={[{ figure: plan.evenAtS.toFixed(2), unit: 's' }]} big />
          )}
        </Labelled>
      </div>
      {plan.openByS === null && (
        <div className="note note-wrong mb-2" role="status">
          From <Length m={now.depthM} style={style} /> no turn keeps{' '}
          <Length m={now.keepM} style={style} /> between them: line up at least{' '}
          <Length m={plan.minDepthM} style={style} /> deep.
        </div>
      )}
      <Drawn
        input={input}
        // Too late for any turn: what the soonest one comes to.
        openS={plan.openByS ?? input.defender.reactionS}
        style={style}
      />
      <div className="row-line mt-2 no-print">
        <label className="choice">
          <span className="form-label">The runner</span>
          <Form.Select
            value={now.runnerId ?? ''}
            disabled={disabled}
            onChange={(event) => race(event.target.value)}
          >
            <option value="">nobody in particular</option>
            {runners.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Form.Select>
        </label>
        {runner && (
          <span className="quiet small-text">
            {bodyOf(runner).sprint ? 'by own sprint times' : 'by own steps; no sprint was timed'}
            {stale && ', changed since or set otherwise '}
            {stale && (
              <Button
                size="sm"
                variant="outline-dark"
                disabled={disabled}
                onClick={() => race(runner.id)}
              >
                Take them anew
              </Button>
            )}
          </span>
        )}
      </div>
      <div className="slider-grid mt-2">
        {slider('depthM', 'Lines up at', [0.5, 10, 0.1], <Length m={now.depthM} style={style} />)}
        {slider('runnerTopMps', 'Runner’s top speed', [4, 10.5, 0.1], speed(now.runnerTopMps))}
        {slider(
          'runnerTauS',
          'Runner builds up over',
          [0.5, 2, 0.05],
          <Figure parts={[{ figure: now.runnerTauS.toFixed(2), unit: 's' }]} />,
        )}
        {slider('keepM', 'Keeps between them', [0, 2, 0.1], <Length m={now.keepM} style={style} />)}
        {slider(
          'stepM',
          'Step back',
          [0.05, 0.6, 0.01],
          <Length m={now.stepM} style={{ ...style, small: true }} />,
        )}
        {slider(
          'cadenceSpm',
          'Cadence back',
          [150, 600, 10],
          <Figure parts={[{ figure: String(now.cadenceSpm), unit: '/min' }]} />,
        )}
        {slider(
          'turnS',
          'The turn takes',
          [0.1, 0.8, 0.05],
          <Figure parts={[{ figure: now.turnS.toFixed(2), unit: 's' }]} />,
        )}
      </div>
      <p className="quiet small-text mb-0 mt-2">
        Defender:{' '}
        {body.sprint
          ? 'own sprint times'
          : runner
            ? 'no sprint times yet, so by own steps'
            : 'no sprint times yet, so as fast as the runner'}
        , {body.reactionS === undefined ? 'a usual reaction' : 'own reaction'}. The runner must go
        round: 0.9 m aside at 35°.
      </p>
    </section>
  );
};
