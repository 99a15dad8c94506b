import type { Side } from '../session/repLog';
import type { ArcAsk } from './ground';
import type { GroundLine } from './lines';
import type { Part } from './part';
import type { BarAsk } from './runUp';
import type { RunAsk } from './straightRun';

export type LayoutChoices = {
  /** other: the whole sequence seen in a mirror, feet swapped */
  side?: Side | undefined;
  /** phase code → code of the option taken */
  reads?: Readonly<Record<string, string>> | undefined;
  /** 0.2–1.1 of full speed, 1 when absent */
  speedFraction?: number | undefined;
  /** phase code → how much of that speed this phase is run at; 1 where none is named */
  speeds?: Readonly<Record<string, number>> | undefined;
  part?: Part | undefined;
  /** what is asked of a run-up with a target: steps, start mark, ending … */
  run?: RunAsk | undefined;
  /** what is asked of a curved run-up: take-off spot, angle, steps, apron … */
  bar?: BarAsk | undefined;
  /** what is asked of a keeper's arc: goal, depth, lanes */
  arc?: ArcAsk | undefined;
  /** lines that are on the ground already */
  lines?: readonly GroundLine[] | undefined;
};
