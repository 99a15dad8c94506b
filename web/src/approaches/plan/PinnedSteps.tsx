import type { Pin as PinnedStep, StraightPlan } from '@gravek/core/runup/straightPlan';
import type { LengthStyle } from '@gravek/core/units';
import { Pin, PinOff } from 'lucide-react';
import { memo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Length } from '../../controls/Figure';
import { LengthInput } from '../../controls/LengthInput';
import { FootWord } from '../../drawing/FootPrint';

/** Every step with its length to type over: what is typed is pinned, the rest is solved anew. */
export const PinnedSteps = memo(
  ({
    plan,
    pins,
    style,
    onPin,
    onUnpinAll,
  }: {
    /** the plan, or one nearby while the pins cannot be run */
    plan: StraightPlan;
    pins: readonly PinnedStep[];
    style: LengthStyle;
    /** absent where nothing may be changed */
    onPin: ((step: number, lengthM: number | null) => void) | undefined;
    onUnpinAll: () => void;
  }) => {
    const [messages, setMessages] = useState<Record<number, string | null>>({});
    const pinned = pins.length;
    return (
      <section className="panel" aria-label="Step by step">
        <div className="row-line mb-1">
          <h2 className="mb-0">Step by step</h2>
          <span className="quiet small-text">
            {pinned === 0
              ? 'Type a length or drag a print: that step is pinned, the others are solved anew.'
              : `${pinned === 1 ? 'One step is' : `${pinned} steps are`} pinned; the others are solved around ${pinned === 1 ? 'it' : 'them'}.`}
          </span>
          {pinned > 0 && onPin && (
            <Button size="sm" variant="outline-dark" className="ms-auto" onClick={onUnpinAll}>
              Let all go
            </Button>
          )}
        </div>
        <ol className="step-grid">
          {plan.steps.map((step) => {
            const pin = pins.find((pin) => pin.step === step.n);
            const lengthM = pin?.lengthM ?? step.lengthM;
            const change = lengthM / step.preferredM - 1;
            const message = messages[step.n];
            return (
              <li key={step.n} className={pin ? 'pinned' : undefined}>
                <span className="step-n figure">{step.n}</span>
                <span className="step-foot">
                  <FootWord foot={step.foot} />
                </span>
                <LengthInput
                  aria-label={`Step ${step.n}`}
                  valueM={lengthM}
                  style={style}
                  disabled={!onPin}
                  onLength={(typed) => typed !== null && onPin?.(step.n, typed)}
                  onMessage={(text) => setMessages((before) => ({ ...before, [step.n]: text }))}
                />
                <button
                  type="button"
                  className="pin-press"
                  aria-pressed={pin !== undefined}
                  aria-label={pin ? `Let step ${step.n} go` : `Pin step ${step.n}`}
                  disabled={!onPin}
                  onClick={() => onPin?.(step.n, pin ? null : lengthM)}
                >
                  {pin ? <PinOff size={15} aria-hidden /> : <Pin size={15} aria-hidden />}
                </button>
                <span className="quiet small-text step-natural">
                  {Math.abs(change) < 0.0005 ? (
                    'natural'
                  ) : (
                    <>
                      {change > 0 ? '+' : '−'}
                      {Math.abs(change * 100).toFixed(1)} % of{' '}
                      <Length m={step.preferredM} style={style} />
                    </>
                  )}
                </span>
                {message && (
                  <span className="field-message" role="alert">
                    {message}
                  </span>
                )}
              </li>
            );
          })}
        </ol>
      </section>
    );
  },
);
