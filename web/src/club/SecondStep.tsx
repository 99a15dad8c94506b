import {
  secondStepOn,
  type RecoveryCodes,
  type SecondStep as Step,
  type SecondStepOn,
} from '@gravek/contract/account';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { renderSVG } from 'uqr';
import { api, sentenceOf } from '../api/client';
import { Conflict } from '../controls/Conflict';
import { download } from '../controls/download';
import { Field } from '../controls/Field';
import { useCheckedForm } from '../controls/form';
import { Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';

const STEP = ['second-step'];

const TurnOn = ({
  secret,
  uri,
  onCodes,
  onClose,
}: {
  secret: string;
  uri: string;
  onCodes: (codes: string[]) => void;
  onClose: () => void;
}) => {
  const { register, errors, busy, over, onSubmit } = useCheckedForm<SecondStepOn>(
    secondStepOn,
    { defaultValues: { secret, code: '' } },
    async (values) => {
      const { codes } = await api.put<RecoveryCodes>('/second-step', values);
      onCodes(codes);
    },
  );
  return (
    <Form noValidate className="stack" onSubmit={onSubmit}>
      <Conflict problem={over} />
      <p className="small-text mb-0">
        Read this with the app on your phone that makes codes for signing in, then type the code
        that it shows.
      </p>
      <img
        className="align-self-start"
        style={{ background: '#fff', padding: 6 }}
        width={168}
        height={168}
        alt="The secret as a picture, for the app to read"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(renderSVG(uri))}`}
      />
      <div className="small-text quiet">
        Or type it in: <span className="figure">{secret.replace(/(.{4})(?=.)/g, '$1 ')}</span>
      </div>
      <Field label="Code" message={errors.code?.message}>
        <Form.Control
          inputMode="numeric"
          autoComplete="one-time-code"
          style={{ width: '8rem' }}
          {...register('code')}
        />
      </Field>
      <div className="row-line">
        <Button size="sm" type="submit" disabled={busy}>
          Turn it on
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onClose}>
          Close
        </Button>
      </div>
    </Form>
  );
};

const Codes = ({ codes, onDone }: { codes: string[]; onDone: () => void }) => (
  <div className="stack" role="status">
    <p className="mb-0">
      <strong>Keep these codes where your phone is not.</strong> Each lets you in once when the
      phone is lost. They are shown only now.
    </p>
    <ul className="list-plain figure" aria-label="Recovery codes">
      {codes.map((code) => (
        <li key={code}>{code}</li>
      ))}
    </ul>
    <div className="row-line">
      <Button
        size="sm"
        variant="outline-dark"
        onClick={() => download('gravek-codes.txt', codes.join('\n'), 'text/plain')}
      >
        Save as a file
      </Button>
      <Button size="sm" onClick={onDone}>
        I have them
      </Button>
    </div>
  </div>
);

/** A code from the phone besides the password, turned on and off. */
export const SecondStep = ({ onClose }: { onClose: () => void }) => {
  const client = useQueryClient();
  const step = useQuery({
    queryKey: STEP,
    queryFn: () => api.get<Step>('/second-step'),
    // The secret that was read by the phone stays until it is taken.
    staleTime: Infinity,
  });
  const [codes, setCodes] = useState<string[] | null>(null);
  const again = () => client.invalidateQueries({ queryKey: STEP });
  const turnOff = async (): Promise<void> => {
    try {
      await api.remove('/second-step');
      tell('Signing in takes only the password now.');
      await again();
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  if (codes) {
    return (
      <Codes
        codes={codes}
        onDone={() => {
          setCodes(null);
          void again();
        }}
      />
    );
  }
  return (
    <Loaded query={step} what="Getting the second step …">
      {(kept) =>
        kept.on ? (
          <div className="row-line">
            <span>
              Signing in takes a code from your phone; {kept.codesLeft} recovery codes are left.
            </span>
            <Button
              size="sm"
              variant="outline-dark"
              className="ms-auto"
              onClick={() => void turnOff()}
            >
              Turn it off
            </Button>
          </div>
        ) : (
          <TurnOn secret={kept.secret} uri={kept.uri} onCodes={setCodes} onClose={onClose} />
        )
      }
    </Loaded>
  );
};
