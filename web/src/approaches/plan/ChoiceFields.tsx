import type { Absorb, Ending } from '@gravek/core/runup/straightPlan';
import type { LengthStyle } from '@gravek/core/units';
import type { StraightChoices } from '@gravek/contract/approach';
import { TARGETS } from '@gravek/contract/targets';
import { useId } from 'react';
import Form from 'react-bootstrap/Form';
import { LengthInput } from '../../controls/LengthInput';
import { NumberInput } from '../../controls/NumberInput';
import { MarksInput } from './MarksInput';

type Props = {
  choices: StraightChoices;
  style: LengthStyle;
  /** where a fixed start mark would lie now */
  naturalM: number | null;
  messages: Record<string, string | null | undefined>;
  onChoices: (change: Partial<StraightChoices>) => void;
  onMessage: (field: string, message: string | null) => void;
  disabled: boolean;
};

const ENDINGS: Record<Ending['kind'], Ending> = {
  even: { kind: 'even' },
  penultimate: { kind: 'penultimate', longer: 0.06, shorter: 0.05 },
  short: { kind: 'short', count: 3, taperSteps: 2, lengthM: 0.1, cadenceSpm: 360 },
};

const absorbValue = (absorb: Absorb): string => (typeof absorb === 'object' ? 'step' : absorb);

/** What the coach chooses for a straight run-up. */
export const ChoiceFields = ({
  choices,
  style,
  naturalM,
  messages,
  onChoices,
  onMessage,
  disabled,
}: Props) => {
  const id = useId();
  const { ending, absorb } = choices;
  const note = (field: string) =>
    messages[field] && (
      <div className="field-message" role="alert" id={`${id}-${field}-message`}>
        {messages[field]}
      </div>
    );
  const wrong = (field: string) =>
    messages[field] ? { 'aria-invalid': true, 'aria-describedby': `${id}-${field}-message` } : {};
  const label = (field: string, text: string) => <label htmlFor={`${id}-${field}`}>{text}</label>;
  const number = (
    field: string,
    value: number,
    take: (value: number) => void,
    more: { scale?: number; decimals?: number; width?: string; name?: string } = {},
  ) => (
    <NumberInput
      id={`${id}-${field}`}
      value={value}
      onNumber={take}
      onMessage={(message) => onMessage(field, message)}
      scale={more.scale ?? 1}
      decimals={more.decimals ?? 0}
      {...(more.width ? { width: more.width } : {})}
      {...(more.name ? { 'aria-label': more.name } : {})}
      {...wrong(field)}
    />
  );

  return (
    <fieldset className="plan-fields" disabled={disabled}>
      {label('target', 'Target')}
      <Form.Select
        id={`${id}-target`}
        value={choices.target}
        onChange={(event) => onChoices({ target: event.target.value as StraightChoices['target'] })}
      >
        {TARGETS.map((target) => (
          <option key={target}>{target}</option>
        ))}
      </Form.Select>

      {label('takeoffFoot', 'Take-off foot')}
      <Form.Select
        id={`${id}-takeoffFoot`}
        value={choices.takeoffFoot}
        onChange={(event) =>
          onChoices({ takeoffFoot: event.target.value as StraightChoices['takeoffFoot'] })
        }
      >
        <option value="own">the athlete’s own</option>
        <option value="left">left for all</option>
        <option value="right">right for all</option>
      </Form.Select>

      {label('steps', 'Steps')}
      {number('steps', choices.steps, (steps) => onChoices({ steps }))}
      {note('steps')}

      {label('start', 'Start')}
      <div className="pair">
        <Form.Select
          id={`${id}-start`}
          style={{ flex: '0 0 5.6rem' }}
          value={choices.distanceM === null ? 'free' : 'fixed'}
          onChange={(event) => {
            onMessage('distanceM', null);
            onChoices({
              distanceM: event.target.value === 'free' ? null : Number((naturalM ?? 20).toFixed(2)),
            });
          }}
        >
          <option value="free">free</option>
          <option value="fixed">fixed</option>
        </Form.Select>
        {choices.distanceM !== null && (
          <LengthInput
            aria-label="Start mark, from the target"
            valueM={choices.distanceM}
            style={style}
            onLength={(distanceM) => onChoices({ distanceM })}
            onMessage={(message) => onMessage('distanceM', message)}
            {...wrong('distanceM')}
          />
        )}
      </div>
      {note('distanceM')}

      {label('startFoot', 'First foot')}
      <Form.Select
        id={`${id}-startFoot`}
        value={choices.startFoot ?? 'any'}
        onChange={(event) =>
          onChoices({
            startFoot: event.target.value === 'any' ? null : (event.target.value as 'left'),
          })
        }
      >
        <option value="any">whichever arrives</option>
        <option value="left">left</option>
        <option value="right">right</option>
      </Form.Select>

      {label('ending', 'Ending')}
      <Form.Select
        id={`${id}-ending`}
        value={ending.kind}
        onChange={(event) =>
          onChoices({
            ending:
              event.target.value === ending.kind
                ? ending
                : ENDINGS[event.target.value as Ending['kind']],
          })
        }
      >
        <option value="even">even to the end</option>
        <option value="penultimate">longer, then shorter</option>
        <option value="short">shorten to short steps</option>
      </Form.Select>
      {ending.kind === 'penultimate' && (
        <>
          <span className="label">Last two steps</span>
          <div className="pair">
            {number(
              'ending.longer',
              ending.longer,
              (longer) => onChoices({ ending: { ...ending, longer } }),
              {
                scale: 100,
                decimals: 1,
                width: '3.2rem',
                name: 'Second-last step longer by, per cent',
              },
            )}
            <span className="small-text quiet">% more,</span>
            {number(
              'ending.shorter',
              ending.shorter,
              (shorter) => onChoices({ ending: { ...ending, shorter } }),
              { scale: 100, decimals: 1, width: '3.2rem', name: 'Last step shorter by, per cent' },
            )}
            <span className="small-text quiet">% less</span>
          </div>
          {note('ending.longer')}
          {note('ending.shorter')}
        </>
      )}
      {ending.kind === 'short' && (
        <>
          <span className="label">Short steps</span>
          <div className="pair">
            {number(
              'ending.count',
              ending.count,
              (count) => onChoices({ ending: { ...ending, count } }),
              {
                width: '3rem',
                name: 'Short steps',
              },
            )}
            <span className="small-text quiet">of</span>
            <LengthInput
              aria-label="Length of a short step"
              valueM={ending.lengthM}
              style={{ ...style, small: true }}
              onLength={(lengthM) => onChoices({ ending: { ...ending, lengthM: lengthM ?? 0 } })}
              onMessage={(message) => onMessage('ending.lengthM', message)}
              {...wrong('ending.lengthM')}
            />
          </div>
          <span className="label">Shorten over</span>
          <div className="pair">
            {number(
              'ending.taperSteps',
              ending.taperSteps,
              (taperSteps) => onChoices({ ending: { ...ending, taperSteps } }),
              { width: '3rem', name: 'Steps to shorten over' },
            )}
            <span className="small-text quiet">steps, to</span>
            {number(
              'ending.cadenceSpm',
              ending.cadenceSpm,
              (cadenceSpm) => onChoices({ ending: { ...ending, cadenceSpm } }),
              { width: '4rem', name: 'Cadence of the short steps' },
            )}
            <span className="small-text quiet">/min</span>
          </div>
          {note('ending.count')}
          {note('ending.taperSteps')}
          {note('ending.lengthM')}
          {note('ending.cadenceSpm')}
        </>
      )}

      {label('absorb', 'Correction taken')}
      <div className="pair">
        <Form.Select
          id={`${id}-absorb`}
          value={absorbValue(absorb)}
          onChange={(event) => {
            const value = event.target.value;
            onChoices({
              absorb: value === 'step' ? { stepsOut: 1 } : (value as 'even' | 'early'),
            });
          }}
        >
          <option value="early">by early steps</option>
          <option value="even">by all alike</option>
          <option value="step">by one step</option>
        </Form.Select>
        {typeof absorb === 'object' && (
          <>
            {number(
              'absorb.stepsOut',
              absorb.stepsOut,
              (stepsOut) => onChoices({ absorb: { stepsOut } }),
              { width: '3rem', name: 'The adjusting step, steps before the last' },
            )}
            <span className="small-text quiet text-nowrap">before last</span>
          </>
        )}
      </div>
      {note('absorb.stepsOut')}

      {label('speedFraction', 'Speed, %')}
      {number(
        'speedFraction',
        choices.speedFraction,
        (speedFraction) => onChoices({ speedFraction }),
        {
          scale: 100,
          decimals: 1,
        },
      )}
      {note('speedFraction')}

      {label('tolerance', 'May change by, %')}
      {number('tolerance', choices.tolerance, (tolerance) => onChoices({ tolerance }), {
        scale: 100,
        decimals: 1,
      })}
      {note('tolerance')}

      {label('checkMarks', 'Check marks')}
      <MarksInput
        id={`${id}-checkMarks`}
        marks={choices.checkMarks}
        invalid={wrong('checkMarks')}
        onMarks={(checkMarks) => onChoices({ checkMarks })}
        onMessage={(message) => onMessage('checkMarks', message)}
      />
      {note('checkMarks')}
    </fieldset>
  );
};
