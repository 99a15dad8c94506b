import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { ApiProblem } from '../api/client';
import { Field } from '../controls/Field';

/** Whether signing in takes a code besides the password, as the server's answer says. */
export const useCodeAsked = () => {
  const [asked, setAsked] = useState(false);
  return {
    asked,
    hear: async <T,>(answer: Promise<T>): Promise<T> => {
      try {
        return await answer;
      } catch (error) {
        if (error instanceof ApiProblem && error.problem.secondStep) setAsked(true);
        throw error;
      }
    },
  };
};

export const CodeField = ({
  message,
  control,
}: {
  message: string | undefined;
  control: UseFormRegisterReturn;
}) => (
  <Field label="Code" message={message} hint="From your phone, or one of your recovery codes.">
    <Form.Control autoComplete="one-time-code" autoFocus {...control} />
  </Field>
);
