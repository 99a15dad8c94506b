import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import {
  type FrontChoice,
  frontOf,
  HORIZON_S,
  runnerTimes,
  type Turn,
  TURNS,
  whatHelps,
} from '@gravek/library/planning/givingGround';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Figure, Length, Speed } from '../../controls/Figure';
import { Slider } from '../../controls/Slider';
import type { Player } from '../../hearing/player';
import { Gaps, partWords, TURN_NAMES } from './GapChart';

/** Giving ground to a runner: how long one stays in front, whom one holds, and what would help most. */
export const InFrontPanel = ({
  chosen: now,
  taught,
  athletes,
  body,
  player,
  style,
  disabled,
  onChoose,
  onTurn,
}: {
  /** what the coach chose, or what is usual for this body */
  chosen: FrontChoice;
  /** how the way of teaching turns */
  taught: Turn;
  /** who may be the runner */
  athletes: readonly Athlete[];
  body: Body;
  player: Player;
  style: LengthStyle;
  disabled: boolean;
  onChoose: (chosen: FrontChoice) => void;
  /** absent where the movement has but one way of turning */
  onTurn: ((turn: Turn) => void) | undefined;
}) => {
  const set = (change: Partial<FrontChoice>): void => onChoose({ ...now, ...change });
  const runners = athletes.filter((athlete) => !athlete.archived || athlete.id === now.runnerId);
  const runner = runners.find((runner) => runner.id === now.runnerId);
  const timed = runner && runnerTimes(runner);
  const isStale =
    timed && (timed.runnerTopMps !== now.runnerTopMps || timed.runnerTauS !== now.runnerTauS);
  const race = (id: string): void => {
    const next = runners.find((runner) => runner.id === id);
    set(next ? { runnerId: id, ...runnerTimes(next) } : { runnerId: null });
  };
  const fronts = {
    slide: frontOf(now, body, 'slide'),
    open: frontOf(now, body, 'open'),
  };
  const front = fronts[taught];
  const turns = onTurn ? TURNS : [taught];
  const helps = whatHelps(now, body, taught).filter(({ change }) => onTurn || !('turn' in change));
  const metres = (m: number): React.ReactNode => <Length m={m} style={style} />;
  const cell = (turn: Turn, written: React.ReactNode): React.ReactNode => (
    <td key={turn} className={turn === taught ? 'strong' : undefined}>
      {written}
    </td>
  );
  const slider = (
    key: keyof FrontChoice,
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
  const small = (m: number): React.ReactNode => <Length m={m} style={{ ...style, small: true }} />;
  const seconds = (s: number): React.ReactNode => (
    <Figure parts={[{ figure: s.toFixed(2), unit: 's' }]} />
  );
  const [turnKey, backKey] =
    taught === 'slide' ? (['slideS', 'slideBackM'] as const) : (['openS', 'openBackM'] as const);
  return (
    <section className="panel no-print" aria-label="In front of the runner">
      <h2>How long in front?</h2>
      <div className="race-columns">
        <Gaps
          chosen={now}
          body={body}
          taught={taught}
          front={front}
          style={style}
          player={player}
        />
        <div>
          <table className="table-plain race-table">
            <thead>
              <tr>
                <th scope="col">
                  <span className="visually-hidden">Question</span>
                </th>
                {turns.map((turn) => (
                  <th key={turn} scope="col">
                    {TURN_NAMES[turn]}
                    {turn === taught && turns.length > 1 && <span className="quiet"> (drawn)</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">In front of full speed</th>
                {turns.map((turn) =>
                  cell(
                    turn,
                    <Figure
                      big
                      parts={[
                        {
                          figure:
                            fronts[turn].frontS >= HORIZON_S
                              ? `${HORIZON_S}+`
                              : fronts[turn].frontS.toFixed(1),
                          unit: 's',
                        },
                      ]}
                    />,
                  ),
                )}
              </tr>
              {([0, 1, 2] as const).map((i) => (
                <tr key={i}>
                  <th scope="row">Gap after {i + 1} s</th>
                  {turns.map((turn) => cell(turn, metres(fronts[turn].gapM[i])))}
                </tr>
              ))}
              {([0, 1, 2] as const).map((i) => (
                <tr key={`holds ${i}`}>
                  <th scope="row">Holds for {i + 1} s</th>
                  {turns.map((turn) =>
                    cell(turn, <span className="figure">{partWords(fronts[turn].holds[i])}</span>),
                  )}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet small-text mb-2">
            “Holds”: the fastest runner, as a part of full speed, who never gets nearer than{' '}
            {metres(now.keepM)}. What hands do is not counted.
          </p>
          <h3 className="mb-1">Helps most</h3>
          {helps.length === 0 ? (
            <p className="quiet small-text mb-0">
              {front.holds[1] === 1
                ? 'Nothing is needed: full speed is held for 2 s.'
                : 'None of the usual changes holds a faster runner for 2 s.'}
            </p>
          ) : (
            <ol className="list-plain helps" aria-label="What helps most">
              {helps.slice(0, 4).map(({ what, change, holds }) => (
                <li key={what} className="row-line">
                  <span>{what}</span>
                  <span className="figure">{partWords(holds)}</span>
                  <Button
                    size="sm"
                    variant="outline-dark"
                    className="ms-auto"
                    disabled={disabled}
                    aria-label={`Take over: ${what}`}
                    onClick={() => ('turn' in change ? onTurn?.(change.turn) : set(change))}
                  >
                    Take it
                  </Button>
                </li>
              ))}
            </ol>
          )}
        </div>
      </div>
      <div className="row-line mt-2">
        <label className="choice">
          <span className="form-label">The runner</span>
          <Form.Select
            value={now.runnerId ?? ''}
            disabled={disabled}
            onChange={(event) => race(event.target.value)}
          >
            <option value="">nobody in particular</option>
            {runners.map((runner) => (
              <option key={runner.id} value={runner.id}>
                {runner.name}
              </option>
            ))}
          </Form.Select>
        </label>
        {runner && (
          <span className="quiet small-text">
            {bodyOf(runner).sprint
              ? 'from sprint times'
              : 'from measured steps; no sprint was timed'}
            {isStale && ', which have changed since '}
            {isStale && (
              <Button
                size="sm"
                variant="outline-dark"
                disabled={disabled}
                onClick={() => race(runner.id)}
              >
                Take the new ones
              </Button>
            )}
          </span>
        )}
      </div>
      <div className="slider-grid mt-2">
        {slider('depthM', 'Head to head at', [0.5, 6, 0.1], metres(now.depthM))}
        {slider(
          'steps',
          'Short steps back',
          [0, 8, 1],
          <span className="figure">{now.steps}</span>,
        )}
        {slider('stepM', 'Step back', [0.05, 0.6, 0.01], small(now.stepM))}
        {slider(
          'cadenceSpm',
          'Cadence back',
          [150, 600, 10],
          <Figure parts={[{ figure: String(now.cadenceSpm), unit: '/min' }]} />,
        )}
        {slider(turnKey, 'The turn takes', [0.1, 0.9, 0.05], seconds(now[turnKey]))}
        {slider(backKey, 'The turn gains', [0, 1, 0.05], small(now[backKey]))}
        {slider(
          'runnerTopMps',
          'Runner’s top speed',
          [3, 10.5, 0.1],
          <Speed mps={now.runnerTopMps} unit={style.unit} />,
        )}
        {slider('runnerTauS', 'Runner builds up over', [0.5, 2, 0.05], seconds(now.runnerTauS))}
        {slider('keepM', 'Beaten at less than', [0, 2, 0.1], metres(now.keepM))}
      </div>
      <p className="quiet small-text mb-0 mt-2">
        Defender:{' '}
        {body.sprint
          ? 'own sprint times'
          : runner
            ? 'no sprint times yet, so from measured steps'
            : 'no sprint times yet, so as fast as the runner'}
        , {body.reactionS === undefined ? 'a usual reaction' : 'own reaction'}.
      </p>
    </section>
  );
};
