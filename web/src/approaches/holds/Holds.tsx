import { aimMargin } from '@gravek/core/runup/aimMargin';
import type { CurrentModel } from '@gravek/core/runup/currentModel';
import {
  athleteSpread,
  BY_EYE,
  type ComparedPlan,
  heldBy,
  plansBeside,
  simulationsOf,
} from '@gravek/core/runup/holding';
import type { SpreadParts } from '@gravek/core/runup/landingSpread';
import type { RunUpSimulation, RunUpSpread } from '@gravek/core/runup/simulateRunUps';
import type { StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { memo, useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Figure, Labelled, Length } from '../../controls/Figure';
import { Loaded } from '../../controls/Notice';
import { NumberInput } from '../../controls/NumberInput';
import { useSettled } from '../../controls/useSettled';
import { SpreadChart } from '../../drawing/SpreadChart';
import { plannerWork } from '../../parts/planning/plannerWork';

const RUNS = 20_000;
const SEED = 20_000;
/** Another start mark to compare with, nearer and farther. */
const OTHER_START_M = 0.3;
/** A drag or a word typed is over before it is simulated. */
const SETTLE_MS = 250;
const USUAL_JUMP_M = 5.5;

const percent = (part: number): string =>
  part < 0.0005 ? 'under 0.1' : (part * 100).toFixed(part < 0.1 ? 1 : 0);

const VARIES = [
  ['stepFraction', 'A step varies by'],
  ['runFraction', 'a whole run by'],
] as const;

/** What sets a plan apart from the one that is looked at. */
const whatDiffers = ({ movedM }: ComparedPlan, style: LengthStyle): string =>
  movedM === null
    ? ''
    : movedM === 0
      ? 'this plan'
      : `start ${formatLength(Math.abs(movedM), { ...style, small: true })} ${movedM > 0 ? 'back' : 'in'}`;

/** How well a plan will hold: many run-ups with the athlete's own scatter, blind and steered by eye. */
export const Holds = memo(
  ({
    plan,
    ask,
    counts,
    current,
    logged,
    target,
    style,
  }: {
    plan: StraightPlan;
    ask: StraightInput;
    /** step counts to compare */
    counts: { from: number; to: number };
    current: CurrentModel;
    /** how the athlete's newest run-throughs landed; null under two of them */
    logged: { n: number; sdM: number } | null;
    target: string;
    style: LengthStyle;
  }) => {
    const spread = useMemo(() => athleteSpread(current), [current]);
    const [typed, setTyped] = useState<Partial<SpreadParts>>({});
    const [steer, setSteer] = useState(4);
    const [jumpM, setJumpM] = useState(USUAL_JUMP_M);
    const { stepFraction, runFraction } = { ...spread, ...typed };
    const by = { stepFraction, runFraction };
    const small = { ...style, small: true };
    const isBoard = target === 'board' || target === 'line';
    const plans = plansBeside(plan, ask, counts, OTHER_START_M);
    const jobs = simulationsOf(plans, { ...by, steerSteps: steer, runs: RUNS, seed: SEED });
    const settled = useSettled(JSON.stringify(jobs), SETTLE_MS);
    const spreads = useQuery<RunUpSpread[]>({
      queryKey: ['simulate', settled],
      queryFn: () => plannerWork().simulate(JSON.parse(settled) as RunUpSimulation[]),
      staleTime: Infinity,
      gcTime: 60_000,
      placeholderData: keepPreviousData,
    });
    return (
      <section className="panel" aria-label="How well will it hold">
        <h2>How well will it hold?</h2>
        <div className="row-line mb-2 small-text">
          {VARIES.map(([part, label]) => (
            <label key={part} className="row-line" style={{ gap: 6 }}>
              {label}
              <NumberInput
                width="4.2rem"
                value={by[part]}
                scale={100}
                decimals={1}
                onNumber={(value) =>
                  setTyped({ ...typed, [part]: Math.max(0, Math.min(0.2, value)) })
                }
                onMessage={() => undefined}
              />
              %
            </label>
          ))}
          <span className="quiet">
            {Object.keys(typed).length > 0
              ? 'as you say'
              : spread.runs > 0
                ? `from ${spread.runs} measured runs`
                : 'usual figures; two measured runs give the athlete’s own'}
          </span>
          <label className="row-line" style={{ gap: 6 }}>
            steers by eye over
            <Form.Select
              size="sm"
              style={{ width: 'auto' }}
              value={steer}
              onChange={(event) => setSteer(Number(event.target.value))}
            >
              <option value={0}>no step</option>
              {[2, 3, 4, 5, 6].map((count) => (
                <option key={count} value={count}>
                  the last {count} steps
                </option>
              ))}
            </Form.Select>
          </label>
          {isBoard && (
            <label className="row-line" style={{ gap: 6 }}>
              jumps about
              <NumberInput
                width="4.2rem"
                value={jumpM}
                decimals={2}
                onNumber={(value) => setJumpM(Math.max(0.5, Math.min(20, value)))}
                onMessage={() => undefined}
              />
              m
            </label>
          )}
        </div>
        <Loaded query={spreads} what={`Running ${RUNS.toLocaleString('en')} run-ups …`}>
          {(list) => {
            const all = heldBy(plans, list, by, logged);
            if (!all) return <span className="quiet">Running …</span>;
            const { held, blindSdM, expectedSdM, shownSdM } = all;
            const { blind, shown } = held[0]!;
            const aimOf = (sdM: number) => aimMargin({ jumpM, sdM: Math.max(1e-4, sdM) });
            const aim = aimOf(shownSdM);
            return (
              <>
                <div className="figures-row">
                  <Labelled label="Lands within, 9 in 10">
                    ± <Length m={1.645 * shownSdM} style={small} big />
                  </Labelled>
                  <Labelled label="Run blind">
                    ± <Length m={1.645 * blind.sdM} style={small} big />
                  </Labelled>
                  {isBoard && (
                    <>
                      <Labelled label="Aim behind the line">
                        <Length m={aim.marginM} style={small} big />
                      </Labelled>
                      <Labelled label="Fouls then">
                        <Figure parts={[{ figure: percent(aim.foulProbability), unit: '%' }]} big />
                      </Labelled>
                    </>
                  )}
                  <Labelled label="Other foot nearer">
                    <Figure parts={[{ figure: percent(shown.wrongFootChance), unit: '%' }]} big />
                  </Labelled>
                </div>
                <p className="small-text mb-2" data-testid="where-from">
                  {logged ? (
                    <>
                      Steered by eye the steps say a spread of{' '}
                      <Length m={expectedSdM} style={small} />, the newest {logged.n} run-throughs{' '}
                      <Length m={logged.sdM} style={small} />: reckoned with{' '}
                      <strong>
                        <Length m={shownSdM} style={small} />
                      </strong>
                      .
                    </>
                  ) : (
                    <span className="quiet">
                      All of it from how the steps scatter; logged run-throughs will pull it to what
                      was seen at the {target}.
                    </span>
                  )}
                </p>
                <SpreadChart blind={blind} shown={shown} style={style} />
                <div className="table-scroll" tabIndex={0} role="group" aria-label="Plans compared">
                  <table className="grid-table">
                    <caption className="visually-hidden">
                      Plans compared on how well they hold
                    </caption>
                    <thead>
                      <tr>
                        <th>Steps</th>
                        <th className="num">Spread blind</th>
                        <th className="num">Steered</th>
                        {isBoard && <th className="num">Fouls at best aim</th>}
                        <th className="num">Other foot nearer</th>
                      </tr>
                    </thead>
                    <tbody>
                      {[...held]
                        .sort((a, b) => a.lengthsM.length - b.lengthsM.length)
                        .map((option) => (
                          <tr key={`${option.lengthsM.length} ${option.movedM}`}>
                            <td>
                              <span className="figure">{option.lengthsM.length}</span>
                              <span className="quiet small-text">
                                {' '}
                                {whatDiffers(option, style)}
                              </span>
                            </td>
                            <td className="num">
                              <Length m={option.blind.sdM} style={small} />
                            </td>
                            <td className="num">
                              <Length m={option.shown.sdM} style={small} />
                            </td>
                            {isBoard && (
                              <td className="num">
                                <span className="figure">
                                  {percent(aimOf(option.shown.sdM).foulProbability)}
                                </span>
                                <span className="unit"> %</span>
                              </td>
                            )}
                            <td className="num">
                              <span className="figure">
                                {percent(option.shown.wrongFootChance)}
                              </span>
                              <span className="unit"> %</span>
                            </td>
                          </tr>
                        ))}
                    </tbody>
                  </table>
                </div>
                <p className="quiet small-text mb-0 mt-2">
                  {RUNS.toLocaleString('en')} run-ups, always the same ones. A whole run is a little
                  long or short, and each step besides; by eye a runner makes up {BY_EYE.gain * 100}{' '}
                  % of what is off, no step by more than {BY_EYE.limit * 100} %. Wind, tiredness and
                  nerves are not in it. Without eyes the sum of the steps says ±{' '}
                  <Length m={1.645 * blindSdM} style={small} />.
                </p>
              </>
            );
          }}
        </Loaded>
      </section>
    );
  },
);
