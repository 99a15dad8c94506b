import type { Movement } from '@gravek/contract/movement';
import type { RunBundle, RunPlan } from '@gravek/contract/run';
import { movementOf } from '@gravek/library/movement/movements';
import { withFaultPhases } from '@gravek/library/movement/olderMovement';
import { asDrillSet, type OlderDrillSet } from '@gravek/library/session/sessionFit';
import { plainChoices } from '@gravek/library/session/work';
import type { Transaction } from 'dexie';

/** Brings sessions that an older version kept up to this one; loaded only where there are any. */
/** What a session kept by versions before 6 held: one plan an approach and pace, no bodies. */
type PlanBefore = {
  id: string;
  pace?: number;
  name: string;
  movement: string;
  part: string | null;
  speedPct?: number;
  schools?: Record<string, string>;
  cautions?: string[];
  outlines: RunPlan['outlines'];
};
type BundleOf5 = Omit<RunBundle, 'plans' | 'session'> & {
  plans: PlanBefore[];
  session: Omit<RunBundle['session'], 'drillSets'> & { drillSets: OlderDrillSet[] };
};

/** The work of a drill set from what was kept of it; the exits that it asked are not known any more. */
const planOf = (
  set: OlderDrillSet,
  plans: readonly PlanBefore[],
  clubMovements: readonly Movement[],
): RunPlan => {
  const pace = set.pace ?? 1;
  const kept = plans.find((plan) => plan.id === set.approachId && (plan.pace ?? 1) === pace);
  let choices: RunPlan['choices'] = null;
  try {
    const movement = movementOf(kept?.movement ?? '', clubMovements);
    const speedFraction = Math.max(0.2, (kept?.speedPct ?? 100) / 100 / pace);
    choices = { ...plainChoices(movement, kept?.part ?? null), speedFraction };
    choices.schools = kept?.schools ?? {};
  } catch {
    // A movement of the club that was put away: without network there is nothing to solve it by.
  }
  return {
    drillSetId: set.id,
    name: kept?.name ?? 'Drill set',
    movement: choices && kept ? kept.movement : null,
    choices,
    cautions: kept?.cautions ?? [],
    outlines: kept?.outlines ?? [],
  };
};

export const fillBundles = async (trx: Transaction): Promise<void> => {
  const kept = await trx
    .table<{ sessionId: string; bundle: BundleOf5; openedMs: number }>('bundles')
    .toArray();
  for (const stored of kept) {
    const { session, plans, athletes, movements } = stored.bundle;
    const bundle: RunBundle = {
      ...stored.bundle,
      lanes: 1,
      latecomers: [],
      missed: [],
      // Fetched anew as soon as the server is heard.
      stamp: '',
      session: { ...session, drillSets: session.drillSets.map(asDrillSet) },
      plans: session.drillSets.map((set) => planOf(set, plans, movements)),
      athletes: athletes.map((athlete) => ({ ...athlete, body: athlete.body ?? null })),
    };
    await trx.table('bundles').put({ ...stored, bundle });
  }
};

/** Kept sessions from before sets had spots and ways of teaching, and began at what was missed. */
export const fillAxes = async (trx: Transaction): Promise<void> => {
  const kept = await trx
    .table<{ sessionId: string; bundle: Partial<RunBundle> & Pick<RunBundle, 'session'> }>(
      'bundles',
    )
    .toArray();
  for (const { bundle, ...opened } of kept) {
    const drillSets = bundle.session.drillSets.map(asDrillSet);
    await trx.table('bundles').put({
      ...opened,
      bundle: { missed: [], ...bundle, session: { ...bundle.session, drillSets } },
    });
  }
};

/** The club's own movements in kept sessions, from before a fault named all its phases. */
export const fillFaults = async (trx: Transaction): Promise<void> => {
  const kept = await trx
    .table<{ sessionId: string; bundle: RunBundle; openedMs: number }>('bundles')
    .toArray();
  for (const { bundle, ...opened } of kept) {
    const movements = bundle.movements.map((movement) => withFaultPhases(movement));
    await trx.table('bundles').put({ ...opened, bundle: { ...bundle, movements } });
  }
};
