import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  fitPlane,
  groundAt,
  pictureAt,
  planeMap,
  type GroundPoint,
  type MarkPair,
  type PicturePoint,
} from '../src/film/planeMap';
import { podReading } from '../src/measuring/podReading';
import { stepTrace } from '../src/film/stepTrace';
import { watchedPose } from '../src/film/watchedPose';
import { watchedSteps, type FilmContact } from '../src/film/watchedSteps';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

type Space = GroundPoint & { upM: number };
type Camera = { alongM: number; acrossM: number; upM: number; toM: number; focalPx: number };

/** A level camera beside the run that looks at it from wherever it stands. */
const cameras: fc.Arbitrary<Camera> = fc.record({
  alongM: between(-4, 12),
  acrossM: between(5, 14),
  upM: between(1.2, 4),
  toM: between(1, 7),
  focalPx: between(700, 1600),
});

/** Where a place is seen: the pinhole itself, not the map under test. */
const seenBy =
  (camera: Camera) =>
  ({ alongM, acrossM, upM }: Space): PicturePoint => {
    const ahead = [camera.toM - camera.alongM, -camera.acrossM] as const;
    const far = Math.hypot(...ahead);
    const [fx, fy] = [ahead[0] / far, ahead[1] / far];
    const [dx, dy] = [alongM - camera.alongM, acrossM - camera.acrossM];
    const depth = dx * fx + dy * fy;
    const right = dx * -fy + dy * fx;
    return {
      x: 640 + (camera.focalPx * right) / depth,
      y: 360 + (camera.focalPx * (camera.upM - upM)) / depth,
    };
  };
const onGround = (camera: Camera, place: GroundPoint): PicturePoint =>
  seenBy(camera)({ ...place, upM: 0 });

const LANE: GroundPoint[] = [0, 3, 6, 8].flatMap((alongM) =>
  [0.61, -0.61].map((acrossM) => ({ alongM, acrossM })),
);
const marksOf = (camera: Camera): MarkPair[] =>
  LANE.map((ground) => ({ px: onGround(camera, ground), ground }));

describe('a picture read as ground', () => {
  it('puts every place where it is, from any camera, and back', () => {
    fc.assert(
      fc.property(cameras, between(0, 8), between(-0.6, 0.6), (camera, alongM, acrossM) => {
        const fit = fitPlane(marksOf(camera));
        expect(fit.rmsM).toBeLessThan(1e-6);
        const px = onGround(camera, { alongM, acrossM });
        const found = groundAt(fit, px);
        expect(found.alongM).toBeCloseTo(alongM, 5);
        expect(found.acrossM).toBeCloseTo(acrossM, 5);
        const back = pictureAt(fit, found)!;
        expect(back.x).toBeCloseTo(px.x, 4);
        expect(back.y).toBeCloseTo(px.y, 4);
      }),
    );
  });

  it('fits marks that do not quite agree so that no small change of it fits them better', () => {
    const camera = { alongM: 2, acrossM: 9, upM: 2.4, toM: 4, focalPx: 1100 };
    const pairs = marksOf(camera).map(({ px, ground }, i) => ({
      ground,
      px: { x: px.x + (i % 3) - 1, y: px.y + ((i * 7) % 5) / 2 - 1 },
    }));
    const fit = fitPlane(pairs);
    const squares = (rows: readonly number[]): number =>
      pairs.reduce((sum, { px, ground }) => {
        const { alongM, acrossM } = groundAt({ rows, rmsM: 0 }, px);
        return sum + (alongM - ground.alongM) ** 2 + (acrossM - ground.acrossM) ** 2;
      }, 0);
    const best = squares(fit.rows);
    expect(Math.sqrt(best / pairs.length)).toBeCloseTo(fit.rmsM, 9);
    expect(fit.rmsM).toBeGreaterThan(0.001);
    fit.rows.forEach((value, i) => {
      for (const by of [1e-5, -1e-5])
        expect(squares(fit.rows.with(i, value * (1 + by)))).toBeGreaterThanOrEqual(best - 1e-12);
    });
  });

  it('refuses what spans no ground, and what no camera sees', () => {
    const camera = { alongM: 2, acrossM: 9, upM: 2.4, toM: 4, focalPx: 1100 };
    const pair = (alongM: number, acrossM: number): MarkPair => ({
      ground: { alongM, acrossM },
      px: onGround(camera, { alongM, acrossM }),
    });
    const four = [pair(0, 0.6), pair(6, 0.6), pair(0, -0.6), pair(6, -0.6)];
    expect(() => fitPlane(four.slice(1))).toThrow(RangeError);
    expect(() => fitPlane([pair(0, 0.6), pair(3, 0.6), pair(6, 0.6), pair(6, -0.6)])).toThrow(
      'no three lie on a line',
    );
    // Three on a line do no harm beside four that span an area.
    expect(fitPlane([...four, pair(3, 0.6)]).rmsM).toBeLessThan(1e-6);
    const twisted = [
      four[0]!,
      four[1]!,
      { ...four[2]!, px: four[3]!.px },
      { ...four[3]!, px: four[2]!.px },
    ];
    expect(() => fitPlane(twisted)).toThrow('changed over');
    expect(() => planeMap({ pairs: four, points: [{ x: 640, y: 100 }] })).toThrow('horizon');
    expect(() => fitPlane([{ ...four[0]!, px: { x: NaN, y: 0 } }, ...four])).toThrow(
      'pairs[0].px.x',
    );
  });
});

const contactsOf = (camera: Camera, lengths: readonly number[]): FilmContact[] => {
  let alongM = 0;
  return [0, ...lengths].map((lengthM, i) => {
    alongM += lengthM;
    return {
      foot: i % 2 === 0 ? ('left' as const) : ('right' as const),
      at: onGround(camera, { alongM, acrossM: i % 2 === 0 ? -0.09 : 0.09 }),
      on: { atS: 0.25 * i, gapS: 0.02 },
      off: { atS: 0.25 * i + 0.12, gapS: 0.02 },
    };
  });
};

describe('steps on a film', () => {
  it('are as long as they were, and nine times in ten within what they say they may be off', () => {
    const camera = { alongM: 1, acrossM: 9, upM: 2.4, toM: 4, focalPx: 1100 };
    const lengths = [1.3, 1.5, 1.7, 1.8];
    const contacts = contactsOf(camera, lengths);
    const pairs = marksOf(camera);
    const truth = watchedSteps({ view: { kind: 'marks', pairs }, contacts }).steps;
    truth.forEach((step, i) => expect(step.lengthM).toBeCloseTo(Math.hypot(lengths[i]!, 0.18), 6));
    let seed = 7;
    const normal = (): number => {
      const next = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
      return Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
    };
    const pressed = ({ x, y }: PicturePoint): PicturePoint => ({
      x: x + 1.5 * normal(),
      y: y + 1.5 * normal(),
    });
    let within = 0;
    const tries = 150;
    for (let i = 0; i < tries; i += 1) {
      const { steps } = watchedSteps({
        view: { kind: 'marks', pairs: pairs.map((pair) => ({ ...pair, px: pressed(pair.px) })) },
        contacts: contacts.map((contact) => ({ ...contact, at: pressed(contact.at) })),
      });
      steps.forEach((step, k) => {
        if (Math.abs(step.lengthM - truth[k]!.lengthM) < 1.645 * step.lengthSdM) within += 1;
      });
    }
    const share = within / (tries * truth.length);
    expect(share).toBeGreaterThan(0.84);
    expect(share).toBeLessThan(0.96);
  });

  it('say that they hardly know a length where a press lies just under the horizon', () => {
    const camera = { alongM: 1, acrossM: 9, upM: 2.4, toM: 4, focalPx: 1100 };
    const view = { kind: 'marks' as const, pairs: marksOf(camera) };
    const contacts = contactsOf(camera, [1.3, 1.5]);
    const last = contacts.at(-1)!;
    /** whether a press there is one on the ground */
    const lies = (y: number): boolean => {
      try {
        planeMap({ pairs: view.pairs, points: [{ ...last.at, y }] });
        return true;
      } catch {
        return false;
      }
    };
    let [over, under] = [last.at.y - 2000, last.at.y];
    expect(lies(over)).toBe(false);
    while (under - over > 0.2) {
      const y = (over + under) / 2;
      if (lies(y)) under = y;
      else over = y;
    }
    const far = contacts.with(-1, { ...last, at: { ...last.at, y: under } });
    const { steps } = watchedSteps({ view, contacts: far });
    const [near, gone] = steps;
    expect(near!.lengthSdM).toBeLessThan(0.1);
    expect(gone!.lengthSdM).toBeGreaterThan(0.5 * gone!.lengthM);
    expect(Number.isFinite(gone!.lengthSdM)).toBe(true);
  });

  it('say of their times what frames leave open: a slower film more than a faster one', () => {
    const camera = { alongM: 1, acrossM: 9, upM: 2.4, toM: 4, focalPx: 1100 };
    const view = { kind: 'marks' as const, pairs: marksOf(camera) };
    const contacts = contactsOf(camera, [1.3, 1.5]);
    const [step] = watchedSteps({ view, contacts }).steps;
    expect(step!.intervalSdS).toBeCloseTo(0.02 / Math.sqrt(6), 6);
    expect(step!.cadenceSdSpm).toBeCloseTo((240 * step!.intervalSdS) / 0.25, 6);
    expect(step!.flightS).toBeCloseTo(0.13, 6);
    const slower = contacts.map((contact) => ({
      ...contact,
      on: { ...contact.on, gapS: 0.04 },
      off: null,
    }));
    const [other] = watchedSteps({ view, contacts: slower }).steps;
    expect(other!.intervalSdS).toBeCloseTo(2 * step!.intervalSdS, 6);
    expect([other!.contactS, other!.flightS, other!.contactSdS, other!.flightSdS]).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });

  it('are read by one known length from the side, whichever way the athlete goes', () => {
    for (const way of [1, -1]) {
      const at = (m: number): PicturePoint => ({ x: 640 + way * 100 * m, y: 400 });
      const { steps, rmsM } = watchedSteps({
        view: { kind: 'side', from: at(0), to: at(4), lengthM: 4 },
        contacts: [0, 1.4, 3].map((m, i) => ({
          foot: i % 2 === 0 ? 'left' : 'right',
          at: at(m),
          on: { atS: i * 0.24, gapS: 0.02 },
          off: null,
        })),
      });
      expect(rmsM).toBeNull();
      expect(steps.map((step) => step.lengthM)).toEqual([
        expect.closeTo(1.4, 9),
        expect.closeTo(1.6, 9),
      ]);
    }
    const here = { x: 1, y: 1 };
    expect(() =>
      watchedSteps({ view: { kind: 'side', from: here, to: here, lengthM: 4 }, contacts: [] }),
    ).toThrow('view.to');
  });

  it('refuse contacts out of order, by name', () => {
    const contact = (onS: number, offS: number | null = null) => ({
      foot: 'left' as const,
      ...{ alongM: 0, acrossM: 0, onS, offS },
    });
    expect(() => stepTrace({ contacts: [contact(0)] })).toThrow('contacts must be two or more');
    expect(() => stepTrace({ contacts: [contact(1), contact(1)] })).toThrow('contacts[1].onS');
    expect(() => stepTrace({ contacts: [contact(1, 0.9), contact(2)] })).toThrow(
      'contacts[0].offS',
    );
  });
});

describe('a body on a film', () => {
  it('has its angles and its foot where they are, also when the camera stands off the side', () => {
    const body: Record<'shoulder' | 'hip' | 'knee' | 'ankle' | 'toe', Space> = {
      shoulder: { alongM: 4.2, acrossM: 0, upM: 1.35 },
      hip: { alongM: 4, acrossM: 0, upM: 0.93 },
      knee: { alongM: 4.25, acrossM: 0, upM: 0.55 },
      ankle: { alongM: 4.1, acrossM: 0, upM: 0.12 },
      toe: { alongM: 4.28, acrossM: 0, upM: 0 },
    };
    fc.assert(
      fc.property(between(1, 7), between(7, 13), (alongM, acrossM) => {
        const camera = { alongM, acrossM, upM: 1.2, toM: 4, focalPx: 1200 };
        const joints = Object.fromEntries(
          Object.entries(body).map(([name, place]) => [name, seenBy(camera)(place)]),
        ) as Record<keyof typeof body, PicturePoint>;
        const pose = watchedPose({
          view: { kind: 'marks', pairs: marksOf(camera) },
          joints,
          travel: 'right',
        });
        expect(pose.offSideDeg!).toBeCloseTo(
          Math.abs((Math.atan2(4.28 - alongM, acrossM) * 180) / Math.PI),
          0,
        );
        expect(Math.abs(pose.footToHipM - 0.1)).toBeLessThan(0.04);
        expect(Math.abs(pose.trunkLeanDeg - 25.46)).toBeLessThan(4);
        expect(Math.abs(pose.kneeDeg - 127.43)).toBeLessThan(6);
      }),
    );
  });
});

describe('podReading', () => {
  it('reads back whatever a pod can say', () => {
    fc.assert(
      fc.property(
        fc.record({
          speed: fc.integer({ min: 0, max: 65_535 }),
          cadence: fc.integer({ min: 0, max: 255 }),
          stride: fc.option(fc.integer({ min: 0, max: 65_535 })),
          distance: fc.option(fc.integer({ min: 0, max: 2 ** 32 - 1 })),
          running: fc.boolean(),
        }),
        ({ speed, cadence, stride, distance, running }) => {
          const view = new DataView(new ArrayBuffer(10));
          let at = 0;
          view.setUint8(
            at,
            (stride === null ? 0 : 1) | (distance === null ? 0 : 2) | (running ? 4 : 0),
          );
          view.setUint16((at += 1), speed, true);
          view.setUint8((at += 2), cadence);
          at += 1;
          if (stride !== null) view.setUint16(at, stride, true);
          if (stride !== null) at += 2;
          if (distance !== null) view.setUint32(at, distance, true);
          if (distance !== null) at += 4;
          const bytes = new Uint8Array(view.buffer, 0, at);
          const read = podReading({ bytes });
          expect(read.speedMps).toBe(speed / 256);
          expect(read.count).toBe(cadence);
          expect(read.strideM).toBe(stride === null ? null : stride / 100);
          expect(read.distanceM).toBe(distance === null ? null : distance / 10);
          expect(read.running).toBe(running);
          if (at > 4)
            expect(() => podReading({ bytes: bytes.slice(0, at - 1) })).toThrow(RangeError);
        },
      ),
    );
    expect(() => podReading({ bytes: [] })).toThrow('bytes[0]');
  });
});
