import type { Body, BodyMeasure } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { Solved } from '@gravek/contract/plan';
import type { Player } from '../../hearing/player';
import type { PlanDraft } from './draft';

/** What every part of a plan's page is given. */
export type PlanParts = {
  draft: PlanDraft;
  /** in the words that hold for the athlete */
  movement: Movement;
  athlete: Athlete;
  /** all of the club */
  athletes: readonly Athlete[];
  body: Body & { estimated: BodyMeasure[] };
  /** null while a field holds what cannot be solved */
  solved: Solved | null;
  player: Player;
  style: LengthStyle;
  zoom: number;
  disabled: boolean;
  messages: Readonly<Record<string, string>>;
  /** @param what changes of the same thing in quick succession are undone as one */
  onDraft: (next: PlanDraft, what?: string) => void;
  onMessage: (field: string, message: string | null) => void;
  /** absent when the plan cannot be put away */
  onLeave: (() => void) | undefined;
};

/** What a part is given that changes choices of its own kind. */
export type ChoiceParts<C extends Choices> = PlanParts & {
  choices: C;
  onChoices: (next: C, what: string) => void;
};
