import { type InferType, object } from 'yup';
import { choiceOr, code, id, movementCode, note } from './fields';
import { type Rung, RUNGS } from './rungs';

/** A coach's own choice of a cue; a fault of null hands it back to the club's school. */
export const cueChoiceInput = object({
  id: id(),
  movement: movementCode().required('The movement is missing.'),
  fault: code('The fault').nullable().default(null),
  drill: code('The drill').nullable().default(null),
  reason: note(200, 'the reason').when('fault', ([fault], schema) =>
    fault === null
      ? schema
      : schema.required('Say why this cue and no other; a few words will do.'),
  ),
});
export type CueChoiceInput = InferType<typeof cueChoiceInput>;

/** A coach's own choice of a rung; null hands it back to the rule. */
export const rungChoiceInput = object({
  id: id(),
  movement: movementCode().required('The movement is missing.'),
  rung: choiceOr('a rung', RUNGS, null),
  reason: note(200, 'the reason').when('rung', ([rung], schema) =>
    rung === null ? schema : schema.required('Say why this rung; a few words will do.'),
  ),
});
export type RungChoiceInput = InferType<typeof rungChoiceInput>;

/** A coach's word that somebody is at a drill of a progression now, whatever the reps say. */
export const drillChoiceInput = object({
  id: id(),
  movement: movementCode().required('The movement is missing.'),
  drill: code('The drill').required('Choose a drill.'),
});
export type DrillChoiceInput = InferType<typeof drillChoiceInput>;

/** The last word of a coach on where an athlete is in a movement's progression. */
export type DrillChoice = { athleteId: string; drill: string; day: string; person: string };

export type RungChoice = {
  athleteId: string;
  movement: string;
  rung: Rung | null;
  reason: string;
  /** who chose, and when */
  person: string;
  day: string;
};

export type CueChoice = {
  fault: string | null;
  drill: string | null;
  reason: string;
  /** who chose */
  person: string;
  day: string;
  /** moment, ISO 8601 */
  at: string;
  /** when the cue before had been given last, as far as was known; null where there was none */
  toldAt: string | null;
};
