import {
  HELPERS,
  MOST_WATCHED,
  type Call,
  type DrillSet,
  type Helper,
} from '@gravek/contract/drillSet';
import type { Stand } from '@gravek/core/session/runOrder';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { CALL_NAMES, freshCall, HELPER_NAMES, STAND_NAMES } from '../parts/intoSession/setNames';

type Props = {
  set: DrillSet;
  /** of the ground */
  lanes: number;
  first: boolean;
  /** the plan has a read whose exits can be called */
  canRead: boolean;
  /** steps a minute that a steady tempo begins with: the own target of whoever runs */
  tempoSpm: number;
  message: (field: string) => string | undefined;
  onSet: (change: Partial<DrillSet>) => void;
  onMessage: (field: string, message: string | null) => void;
};

/** How people stand in a drill set, what the others do, and how it is called. */
export const StandForm = ({
  set,
  lanes,
  first,
  canRead,
  tempoSpm,
  message,
  onSet,
  onMessage,
}: Props) => {
  const { call } = set;
  const number = (
    field: string,
    label: string,
    value: number,
    onNumber: (value: number) => void,
    decimals = 0,
  ) => (
    <Field label={label} message={message(field)}>
      <NumberInput
        value={value}
        decimals={decimals}
        onNumber={onNumber}
        onMessage={(text) => onMessage(field, text)}
      />
    </Field>
  );
  const flag = (field: 'redo' | 'freeze' | 'beside', label: string) => (
    <label className="check-line">
      <input
        type="checkbox"
        checked={set[field]}
        onChange={(event) => onSet({ [field]: event.target.checked })}
      />
      {label}
    </label>
  );
  return (
    <div className="set-fields">
      <Field label="They stand">
        <Form.Select
          value={set.stand}
          onChange={(event) => onSet({ stand: event.target.value as Stand })}
        >
          {Object.entries(STAND_NAMES).map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </Form.Select>
      </Field>
      {(set.stand === 'turns' || set.stand === 'roles') && (
        <Field label="Lanes" message={message('lanes')}>
          <Form.Select
            value={set.lanes ?? ''}
            onChange={(event) => onSet({ lanes: Number(event.target.value) || null })}
          >
            <option value="">all of {lanes}</option>
            {Array.from({ length: Math.max(lanes, set.lanes ?? 1, 6) }, (_, i) => i + 1).map(
              (n) => (
                <option key={n} value={n}>
                  {n}
                </option>
              ),
            )}
          </Form.Select>
        </Field>
      )}
      {set.stand === 'row' && (
        <Field label="Watched at a call">
          <Form.Select
            value={set.watch ?? ''}
            onChange={(event) => onSet({ watch: Number(event.target.value) || null })}
          >
            <option value="">as on the phone</option>
            {Array.from({ length: MOST_WATCHED }, (_, i) => i + 1).map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
          </Form.Select>
        </Field>
      )}
      {set.stand === 'pairs' && (
        <>
          <Field label="The other is">
            <Form.Select
              value={set.helpers[0] ?? 'partner'}
              onChange={(event) => onSet({ helpers: [event.target.value as Helper] })}
            >
              {(['partner', 'opponent', 'watcher', 'feeder'] as const).map((role) => (
                <option key={role} value={role}>
                  {HELPER_NAMES[role]}
                </option>
              ))}
            </Form.Select>
          </Field>
          <Field label="Own paces apart" message={message('apartPaces')}>
            <Form.Select
              value={set.apartPaces ?? ''}
              onChange={(event) => onSet({ apartPaces: Number(event.target.value) || null })}
            >
              <option value="">not walked off</option>
              {Array.from({ length: 12 }, (_, i) => i + 1).map((n) => (
                <option key={n} value={n}>
                  {n}
                </option>
              ))}
            </Form.Select>
          </Field>
        </>
      )}
      {set.stand === 'roles' && (
        <div className="axis" role="group" aria-label="The others">
          <span className="form-label mb-0">The others</span>
          {HELPERS.map((other) => (
            <button
              key={other}
              type="button"
              className="pick"
              aria-pressed={set.helpers.includes(other)}
              onClick={() =>
                onSet({
                  helpers: set.helpers.includes(other)
                    ? set.helpers.filter((helper) => helper !== other)
                    : [...set.helpers, other],
                })
              }
            >
              {HELPER_NAMES[other]}
            </button>
          ))}
        </div>
      )}
      <Field label="Called">
        <Form.Select
          value={call?.kind ?? ''}
          onChange={(event) =>
            onSet({ call: freshCall(event.target.value as Call['kind'] | '', tempoSpm) })
          }
        >
          <option value="">not at all</option>
          {Object.entries(CALL_NAMES)
            .filter(([kind]) => kind !== 'reads' || canRead)
            .map(([kind, label]) => (
              <option key={kind} value={kind}>
                {label}
              </option>
            ))}
        </Form.Select>
      </Field>
      {call?.kind === 'tempo' &&
        number('call.cadenceSpm', 'Steps a minute', call.cadenceSpm, (cadenceSpm) =>
          onSet({ call: { ...call, cadenceSpm } }),
        )}
      {call?.kind === 'steps' &&
        number('call.steps', 'Steps', call.steps, (steps) => onSet({ call: { ...call, steps } }))}
      {(call?.kind === 'steps' || call?.kind === 'start') && (
        <>
          {number(
            'call.leastS',
            'Wait, least s',
            call.leastS,
            (leastS) => onSet({ call: { ...call, leastS } }),
            1,
          )}
          {number(
            'call.mostS',
            'most s',
            call.mostS,
            (mostS) => onSet({ call: { ...call, mostS } }),
            1,
          )}
        </>
      )}
      <div className="axis">
        {flag('redo', 'again without the finish')}
        {flag('freeze', 'freeze and check')}
        {!first && flag('beside', 'at the same time as the set before')}
      </div>
    </div>
  );
};
