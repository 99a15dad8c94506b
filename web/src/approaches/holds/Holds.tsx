import {
  aimMargin,
  blindSpread,
  BY_EYE,
  formatLength,
  heldBy,
  plansBeside,
  simulationsOf,
  stepScatter,
  type ComparedPlan,
  type CurrentModel,
  type LengthStyle,
  type RunUpSimulation,
  type RunUpSpread,
  type StraightInput,
  type StraightPlan,
} from '@gravek/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { memo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Labelled, Length, Figure } from '../../controls/Figure';
import { Loaded } from '../../controls/Notice';
import { NumberInput } from '../../controls/NumberInput';
import { useSettled } from '../../controls/useSettled';
import { SpreadChart } from '../../drawing/SpreadChart';
import { plannerWork } from '../worker/plannerWork';

const RUNS = 20_000;
const SEED = 20_000;
/** Another start mark to compare with, nearer and farther. */
const OTHER_START_M = 0.3;
/** A drag or a word typed is over before it is simulated. */
const SETTLE_MS = 250;
const USUAL_JUMP_M = 5.5;

const percent = (part: number): string =>
  part < 0.0005 ? 'under 0.1' : (part * 100).toFixed(part < 0.1 ? 1 : 0);

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
    seenSdM,
    target,
    style,
  }: {
    plan: StraightPlan;
    ask: StraightInput;
    /** step counts to compare */
    counts: { from: number; to: number };
    current: CurrentModel;
    /** spread at the line of the athlete's own run-throughs; null until there are enough */
    seenSdM: number | null;
    target: string;
    style: LengthStyle;
  }) => {
    const { scatter: own, measured } = stepScatter(current);
    const [typed, setTyped] = useState<number | null>(null);
    const [steer, setSteer] = useState(4);
    const [jumpM, setJumpM] = useState(USUAL_JUMP_M);
    const scatter = typed ?? own;
    const lengths = plan.steps.map((step) => step.lengthM);
    const isBoard = target === 'board' || target === 'line';
    const plans = plansBeside(plan, ask, counts, OTHER_START_M);
    const asked = simulationsOf(plans, { scatter, steerSteps: steer, runs: RUNS, seed: SEED });
    const settled = useSettled(JSON.stringify(asked), SETTLE_MS);
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
          <label className="row-line" style={{ gap: 6 }}>
            A step varies by
            <NumberInput
              width="4.2rem"
              value={scatter}
              scale={100}
              decimals={1}
              onNumber={(value) => setTyped(Math.max(0, Math.min(0.2, value)))}
              onMessage={() => undefined}
            />
            %
          </label>
          <span className="quiet">
            {typed !== null
              ? 'as you say'
              : measured
                ? 'from the measured runs'
                : 'a usual figure; measure a run for the athlete’s own'}
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
            const held = heldBy(plans, list);
            if (held.length !== plans.length) return <span className="quiet">Running …</span>;
            const { blind, eyed } = held[0]!;
            const closed = blindSpread(lengths, scatter, 0);
            // Compared with each other as they were simulated, to the spread that was seen.
            const seen = seenSdM === null ? 1 : seenSdM / Math.max(1e-4, eyed.sdM);
            const aimOf = (sdM: number) => aimMargin({ jumpM, sdM: Math.max(1e-4, seen * sdM) });
            const aim = aimOf(eyed.sdM);
            return (
              <>
                <div className="figures-row">
                  <Labelled label="Lands within, 9 in 10">
                    ± <Length m={1.645 * eyed.sdM} style={{ ...style, small: true }} big />
                  </Labelled>
                  <Labelled label="Run blind">
                    ± <Length m={1.645 * blind.sdM} style={{ ...style, small: true }} big />
                  </Labelled>
                  {isBoard && (
                    <>
                      <Labelled
                        label={
                          seenSdM === null ? 'Aim behind the line' : 'Aim, by the run-throughs'
                        }
                      >
                        <Length m={aim.marginM} style={{ ...style, small: true }} big />
                      </Labelled>
                      <Labelled label="Fouls then">
                        <Figure parts={[{ figure: percent(aim.foulProbability), unit: '%' }]} big />
                      </Labelled>
                    </>
                  )}
                  <Labelled label="Other foot nearer">
                    <Figure parts={[{ figure: percent(eyed.wrongFootChance), unit: '%' }]} big />
                  </Labelled>
                </div>
                <SpreadChart blind={blind} eyed={eyed} style={style} />
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
                        .map((one) => (
                          <tr key={`${one.lengthsM.length} ${one.movedM}`}>
                            <td>
                              <span className="figure">{one.lengthsM.length}</span>
                              <span className="quiet small-text"> {whatDiffers(one, style)}</span>
                            </td>
                            <td className="num">
                              <Length m={one.blind.sdM} style={{ ...style, small: true }} />
                            </td>
                            <td className="num">
                              <Length m={one.eyed.sdM} style={{ ...style, small: true }} />
                            </td>
                            {isBoard && (
                              <td className="num">
                                <span className="figure">
                                  {percent(aimOf(one.eyed.sdM).foulProbability)}
                                </span>
                                <span className="unit"> %</span>
                              </td>
                            )}
                            <td className="num">
                              <span className="figure">{percent(one.eyed.wrongFootChance)}</span>
                              <span className="unit"> %</span>
                            </td>
                          </tr>
                        ))}
                    </tbody>
                  </table>
                </div>
                <p className="quiet small-text mb-0 mt-2">
                  {RUNS.toLocaleString('en')} run-ups, always the same ones. Each step is off by
                  itself, independently of the others; by eye a runner makes up {BY_EYE.gain * 100}{' '}
                  % of what is off, no step by more than {BY_EYE.limit * 100} %. Wind, tiredness,
                  nerves and a start that is not on the mark are not in it. Without eyes the sum of
                  the steps says ±{' '}
                  <Length m={1.645 * closed.sdM} style={{ ...style, small: true }} />.
                </p>
              </>
            );
          }}
        </Loaded>
      </section>
    );
  },
);
