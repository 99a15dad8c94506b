import { array, boolean, number, object, string, type InferType } from 'yup';

const word = () => string().strict().required();

const fault = object({
  code: word(),
  name: word(),
  /** what is seen */
  sees: word(),
  phase: word(),
  /** 1 small – 3 grave */
  severity: number().strict().oneOf([1, 2, 3]).required(),
  safety: boolean().strict().required(),
  leadsTo: array(word()).required(),
  cue: word(),
  drill: word(),
});

/** A movement of the library: what a coach looks at, phase by phase. */
export const movementSchema = object({
  code: word(),
  name: word(),
  usedBy: array(word()).required().min(1),
  /** what it asks of the body; restrictions bar it by these */
  loads: array(
    string()
      .strict()
      .oneOf(['jump', 'sprint', 'contact'] as const)
      .required(),
  ).required(),
  phases: array(
    object({ code: word(), name: word(), right: array(word()).required().min(1) }).required(),
  )
    .required()
    .min(1),
  faults: array(fault.required()).required().min(1),
  cautions: array(word()).required(),
});

export type Movement = InferType<typeof movementSchema>;
export type Fault = Movement['faults'][number];
export type Load = Movement['loads'][number];

export const faultOf = (movement: Movement, code: string): Fault | undefined =>
  movement.faults.find((fault) => fault.code === code);
