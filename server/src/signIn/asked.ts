import { check } from '@gravek/contract/problem';
import express, { type Request } from 'express';
import type { AnyObjectSchema, InferType } from 'yup';
import { badInput } from '../http/problem';

/** Nobody who is not known gets more than this read. */
export const smallBody = express.json({ limit: '10kb' });

/** @throws {ProblemError} 422 with what is wrong, by field */
export const asked = <S extends AnyObjectSchema>(schema: S, req: Request): InferType<S> => {
  const checked = check(schema, req.body);
  if (!checked.ok) throw badInput(checked.fields);
  return checked.value;
};
