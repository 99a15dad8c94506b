import type { Body } from '@gravek/core/layout/body';
import type { CurrentFigures } from '@gravek/core/measuring/measures';
import { playBeats, soundOf, steadyBeats, wavFile } from '@gravek/core/runup/rhythm';
import type { LengthStyle } from '@gravek/core/units';
import type { SequenceChoices } from '@gravek/contract/approach';
import { cadenceWeeks, easyBeat } from '@gravek/library/planning/steadyCadence';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { download, fileName } from '../../controls/download';
import { Figure, Labelled, Length } from '../../controls/Figure';
import { Slider } from '../../controls/Slider';
import { useWidth } from '../../drawing/useWidth';
import { midiFile } from '../../hearing/midi';
import { dayName } from '../../controls/dates';
import { counted } from '@gravek/core/words';

type Chosen = NonNullable<SequenceChoices['cadence']>;

/** More than this at once changes the runner's whole economy. */
const MOST_PCT = 10;
const HEIGHT = 150;
const PAD = { left: 12, right: 12, top: 34, bottom: 40 };
const SAMPLE_RATE = 16_000;

/** A cadence raised over some weeks: the ramp, the step length that goes with it, and its beat. */
export const CadencePanel = ({
  chosen: chosenCadence,
  body,
  figures,
  style,
  disabled,
  onChoose,
}: {
  /** what the coach chose, or what is usual for this body */
  chosen: Chosen;
  body: Body;
  figures: CurrentFigures;
  style: LengthStyle;
  disabled: boolean;
  onChoose: (chosen: Chosen) => void;
}) => {
  const athleteCadence = figures.cadence && Math.round(figures.cadence.mean);
  const { weeks, baselineSpm, target } = cadenceWeeks(chosenCadence, body);
  const now = { ...chosenCadence, baselineSpm };
  const set = (change: Partial<Chosen>): void => {
    const next = { ...chosenCadence, ...change };
    onChoose({ ...next, week: Math.min(next.week ?? 1, next.weeks) });
  };
  const last = weeks.at(-1)!;
  const { week } = target;
  const [minutes, setMinutes] = useState(10);
  const [ref, width] = useWidth<HTMLDivElement>(600);
  const x = scaleLinear([0, now.weeks], [PAD.left + 22, width - PAD.right - 22]);
  const [low, high] = [weeks[0]!.cadenceSpm, last.cadenceSpm].sort((a, b) => a - b);
  const y = scaleLinear([low! - 1, high! + 1], [HEIGHT - PAD.bottom, PAD.top]);
  const every = Math.max(1, Math.ceil(weeks.length / (width / 70)));
  const pace = 1000 / now.speedMps;
  const easySpm = figures['easy-cadence'] ? easyBeat(now, figures['easy-cadence'].mean) : null;
  const [isEasy, setEasy] = useState(false);
  const beatSpm = isEasy && easySpm !== null ? easySpm : target.cadenceSpm;
  const beats = () => playBeats(steadyBeats(beatSpm, minutes * 60)).beats;
  const title = `Cadence ${beatSpm}, ${minutes} min`;
  return (
    <section className="panel no-print" aria-label="Cadence over the weeks">
      <h2>Cadence over the weeks</h2>
      <div className="figures-row mb-1">
        <Labelled label="From">
          <Figure parts={[{ figure: String(now.baselineSpm), unit: 'steps/min' }]} big />
        </Labelled>
        <Labelled label={`After ${counted(now.weeks, 'week')}`}>
          <Figure parts={[{ figure: String(last.cadenceSpm), unit: 'steps/min' }]} big />
        </Labelled>
        <Labelled label="Step then">
          <Length m={last.stepM} style={style} big />
        </Labelled>
        <Labelled label="instead of">
          <Length m={weeks[0]!.stepM} style={style} big />
        </Labelled>
      </div>
      {Math.abs(now.increasePct) > MOST_PCT && (
        <div className="note note-wrong mb-2" role="status">
          {now.increasePct} % is more than runners take on in one go; keep it within {MOST_PCT} %,
          then measure again.
        </div>
      )}
      {athleteCadence !== undefined && figures.cadence && (
        <div className="note small-text mb-2" role="status">
          Counted last, {dayName(figures.cadence.takenOn)}:{' '}
          <span className="figure">{athleteCadence}</span>.{' '}
          {week === 0 ? 'The baseline' : `Week ${week}`} asks for{' '}
          <span className="figure">{target.cadenceSpm}</span>
          {athleteCadence === target.cadenceSpm
            ? ': right on it.'
            : `: ${Math.abs(target.cadenceSpm - athleteCadence)} ${athleteCadence < target.cadenceSpm ? 'to go' : 'over it; hold it there'}.`}
        </div>
      )}
      <div className="note small-text mb-2">
        {easySpm !== null && figures['easy-cadence'] ? (
          <>
            Easy days, counted {dayName(figures['easy-cadence'].takenOn)}:{' '}
            <span className="figure">{Math.round(figures['easy-cadence'].mean)}</span>.{' '}
            {week === 0 ? 'Now' : `In week ${week}`} they are run at{' '}
            <span className="figure">{easySpm}</span>.
          </>
        ) : (
          'Nobody has counted on an easy day yet; the rate sags then, and the beat should be its own.'
        )}
      </div>
      {chosenCadence.baselineSpm === null && athleteCadence === undefined && (
        <div className="note small-text mb-2">
          <span className="tag tag-estimate">estimate</span> The baseline is a usual one; count the
          athlete’s own first.
        </div>
      )}
      {chosenCadence.baselineSpm !== null && chosenCadence.baselineSpm !== athleteCadence && (
        <div className="note small-text mb-2">
          The baseline of {chosenCadence.baselineSpm} is set by hand
          {athleteCadence === undefined
            ? '; nobody has counted the athlete’s own.'
            : `; ${athleteCadence} was counted.`}{' '}
          <Button
            size="sm"
            variant="outline-dark"
            disabled={disabled}
            onClick={() => set({ baselineSpm: null })}
          >
            {athleteCadence === undefined ? 'Take the usual one' : 'Take what was counted'}
          </Button>
        </div>
      )}
      <div ref={ref}>
        <svg
          className="chart"
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Cadence by week: ${weeks.map((week) => week.cadenceSpm).join(', ')}`}
        >
          {weeks.map((week) => (
            <g key={week.week}>
              <line
                x1={x(week.week)}
                x2={x(week.week)}
                y1={HEIGHT - PAD.bottom}
                y2={y(week.cadenceSpm)}
                stroke={week.week === target.week ? 'var(--clay)' : 'var(--mark)'}
                strokeWidth="5"
              />
              {week.week % every === 0 && (
                <>
                  <text
                    className="strong"
                    x={x(week.week)}
                    y={y(week.cadenceSpm) - 6}
                    textAnchor="middle"
                  >
                    {week.cadenceSpm}
                  </text>
                  <text x={x(week.week)} y={HEIGHT - PAD.bottom + 15} textAnchor="middle">
                    {week.week === 0 ? 'now' : `week ${week.week}`}
                  </text>
                  <text x={x(week.week)} y={HEIGHT - PAD.bottom + 31} textAnchor="middle">
                    {(style.unit === 'metric' ? week.stepM : week.stepM / 0.3048).toFixed(2)}{' '}
                    {style.unit === 'metric' ? 'm' : 'ft'}
                  </text>
                </>
              )}
            </g>
          ))}
        </svg>
      </div>
      <div className="slider-grid">
        <Slider
          label="Baseline"
          value={now.baselineSpm}
          min={120}
          max={220}
          step={1}
          written={<Figure parts={[{ figure: String(now.baselineSpm), unit: '/min' }]} />}
          disabled={disabled}
          onValue={(baselineSpm) => set({ baselineSpm })}
        />
        <Slider
          label="Raised by"
          value={now.increasePct}
          min={0}
          max={15}
          step={0.5}
          written={<Figure parts={[{ figure: String(now.increasePct), unit: '%' }]} />}
          disabled={disabled}
          onValue={(increasePct) => set({ increasePct })}
        />
        <Slider
          label="Weeks"
          value={now.weeks}
          min={1}
          max={16}
          step={1}
          written={<span className="figure">{now.weeks}</span>}
          disabled={disabled}
          onValue={(count) => set({ weeks: count })}
        />
        <Slider
          label="Pace"
          value={now.speedMps}
          min={1.5}
          max={6}
          step={0.05}
          written={
            <Figure
              parts={[
                {
                  figure: `${Math.floor(pace / 60)}:${String(Math.round(pace % 60)).padStart(2, '0')}`,
                  unit: 'min/km',
                },
              ]}
            />
          }
          disabled={disabled}
          onValue={(speedMps) => set({ speedMps })}
        />
      </div>
      <div className="row-line mt-2 no-print">
        The drawing, and a steady beat, of
        <Form.Select
          aria-label="Week that is drawn and sounded"
          style={{ width: 'auto' }}
          value={target.week}
          disabled={disabled}
          onChange={(event) => set({ week: Number(event.target.value) })}
        >
          {weeks.map((week) => (
            <option key={week.week} value={week.week}>
              {week.week === 0 ? 'now' : `week ${week.week}`}: {week.cadenceSpm}
            </option>
          ))}
        </Form.Select>
        {easySpm !== null && (
          <Form.Check
            type="switch"
            id="easy-day"
            label={`beat of an easy day: ${easySpm}`}
            checked={isEasy}
            onChange={() => setEasy(!isEasy)}
          />
        )}
        over
        <Form.Select
          aria-label="Minutes of the beat"
          style={{ width: 'auto' }}
          value={minutes}
          onChange={(event) => setMinutes(Number(event.target.value))}
        >
          {[1, 5, 10, 20, 30].map((count) => (
            <option key={count} value={count}>
              {count} min
            </option>
          ))}
        </Form.Select>
        <Button
          variant="outline-dark"
          onClick={() =>
            download(
              fileName(title, 'wav'),
              wavFile(soundOf(beats(), SAMPLE_RATE), SAMPLE_RATE) as Uint8Array<ArrayBuffer>,
              'audio/wav',
            )
          }
        >
          Save as sound
        </Button>
        <Button
          variant="outline-dark"
          onClick={() =>
            download(
              fileName(title, 'mid'),
              midiFile(beats(), title) as Uint8Array<ArrayBuffer>,
              'audio/midi',
            )
          }
        >
          Save as notes
        </Button>
      </div>
    </section>
  );
};
