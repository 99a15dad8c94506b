import { firstClub, signIn, type FirstClub, type SignIn as SignInForm } from '@gravek/contract';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { api, sentenceOf } from '../api/client';
import { queryClient, useDoor } from '../api/queries';
import { Field } from '../controls/Field';
import { checkedBy, showProblem } from '../controls/form';
import { Failed } from '../controls/Notice';

const entered = () => queryClient.resetQueries();

const EnterForm = () => {
  const { register, handleSubmit, setError, formState } = useForm<SignInForm>({
    resolver: checkedBy<SignInForm>(signIn),
    defaultValues: { email: '', password: '' },
  });
  const { errors, isSubmitting } = formState;
  return (
    <Form
      noValidate
      className="stack"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          try {
            await api.post('/sign-in', values);
            await entered();
          } catch (error) {
            showProblem(error, setError);
          }
        })(event)
      }
    >
      {errors.root && (
        <div className="field-message" role="alert">
          {errors.root.message}
        </div>
      )}
      <Field label="E-mail" message={errors.email?.message}>
        <Form.Control type="email" autoComplete="username" {...register('email')} />
      </Field>
      <Field label="Password" message={errors.password?.message}>
        <Form.Control type="password" autoComplete="current-password" {...register('password')} />
      </Field>
      <Button type="submit" disabled={isSubmitting}>
        Sign in
      </Button>
    </Form>
  );
};

const FirstClubForm = () => {
  const { register, handleSubmit, setError, formState } = useForm<FirstClub>({
    resolver: checkedBy<FirstClub>(firstClub),
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
  });
  const { errors, isSubmitting } = formState;
  const messageAt = (path: string): string | undefined =>
    (errors as Record<string, { message?: string }>)[path]?.message;
  return (
    <Form
      noValidate
      className="stack"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          try {
            await api.post('/first-club', values);
            await entered();
          } catch (error) {
            showProblem(error, setError);
          }
        })(event)
      }
    >
      <p className="mb-0">There is no club here yet. Make the first one; you will be its owner.</p>
      {errors.root && (
        <div className="field-message" role="alert">
          {errors.root.message}
        </div>
      )}
      <Field label="Club" message={messageAt('club.name') ?? errors.club?.name?.message}>
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
      <Button type="submit" disabled={isSubmitting}>
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
