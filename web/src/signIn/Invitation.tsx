import type { InvitationSeen, InvitationTaken, SignIn } from '@gravek/contract/account';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, onPress, sentenceOf } from '../api/client';
import { forgetClub } from '../api/door';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { Loaded } from '../controls/Notice';
import { useSentForm } from '../controls/sentForm';
import { CodeField, useCodeAsked } from './CodeField';

const loadChecks = async () => (await onPress(() => import('./doorChecks'))).doorChecks;

/** Into the club that was joined, with nothing kept of another. */
const goIn = async (): Promise<void> => {
  await forgetClub();
  window.location.replace('/');
};

const Join = ({ token, club }: { token: string; club: string }) => {
  const [problem, setProblem] = useState<string | null>(null);
  const join = async (): Promise<void> => {
    try {
      await api.post('/invitation/accept', { token });
      await goIn();
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <>
      <Conflict problem={problem} />
      <Button onClick={() => void join()}>Join {club}</Button>
    </>
  );
};

const NewHere = ({ token, person }: { token: string; person: string }) => {
  const { register, errors, busy, over, onSubmit } = useSentForm<InvitationTaken>(
    async (values) => (await loadChecks()).invitationTaken(values),
    { defaultValues: { token, person, password: '' } },
    async (values) => {
      await api.post('/invitation/new', values);
      await goIn();
    },
  );
  return (
    <Form noValidate className="stack" onSubmit={onSubmit}>
      <Conflict problem={over} />
      <Field label="Your name" message={errors.person?.message}>
        <Form.Control autoComplete="name" {...register('person')} />
      </Field>
      <Field
        label="Choose a password"
        message={errors.password?.message}
        hint="At least 10 characters; a few words of your own are best."
      >
        <Form.Control type="password" autoComplete="new-password" {...register('password')} />
      </Field>
      <Button type="submit" disabled={busy}>
        Join
      </Button>
    </Form>
  );
};

const HasAccount = ({ token, email }: { token: string; email: string }) => {
  const { asked, hear } = useCodeAsked();
  const { register, errors, busy, over, onSubmit } = useSentForm<SignIn>(
    async (values) => (await loadChecks()).signIn(values),
    { defaultValues: { email, password: '', code: '' } },
    async (values) => {
      await hear(api.post('/sign-in', values));
      await api.post('/invitation/accept', { token });
      await goIn();
    },
  );
  return (
    <Form noValidate className="stack" onSubmit={onSubmit}>
      <Conflict problem={over} />
      <Field label="Password" message={errors.password?.message}>
        <Form.Control type="password" autoComplete="current-password" {...register('password')} />
      </Field>
      {asked && <CodeField message={errors.code?.message} control={register('code')} />}
      <Button type="submit" disabled={busy}>
        Sign in and join
      </Button>
    </Form>
  );
};

/** Where the link of an invitation leads. */
export const Invitation = () => {
  // After the #, so that it goes to no server and no log before it is used.
  const [token] = useState(() => window.location.hash.slice(1));
  const [isKnown, setKnown] = useState(false);
  const query = useQuery({
    queryKey: ['invitation'],
    retry: false,
    queryFn: () => api.post<InvitationSeen>('/invitation', { token }),
  });
  return (
    <main className="door">
      <div className="door-card panel stack">
        <h1 className="door-name">gravek</h1>
        <Loaded query={query} what="Opening the invitation …">
          {({ club, role, person, email, signedInAs }) => (
            <>
              <p className="mb-0">
                <strong>{club}</strong> invites {email} as {role}.
              </p>
              {signedInAs === email ? (
                <Join token={token} club={club} />
              ) : (
                <>
                  {signedInAs && (
                    <p className="small-text quiet mb-0">
                      On this device {signedInAs} is signed in; joining signs that account out here.
                    </p>
                  )}
                  {isKnown ? (
                    <HasAccount token={token} email={email} />
                  ) : (
                    <NewHere token={token} person={person} />
                  )}
                  <Button
                    variant="link"
                    className="p-0 text-start"
                    onClick={() => setKnown(!isKnown)}
                  >
                    {isKnown ? 'I have no account yet' : 'I have an account with this address'}
                  </Button>
                </>
              )}
            </>
          )}
        </Loaded>
      </div>
    </main>
  );
};
