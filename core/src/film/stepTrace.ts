import { number } from '../check';
import type { Foot } from '../feet';
import type { GroundPoint } from './planeMap';

/** A foot on the ground: where, from when, and until when if that was seen. */
export type SeenContact = GroundPoint & { foot: Foot; onS: number; offS: number | null };

export type TracedStep = {
  /** from 1; it ends at contact n, counted from 0 */
  n: number;
  /** that lands */
  foot: Foot;
  lengthM: number;
  intervalS: number;
  cadenceSpm: number;
  speedMps: number;
  /** of the foot that lands; null where its toe-off was not seen */
  contactS: number | null;
  /** from the toe-off before; null where that was not seen; negative while both feet are down */
  flightS: number | null;
};

/**
 * Steps from contacts: each goes from one contact to the next.
 *
 * @param contacts two or more, in the order of time; metres and seconds
 * @throws {RangeError} naming the contact that comes before the one before it, or ends before it begins
 * @example
 * const contacts = [
 *   { foot: 'left', onS: 0, offS: 0.13, alongM: 0, acrossM: -0.08 },
 *   { foot: 'right', onS: 0.26, offS: 0.39, alongM: 1.24, acrossM: 0.1 },
 * ];
 * stepTrace({ contacts }).steps[0].lengthM // 1.25
 */
export const stepTrace = ({
  contacts,
}: {
  contacts: readonly SeenContact[];
}): { steps: TracedStep[] } => {
  if (contacts.length < 2) throw new RangeError('contacts must be two or more');
  contacts.forEach(({ onS, offS, alongM, acrossM }, i) => {
    number(`contacts[${i}].alongM`, alongM);
    number(`contacts[${i}].acrossM`, acrossM);
    number(`contacts[${i}].onS`, onS, i > 0 ? { above: contacts[i - 1]!.onS } : {});
    if (offS !== null) number(`contacts[${i}].offS`, offS, { above: onS });
  });
  return {
    steps: contacts.slice(1).map((contact, i) => {
      const before = contacts[i]!;
      const lengthM = Math.hypot(contact.alongM - before.alongM, contact.acrossM - before.acrossM);
      const intervalS = contact.onS - before.onS;
      return {
        n: i + 1,
        foot: contact.foot,
        lengthM,
        intervalS,
        cadenceSpm: 60 / intervalS,
        speedMps: lengthM / intervalS,
        contactS: contact.offS === null ? null : contact.offS - contact.onS,
        flightS: before.offS === null ? null : contact.onS - before.offS,
      };
    }),
  };
};
