import type { CurvePlan } from '@gravek/core/curve/solveCurve';
import type { LengthStyle } from '@gravek/core/units';
import type { SequenceChoices } from '@gravek/contract/approach';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Figure, Labelled, Length } from '../../controls/Figure';
import { LengthInput } from '../../controls/LengthInput';
import { Slider } from '../../controls/Slider';
import { FootWord } from '../../drawing/FootPrint';

type Chosen = NonNullable<SequenceChoices['bar']>;

/** Beyond this a bend asks for more grip than spikes on a dry apron usually give. */
const MOST_LEAN_DEG = 35;

/** The curve to a bar: radius and lean first, then every print by two tapes from the uprights. */
export const CurvePanel = ({
  curve,
  chosen,
  usual,
  ground,
  measured,
  style,
  disabled,
  onChoose,
}: {
  curve: CurvePlan;
  chosen: SequenceChoices['bar'];
  /** as the movement has it */
  usual: Chosen;
  /** where it is set out: its uprights and apron hold */
  ground: SequenceChoices['ground'];
  /** whether the step on the curve is the athlete's own */
  measured: boolean;
  style: LengthStyle;
  disabled: boolean;
  onChoose: (chosen: Chosen) => void;
}) => {
  const now = chosen ?? usual;
  const [messages, setMessages] = useState<Record<string, string | null>>({});
  const set = (change: Partial<Chosen>): void => onChoose({ ...now, ...change });
  const friction = Math.tan((curve.leanDeg * Math.PI) / 180);
  const slider = (
    key: 'takeoffAngleDeg' | 'entryFlareDeg' | 'curveSteps' | 'straightSteps',
    label: string,
    [min, max, step]: [number, number, number],
    unit: string,
  ) => (
    <Slider
      label={label}
      value={now[key]}
      min={min}
      max={max}
      step={step}
      written={<Figure parts={[{ figure: String(now[key]), unit }]} />}
      disabled={disabled}
      onValue={(value) => set({ [key]: value })}
    />
  );
  const length = (
    key: string,
    label: string,
    valueM: number,
    [min, max]: [number, number],
    take: (m: number) => void,
  ) => (
    <label className="choice" key={key}>
      <span className="form-label">{label}</span>
      <LengthInput
        valueM={valueM}
        style={style}
        disabled={disabled}
        onLength={(m) => {
          const out = m === null || m < min || m > max;
          setMessages((before) => ({
            ...before,
            [key]: out ? 'That cannot be set out here.' : null,
          }));
          if (!out) take(m);
        }}
        onMessage={(text) => text && setMessages((before) => ({ ...before, [key]: text }))}
      />
      {messages[key] && (
        <span className="field-message" role="alert">
          {messages[key]}
        </span>
      )}
    </label>
  );
  const off = new Set(curve.outside);
  return (
    <section className="panel" aria-label="The curve">
      <h2>The curve, by two tapes</h2>
      <div className="figures-row mb-1">
        <Labelled label="Radius">
          <Length m={curve.radiusM} style={style} big />
        </Labelled>
        <Labelled label="Lean">
          <Figure parts={[{ figure: curve.leanDeg.toFixed(0), unit: '°' }]} big />
        </Labelled>
        <Labelled label="Turns by">
          <Figure parts={[{ figure: curve.turnDeg.toFixed(0), unit: '°' }]} big />
        </Labelled>
        <Labelled label="Take off from">
          <span className="figure figure-big">{curve.takeoffFoot}</span>
        </Labelled>
        <Labelled label={measured ? 'Step on the curve, own' : 'Step on the curve, estimate'}>
          <Length m={curve.curveStepM} style={style} big />
        </Labelled>
      </div>
      {curve.leanDeg > MOST_LEAN_DEG && (
        <div className="note note-wrong mb-2" role="status">
          So tight a curve asks for a lean of {curve.leanDeg.toFixed(0)}° and a grip of{' '}
          {friction.toFixed(2)} times body weight; more than about{' '}
          {Math.tan((MOST_LEAN_DEG * Math.PI) / 180).toFixed(1)} slips. More curve steps or a wider
          angle open it.
        </div>
      )}
      {curve.outside.length > 0 && (
        <div className="note note-wrong mb-2" role="status">
          Off the apron: {curve.outside.join(', ')}.
        </div>
      )}
      <div className="slider-grid no-print">
        {slider('takeoffAngleDeg', 'Take-off angle to the bar', [10, 45, 1], '°')}
        {slider('curveSteps', 'Curve steps', [3, 8, 1], '')}
        {slider('straightSteps', 'Straight steps', [0, 12, 1], '')}
        {slider('entryFlareDeg', 'Entry flared by', [0, 30, 1], '°')}
      </div>
      <div className="edit-grid mt-2 no-print">
        {length('along', 'Inside the near upright', now.alongM, [0, 3], (alongM) =>
          set({ alongM }),
        )}
        {length('out', 'Out from the bar', now.outM, [0.2, 3], (outM) => set({ outM }))}
        {ground?.uprightGapM ? (
          <div className="align-self-end">
            Uprights of {ground.name}: <Length m={ground.uprightGapM} style={style} /> apart
          </div>
        ) : (
          length('gap', 'Between the uprights', now.uprightGapM, [2, 8], (uprightGapM) =>
            set({ uprightGapM }),
          )
        )}
        {ground?.apron ? (
          <div className="align-self-end">
            Its apron: <Length m={ground.apron.besideM} style={style} /> beside,{' '}
            <Length m={ground.apron.outM} style={style} /> out
          </div>
        ) : (
          <Form.Check
            type="switch"
            id="apron"
            className="align-self-end"
            label="the apron ends"
            checked={now.apron !== null}
            disabled={disabled}
            onChange={() => set({ apron: now.apron ? null : { besideM: 10, outM: 15 } })}
          />
        )}
        {now.apron && !ground?.apron && (
          <>
            {length('beside', 'beside the upright at', now.apron.besideM, [0.5, 40], (besideM) =>
              set({ apron: { ...now.apron!, besideM } }),
            )}
            {length('apronOut', 'out from the bar at', now.apron.outM, [0.5, 40], (outM) =>
              set({ apron: { ...now.apron!, outM } }),
            )}
          </>
        )}
      </div>
      <div className="table-scroll mt-2" tabIndex={0} role="group" aria-label="Marks by two tapes">
        <table className="grid-table">
          <caption className="visually-hidden">Every mark by tapes from both uprights</caption>
          <thead>
            <tr>
              <th>Mark</th>
              <th className="num">Near upright</th>
              <th className="num">Far upright</th>
              <th className="num">Along the bar</th>
              <th className="num">Out</th>
            </tr>
          </thead>
          <tbody>
            {[
              { key: 'start', name: 'Start', foot: null, spot: curve.startMark },
              ...curve.footfalls.flatMap((fall) => [
                ...(fall.zone === 'curve' && curve.footfalls[fall.n - 2]?.zone !== 'curve'
                  ? [
                      {
                        key: 'curve',
                        name: 'Curve begins',
                        foot: null,
                        spot: curve.curveStart,
                      },
                    ]
                  : []),
                {
                  key: `step ${fall.n}`,
                  name: fall.n === curve.footfalls.length ? 'Take-off' : `Step ${fall.n}`,
                  foot: fall.foot,
                  spot: fall,
                },
              ]),
            ].map(({ key, name, foot, spot }) => (
              <tr key={key}>
                <td>
                  <strong>{name}</strong> {foot && <FootWord foot={foot} />}
                  {off.has(key === 'start' ? 'start mark' : key) && (
                    <span className="field-message"> off the apron</span>
                  )}
                </td>
                <td className="num">
                  <Length m={spot.tape.nearM} style={style} />
                </td>
                <td className="num">
                  <Length m={spot.tape.farM} style={style} />
                </td>
                <td className="num">
                  {spot.besideM < 0 && '−'}
                  <Length m={Math.abs(spot.besideM)} style={style} />
                </td>
                <td className="num">
                  <Length m={spot.outM} style={style} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
};
