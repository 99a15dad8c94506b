import type { PasswordByLink } from '@gravek/contract/account';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, onPress } from '../api/client';
import { queryClient } from '../api/door';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { useSentForm } from '../controls/sentForm';

/** Where a one-time link leads: a new password, without the old one. */
export const NewPassword = () => {
  // After the #, so that it goes to no server and no log before it is used.
  const [token] = useState(() => window.location.hash.slice(1));
  const [done, setDone] = useState(false);
  const { register, errors, busy, over, onSubmit } = useSentForm<PasswordByLink>(
    async (values) =>
      (await onPress(() => import('./doorChecks'))).doorChecks.passwordByLink(values),
    { defaultValues: { token, password: '' } },
    async (values) => {
      await api.post('/new-password', values);
      window.history.replaceState(null, '', window.location.pathname);
      await queryClient.resetQueries();
      setDone(true);
    },
  );
  return (
    <main className="door">
      <div className="door-card panel stack">
        <div>
          <h1 className="door-name">gravek</h1>
          <div className="quiet">A new password</div>
        </div>
        {done ? (
          <>
            <p className="mb-0">
              It holds from now on. Every device that was signed in has to sign in anew.
            </p>
            <a className="btn btn-primary" href="/">
              Sign in
            </a>
          </>
        ) : (
          <Form noValidate className="stack" onSubmit={onSubmit}>
            <Conflict problem={over ?? errors.token?.message ?? null} />
            <Field
              label="New password"
              message={errors.password?.message}
              hint="At least 10 characters; a few words of your own are best."
            >
              <Form.Control type="password" autoComplete="new-password" {...register('password')} />
            </Field>
            <Button type="submit" disabled={busy}>
              Keep it
            </Button>
          </Form>
        )}
      </div>
    </main>
  );
};
