import type { Movement } from './movement';
import { firstBeyond } from './bounds';
import { phaseSteps } from './phaseSchema';

/** Codes by which each of some things leads to others, and the first way round that leads back. */
const circleIn = (next: ReadonlyMap<string, readonly string[]>): string[] | null => {
  const done = new Set<string>();
  const walk = (at: string, way: string[]): string[] | null => {
    if (way.includes(at)) return [...way.slice(way.indexOf(at)), at];
    if (done.has(at)) return null;
    for (const to of next.get(at) ?? []) {
      const circle = walk(to, [...way, at]);
      if (circle) return circle;
    }
    done.add(at);
    return null;
  };
  for (const start of next.keys()) {
    const circle = walk(start, []);
    if (circle) return circle;
  }
  return null;
};

const fits = (steps: object): boolean =>
  firstBeyond(phaseSteps, steps) === null && phaseSteps.isValidSync(steps);

type Otherwise = Pick<
  Movement['schools'][number]['options'][number],
  'changes' | 'turns' | 'checkpoints'
>;

const exitsOf = (phases: Movement['phases'], i: number): string[] => {
  const phase = phases[i]!;
  if (phase.read) return phase.read.options.map((option) => option.to);
  if (phase.then !== null) return phase.then === 'end' ? [] : [phase.then];
  return phases[i + 1] ? [phases[i + 1]!.code] : [];
};

/**
 * What does not hang together in a movement, though each piece is well-formed: path → sentence.
 */
export const looseEnds = (movement: Movement): Record<string, string> => {
  const found: Record<string, string> = {};
  const say = (path: string, text: string): void => {
    found[path] ??= text;
  };
  const { phases, faults, drills, schools } = movement;
  const phaseCodes = new Set(phases.map((phase) => phase.code));
  const faultCodes = new Set(faults.map((fault) => fault.code));
  const drillCodes = new Set(drills.map((drill) => drill.code));
  const nameOf = (which: readonly { code: string; name: string }[], at: string): string =>
    which.find((item) => item.code === at)?.name ?? at;
  for (const [path, list] of [
    ['phases', phases],
    ['faults', faults],
    ['drills', drills],
    ['schools', schools],
  ] as const) {
    list.forEach((phase, i) => {
      if (list.findIndex((it) => it.code === phase.code) !== i) {
        say(`${path}[${i}].code`, `Two ${path} have the code ${phase.code}.`);
      }
    });
  }

  phases.forEach((phase, i) => {
    if (phase.code === 'end') {
      say(`phases[${i}].code`, '“end” says that a movement is over; take another code.');
    }
    if (phase.then !== null && phase.then !== 'end' && !phaseCodes.has(phase.then)) {
      say(`phases[${i}].then`, `There is no phase ${phase.then} to go on with.`);
    }
    if (phase.read && phase.read.options.length < 2) {
      say(
        `phases[${i}].read`,
        phase.read.options.length === 0
          ? 'A read without exits leads nowhere: give it two at least, or take the read out.'
          : 'A read with one exit is no read: give it another, or take the read out.',
      );
    }
    phase.read?.options.forEach((option, o) => {
      if (!phaseCodes.has(option.to)) {
        say(`phases[${i}].read.options[${o}].to`, 'This exit leads to a phase that is not there.');
      }
    });
  });
  const next = new Map(phases.map((phase, i) => [phase.code, exitsOf(phases, i)]));
  const round = circleIn(next);
  if (round) {
    // Told where the circle closes, at the field that leads back.
    const at = phases.findIndex((phase) => phase.code === round.at(-2));
    say(
      `phases[${at}].${phases[at]!.read ? 'read' : 'then'}`,
      `The way never ends: ${round.map((code) => nameOf(phases, code)).join(' → ')}.`,
    );
  }
  const reached = new Set<string>();
  const reach = (at: string): void => {
    if (reached.has(at)) return;
    reached.add(at);
    for (const to of next.get(at) ?? []) reach(to);
  };
  if (phases[0]) reach(phases[0].code);
  phases.forEach((phase, i) => {
    if (!reached.has(phase.code)) {
      say(
        `phases[${i}].name`,
        `${phase.name} is never reached: no phase or exit leads to it. Move it, or lead an exit to it.`,
      );
    }
  });

  faults.forEach((fault, i) => {
    const lost = fault.phases.find((code) => !phaseCodes.has(code));
    if (lost) say(`faults[${i}].phases`, `There is no phase ${lost} in which it could show.`);
    const unread = phases.find(({ code, read }) => fault.phases.includes(code) && !read);
    if (fault.read && unread) {
      say(`faults[${i}].phases`, `${unread.name} has no read that could be answered wrongly.`);
    }
    const gone = fault.leadsTo.find((to) => !faultCodes.has(to));
    if (gone) say(`faults[${i}].leadsTo`, `There is no fault ${gone} that it could lead to.`);
    const missing = fault.drills.find((drill) => !drillCodes.has(drill));
    if (missing) say(`faults[${i}].drills`, `There is no drill ${missing}.`);
  });
  const causes = circleIn(new Map(faults.map((fault) => [fault.code, fault.leadsTo])));
  if (causes) {
    const at = faults.findIndex((fault) => fault.code === causes[0]);
    say(
      `faults[${at}].leadsTo`,
      `These faults cause each other in a circle: ${causes.map((cause) => nameOf(faults, cause)).join(' → ')}. Take one link out.`,
    );
  }

  drills.forEach((drill, i) => {
    if (drill.part.kind === 'phases') {
      for (const end of ['from', 'to'] as const) {
        if (!phaseCodes.has(drill.part[end])) {
          say(`drills[${i}].part.${end}`, 'Choose one of the movement’s phases.');
        }
      }
    }
    const exits = phases.flatMap((phase) => phase.read?.options.map((option) => option.code) ?? []);
    if (drill.force !== null && !exits.includes(drill.force)) {
      say(`drills[${i}].force`, `No read has an exit ${drill.force}.`);
    }
  });

  const setOut = (path: string, others: Movement['others']): void =>
    others.forEach((other, i) => {
      if (other.from !== 'start' && other.from !== 'end' && !phaseCodes.has(other.from)) {
        say(`${path}[${i}].from`, `There is no phase ${other.from} to set it out from.`);
      } else if (other.only && !phaseCodes.has(other.only)) {
        say(`${path}[${i}].only`, `There is no phase ${other.only} with which it is there.`);
      } else if (other.comes && (other.from === 'start' || other.wideM > 0)) {
        say(`${path}[${i}].comes`, 'Only a single thing can come, and only to a phase or the end.');
      }
    });
  setOut('others', movement.others);
  const { place } = movement;
  const isMoment = (at: string, codesThere: ReadonlySet<string>): boolean =>
    at === 'start' || at === 'end' || codesThere.has(at);
  if (place && !isMoment(place.at, phaseCodes)) {
    say('place.at', `There is no phase ${place.at} to be at the spot.`);
  }
  place?.swaps?.forEach(({ a, b }, i) => {
    const gone = [a, b].find((code) => !phaseCodes.has(code));
    if (gone) say(`place.swaps[${i}]`, `There is no phase ${gone} to change over.`);
  });
  drills.forEach(({ placeAt, phases: drillPhases }, i) => {
    if (placeAt && !isMoment(placeAt, new Set(drillPhases?.map(({ code }) => code)))) {
      say(`drills[${i}].placeAt`, `There is no phase ${placeAt} to be at the spot.`);
    }
  });
  const setting = (path: string, code: string, set: object): void => {
    const at = phases.find((drillPhase) => drillPhase.code === code);
    if (!at) say(`${path}.phase`, `There is no phase ${code} to change.`);
    else if (!fits({ ...at.steps, ...set })) {
      say(`${path}.set`, `${at.name} cannot be changed like that.`);
    }
  };
  /** What a way of teaching and the other side of a place may have otherwise. */
  const otherwise = (path: string, way: Otherwise): void => {
    way.changes?.forEach((change, c) => setting(`${path}.changes[${c}]`, change.phase, change.set));
    const unturned = way.turns?.find((turning) => !phaseCodes.has(turning.phase));
    if (unturned) say(`${path}.turns`, `There is no phase ${unturned.phase} to turn before.`);
    const nowhere = way.checkpoints?.find((checkpoint) => !phaseCodes.has(checkpoint.phase));
    if (nowhere) say(`${path}.checkpoints`, `There is no phase ${nowhere.phase} to look at.`);
  };
  if (place?.otherSide) {
    otherwise('place.otherSide', place.otherSide);
    const ways = schools.flatMap(({ code, options }) =>
      options.map((option) => `${code}:${option.code}`),
    );
    place.otherSide.changes.forEach(({ taughtBy: way }, c) => {
      if (way && !ways.includes(way))
        say(`place.otherSide.changes[${c}].taughtBy`, `There is no way of teaching ${way}.`);
    });
    setOut('place.otherSide.others', place.otherSide.others);
  }
  movement.small?.changes.forEach((change, c) => {
    setting(`small.changes[${c}]`, change.phase, change.set);
  });
  drills.forEach((drill, i) => {
    const gone = Object.keys(drill.speeds ?? {}).find((code) => !phaseCodes.has(code));
    if (gone) say(`drills[${i}].speeds`, `There is no phase ${gone} with a speed of its own.`);
  });

  schools.forEach((school, i) => {
    school.options.forEach((option, o) => {
      const path = `schools[${i}].options[${o}]`;
      const gone = option.skips.find((skip) => !phaseCodes.has(skip));
      if (gone) say(`${path}.skips`, `There is no phase ${gone} to skip.`);
      otherwise(path, option);
      const unknown = [
        ...(option.without ?? []),
        ...(option.faults ?? []).map((faultChange) => faultChange.code),
      ].find((code) => !faultCodes.has(code));
      if (unknown) say(`${path}.faults`, `There is no fault ${unknown}.`);
      const unheld = option.postures?.find((posture) => !phaseCodes.has(posture.phase));
      if (unheld) say(`${path}.postures`, `There is no phase ${unheld.phase} to hold otherwise.`);
    });
  });
  return found;
};
