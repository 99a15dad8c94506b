import type { FirstClub, SignIn as SignInForm } from '@gravek/contract/account';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, onPress, sentenceOf } from '../api/client';
import { queryClient, useDoor } from '../api/door';
import { Field } from '../controls/Field';
import { Conflict } from '../controls/Conflict';
import { useSentForm } from '../controls/sentForm';
import { Failed } from '../controls/Notice';
import { CodeField, useCodeAsked } from './CodeField';
import { WaitingHere } from './WaitingHere';

const loadChecks = () => import('./doorChecks');

const entered = () => queryClient.resetQueries();

const EnterForm = () => {
  const { asked, hear } = useCodeAsked();
  const { register, errors, busy, over, onSubmit } = useSentForm<SignInForm>(
    async (values) => (await onPress(loadChecks)).doorChecks.signIn(values),
    { defaultValues: { email: '', password: '', code: '' } },
    async (values) => {
      await hear(api.post('/sign-in', values));
      await entered();
    },
  );
  return (
    <Form noValidate className="stack" onSubmit={onSubmit}>
      <Conflict problem={over} />
      <Field label="E-mail" message={errors.email?.message}>
        <Form.Control type="email" autoComplete="username" {...register('email')} />
      </Field>
      <Field label="Password" message={errors.password?.message}>
        <Form.Control type="password" autoComplete="current-password" {...register('password')} />
      </Field>
      {asked && <CodeField message={errors.code?.message} control={register('code')} />}
      <Button type="submit" disabled={busy}>
        Sign in
      </Button>
    </Form>
  );
};

const FirstClubForm = () => {
  const { register, errors, busy, over, onSubmit } = useSentForm<FirstClub>(
    async (values) => (await onPress(loadChecks)).doorChecks.firstClub(values),
    {
      defaultValues: {
        club: {
          name: '',
          unit: 'metric',
          cueSchool: 'root-cause',
          timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        },
        person: '',
        email: '',
        password: '',
      },
    },
    async (values) => {
      await api.post('/first-club', values);
      await entered();
    },
  );
  return (
    <Form noValidate className="stack" onSubmit={onSubmit}>
      <p className="mb-0">There is no club here yet. Make the first one; you will be its owner.</p>
      <Conflict problem={over} />
      <Field label="Club" message={errors.club?.name?.message}>
        <Form.Control {...register('club.name')} />
      </Field>
      <Field label="Your name" message={errors.person?.message}>
        <Form.Control autoComplete="name" {...register('person')} />
      </Field>
      <Field label="E-mail" message={errors.email?.message}>
        <Form.Control type="email" autoComplete="username" {...register('email')} />
      </Field>
      <Field label="Password" message={errors.password?.message} hint="At least 10 characters.">
        <Form.Control type="password" autoComplete="new-password" {...register('password')} />
      </Field>
      <Button type="submit" disabled={busy}>
        Make the club
      </Button>
    </Form>
  );
};

/** The door: enter the demo, sign in, or make the first club. */
export const SignIn = () => {
  const door = useDoor();
  const [message, setMessage] = useState<string | null>(null);
  const enterDemo = async (): Promise<void> => {
    try {
      await api.post('/demo-entry');
      await entered();
    } catch (error) {
      setMessage(sentenceOf(error));
    }
  };
  return (
    <main className="door">
      <div className="door-card panel stack">
        <div>
          <h1 className="door-name">gravek</h1>
          <div className="quiet">Steps, marks, reps and faults, counted for you.</div>
        </div>
        {door.error && <Failed error={door.error} again={() => void door.refetch()} />}
        <WaitingHere />
        {message && (
          <div className="field-message" role="alert">
            {message}
          </div>
        )}
        {door.data?.demo && !door.data.empty && (
          <>
            <Button size="lg" onClick={() => void enterDemo()}>
              Open the demo club
            </Button>
            <div className="quiet small-text">or sign in</div>
          </>
        )}
        {door.data?.empty ? <FirstClubForm /> : door.data && <EnterForm />}
      </div>
    </main>
  );
};
