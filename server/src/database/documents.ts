import type { RepCounts } from '@gravek/core/cue/cueEffect';
import type { Reading } from '@gravek/core/measuring/measures';
import type { MeasuredStep } from '@gravek/core/runup/stepModel';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { GroundInput } from '@gravek/contract/ground';
import type { ReviewInput } from '@gravek/contract/watched';

/**
 * What JSON columns hold beside the types that pages know. `columnTypes.json` says which column holds which;
 * `npm run tables` writes the types of all tables from it and from the database.
 */
export type MeasurementDocument = { steps: MeasuredStep[] } | Reading;
export type SetDocument = Omit<DrillSet, 'id' | 'athleteIds'>;
export type ReviewDocument = Omit<ReviewInput, 'id' | 'athleteId' | 'approachId' | 'takenOn'>;
export type GroundDocument = Omit<GroundInput, 'id'>;
/** The reps before a cue was told and those since. */
export type CueResult = { fault: string; before: RepCounts; since: RepCounts };
