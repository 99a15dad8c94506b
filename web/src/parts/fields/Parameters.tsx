import { type Span, SPAN_UNITS, spanM } from '@gravek/core/layout/body';
import {
  type ParameterField,
  type ParameterFields,
  plainValues,
} from '@gravek/contract/parameters';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { Length } from '../../controls/Figure';
import { LengthInput } from '../../controls/LengthInput';
import { NumberInput } from '../../controls/NumberInput';
import { type At, ChoiceAt, FlagAt, NumberAt, TextAt } from './At';
import { useAt, useFields } from './fields';
import { MaybeAt } from './PicksAt';

const UNIT_WORDS: Record<Span['of'], string> = {
  m: 'fixed',
  height: '× body height',
  leg: '× leg length',
  shoe: '× shoe',
  pace: '× walking pace',
  'first step': '× first step',
  'top step': '× longest step',
};

/** A length: fixed, or so many times one of the athlete's own measures. */
export const SpanAt = ({ at, label }: At) => {
  const { value, message, set, kept, say } = useAt<Span>(at);
  const { body: measured, style, problems } = useFields();
  const body = measured!;
  const shown = message ?? problems[`${at}.value`];
  const lengthM = spanM(value, body);
  return (
    <div>
      <Field label={label} message={shown}>
        {value.of === 'm' ? (
          <LengthInput
            valueM={value.value}
            style={style}
            kept={kept}
            onLength={(m) => m !== null && set({ ...value, value: m })}
            onMessage={say}
          />
        ) : (
          <NumberInput
            value={value.value}
            decimals={3}
            kept={kept}
            onNumber={(number) => set({ ...value, value: number })}
            onMessage={say}
          />
        )}
      </Field>
      <Form.Select
        size="sm"
        className="mt-1"
        aria-label={`${label} is counted in`}
        value={value.of}
        onChange={(event) => {
          const of = event.target.value as Span['of'];
          const value = spanM({ value: 1, of }, body);
          // The length stays what it was for the body that is drawn.
          set({ of, value: Number((lengthM / value).toFixed(3)) });
        }}
      >
        {SPAN_UNITS.map((of) => (
          <option key={of} value={of}>
            {UNIT_WORDS[of]}
          </option>
        ))}
      </Form.Select>
      {value.of !== 'm' && (
        <div className="small-text quiet">
          here <Length m={lengthM} style={style} />
        </div>
      )}
    </div>
  );
};

/** The field for one parameter of a phase, made from what the contract says of it. */
export const ParameterAt = ({ at, field }: { at: string; field: ParameterField }) => {
  const { value, set } = useAt<unknown>(at);
  const { label } = field;
  switch (field.type) {
    case 'span':
      return field.maybe ? (
        <MaybeAt at={at} label={label} fresh={() => ({ value: field.minM * 3, of: 'm' })}>
          <SpanAt at={at} label={label} />
        </MaybeAt>
      ) : (
        <SpanAt at={at} label={label} />
      );
    case 'count':
      return <NumberAt at={at} label={label} decimals={0} />;
    case 'figure':
      return <NumberAt at={at} label={label} unit={field.unit} decimals={3} />;
    case 'choice':
      return (
        <ChoiceAt
          at={at}
          label={label}
          options={field.options}
          {...(field.maybe ? { none: 'whichever comes' } : {})}
        />
      );
    case 'flag':
      return <FlagAt at={at} label={label} />;
    case 'text':
      return <TextAt at={at} label={label} />;
    case 'group':
      return (
        <MaybeAt at={at} label={label} fresh={() => plainValues(field.fields)}>
          <ParametersAt at={at} fields={field.fields} />
        </MaybeAt>
      );
    case 'list': {
      const list = value as unknown[];
      return (
        <div className="span-12 stack">
          {list.map((_, i) => (
            <fieldset key={i} className="edit-group">
              <legend>
                {label.replace(/s$/, '')} {i + 1}{' '}
                <Button
                  size="sm"
                  variant="link"
                  onClick={() => set(list.filter((__, other) => other !== i))}
                >
                  Take out
                </Button>
              </legend>
              <div className="edit-grid">
                <ParametersAt at={`${at}[${i}]`} fields={field.fields} />
              </div>
            </fieldset>
          ))}
          {list.length < field.max && (
            <Button
              size="sm"
              variant="outline-dark"
              className="align-self-start"
              onClick={() => set([...list, list.at(-1) ?? plainValues(field.fields)])}
            >
              Add a step
            </Button>
          )}
        </div>
      );
    }
  }
};

export const ParametersAt = ({ at, fields }: { at: string; fields: ParameterFields }) => (
  <>
    {Object.entries(fields).map(([key, field]) => (
      <ParameterAt key={key} at={`${at}.${key}`} field={field} />
    ))}
  </>
);
