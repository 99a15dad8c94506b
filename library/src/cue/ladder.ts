import { ladderStep } from '@gravek/core/cue/ladder';
import { groupBy } from '@gravek/core/session/repLog';
import type { LadderStand } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import type { Rung } from '@gravek/contract/rungs';
import { RUNGS } from '@gravek/contract/rungs';
import type { Needs } from '@gravek/contract/run';

const SESSIONS = 2;

/** The rung before or behind another; contact comes only where the movement has it. */
const rungBeside = (movement: Movement, rung: Rung, step: 1 | -1): Rung | null => {
  const all = RUNGS.filter(
    (rung) => movement.loads.includes('contact') || !['object', 'opponent'].includes(rung),
  );
  return all[all.indexOf(rung) + step] ?? null;
};

/** Reps that a coach's choice leaves to go by: those since, and of its own day those on its rung. */
const since = (
  rows: Needs['rungs'],
  choice: Needs['rungChoices'][number] | undefined,
): Needs['rungs'] =>
  !choice || choice.rung === null
    ? rows
    : rows.filter(
        ({ date, rung }) => date > choice.day || (date === choice.day && rung === choice.rung),
      );

/**
 * Where everybody stands on the ladders they have been on: by the rule, from the rung that a coach has
 * chosen last, if one did.
 */
export const laddersOf = (
  { rungs, rungChoices }: Pick<Needs, 'rungs' | 'rungChoices'>,
  movementOf: (code: string) => Movement | undefined,
): LadderStand[] => {
  const key = (pair: { athleteId: string; movement: string }): string =>
    `${pair.athleteId}/${pair.movement}`;
  const rows = groupBy(rungs, key);
  const choices = new Map(rungChoices.map((choice) => [key(choice), choice]));
  const ladders = new Set([...rows.keys(), ...choices.keys()]);
  return [...ladders].flatMap((at): LadderStand[] => {
    const choice = choices.get(at);
    const rungRows = since(rows.get(at) ?? [], choice);
    const { athleteId, movement: code } = choice ?? rungRows[0] ?? rows.get(at)![0]!;
    const movement = movementOf(code);
    const stands =
      ladderStep(rungRows) ?? (choice?.rung ? { rung: choice.rung, step: 'stay' as const } : null);
    if (!movement || !stands) return [];
    const rung = stands.rung as Rung;
    const sessions = [
      ...groupBy(
        rungRows.filter((row) => row.rung === rung),
        (row) => row.sessionId,
      ).values(),
    ].slice(-SESSIONS);
    const sum = (of: (row: Needs['rungs'][number]) => number): number =>
      sessions.flat().reduce((all, row) => all + of(row), 0);
    const beside =
      stands.step === 'stay' ? null : rungBeside(movement, rung, stands.step === 'up' ? 1 : -1);
    return [
      {
        athleteId,
        movement: code,
        rung,
        step: beside === null ? 'stay' : stands.step,
        next: beside ?? rung,
        reps: sum((row) => row.reps),
        clean: sum((row) => row.clean),
        choice: choice?.rung ? choice : null,
      },
    ];
  });
};
