import type { DeviceReading } from '@gravek/core/measuring/deviceCourse';
import { footCount } from '@gravek/core/runup/footCount';
import { FOOT_M, YARD_M } from '@gravek/core/units';
import { XMLParser } from 'fast-xml-parser';
import { readTable } from '../roster/csv';
import { secondsOf } from './figure';

/** Bytes of a recorded run that are read. */
export const RECORDED_MAX = 20_000_000;

/** A run that was recorded elsewhere; or why it cannot be read, as a sentence. */
export type Recorded = { ok: true; readings: DeviceReading[] } | { ok: false; why: string };

type Node = Record<string, unknown>;

const list = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : value === undefined ? [] : [value]) as Node[];

const numberIn = (value: unknown): number | null => {
  const read = typeof value === 'object' && value !== null ? (value as Node)['#text'] : value;
  const figure = Number(read);
  return read === undefined || read === '' || !Number.isFinite(figure) ? null : figure;
};

/** A figure of an extension, under whatever name it is nested. */
const deep = (node: unknown, names: readonly string[]): number | null => {
  if (typeof node !== 'object' || node === null) return null;
  for (const [key, value] of Object.entries(node)) {
    const figure = names.includes(key.toLowerCase()) ? numberIn(value) : deep(value, names);
    if (figure !== null) return figure;
  }
  return null;
};

const CADENCE = ['runcadence', 'cadence', 'cad'];
const SPEED = ['speed'];

const RADIUS_M = 6_371_000;
const toRad = (deg: number): number => (deg * Math.PI) / 180;

/** Metres from one place on the globe to another near it. */
const apartM = (a: Node, b: Node): number | null => {
  const [lat1, lon1, lat2, lon2] = [
    numberIn(a.lat),
    numberIn(a.lon),
    numberIn(b.lat),
    numberIn(b.lon),
  ];
  if (lat1 === null || lon1 === null || lat2 === null || lon2 === null) return null;
  const x = toRad(lon2 - lon1) * Math.cos(toRad((lat1 + lat2) / 2));
  return RADIUS_M * Math.hypot(x, toRad(lat2 - lat1));
};

/**
 * Reads a run from a TCX or GPX file: cadence and speed over time.
 *
 * @param text the file; see `RECORDED_MAX`
 * @example readRecorded('no file of a watch').ok // false
 */
export const readRecorded = (text: string): Recorded => {
  if (text.length > RECORDED_MAX)
    return { ok: false, why: 'This file is larger than any run: over 20 MB are not read.' };
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    return {
      ok: false,
      why: 'This file declares entities of its own, as no watch does; it is not read.',
    };
  let root: Node;
  try {
    root = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '',
      removeNSPrefix: true,
      processEntities: false,
      parseTagValue: false,
      parseAttributeValue: false,
    }).parse(text, true) as Node;
  } catch {
    return { ok: false, why: 'This is no TCX or GPX file: it is not well-formed XML.' };
  }
  const tcx = list((root.TrainingCenterDatabase as Node | undefined)?.Activities).flatMap((all) =>
    list(all.Activity).flatMap((activity) =>
      list(activity.Lap).flatMap((lap) =>
        list(lap.Track).flatMap((track) => list(track.Trackpoint)),
      ),
    ),
  );
  const gpx = list((root.gpx as Node | undefined)?.trk).flatMap((track) =>
    list(track.trkseg).flatMap((part) => list(part.trkpt)),
  );
  const points = tcx.length > 0 ? tcx : gpx;
  if (points.length === 0)
    return { ok: false, why: 'There is no run in this file: TCX and GPX tracks are read.' };
  const momentOf = (point: Node): number => Date.parse(String(point.Time ?? point.time ?? ''));
  const begunMs = points.map(momentOf).find((ms) => Number.isFinite(ms));
  if (begunMs === undefined) return { ok: false, why: 'The points of this run have no times.' };
  const sent = points.flatMap((point, i) => {
    const atS = (momentOf(point) - begunMs) / 1000;
    const counted = numberIn(point.Cadence) ?? deep(point.Extensions ?? point.extensions, CADENCE);
    if (!Number.isFinite(atS) || counted === null) return [];
    const before = points[i - 1];
    const forS = before ? (momentOf(point) - momentOf(before)) / 1000 : 0;
    const wayM = !before
      ? null
      : numberIn(point.DistanceMeters) !== null && numberIn(before.DistanceMeters) !== null
        ? numberIn(point.DistanceMeters)! - numberIn(before.DistanceMeters)!
        : apartM(before, point);
    const said = deep(point.Extensions ?? point.extensions, SPEED);
    return [
      {
        atS,
        cadence: Math.max(0, counted),
        speedMps: said ?? (wayM !== null && forS > 0 ? wayM / forS : null),
      },
    ];
  });
  // Most watches write what one foot does.
  const { spm, running } = footCount({ readings: sent });
  const readings = sent.map(({ atS, speedMps }, i): DeviceReading => ({
    ...{ atS, speedMps, cadenceSpm: spm[i]!, running: running[i]! },
  }));
  return readings.length < 2
    ? {
        ok: false,
        why: 'This run has no cadence in it; a foot pod or a watch on the wrist gives one.',
      }
    : { ok: true, readings };
};

/** What a column of a table of gates can hold. */
export const GATE_COLUMNS = ['distance', 'time'] as const;
export type GateColumn = (typeof GATE_COLUMNS)[number];

/** Units that distances of gates come in, metres each. */
export const GATE_UNITS = { m: 1, yd: YARD_M, ft: FOOT_M } as const;
export type GateUnit = keyof typeof GATE_UNITS;

/**
 * The unit that the head of a column of distances names; null where it names none.
 *
 * @example guessUnit('Gate (yd)') // 'yd'
 */
export const guessUnit = (head: string): GateUnit | null => {
  if (/\b(yds?|yards?)\b/i.test(head)) return 'yd';
  if (/\b(ft|feet|foot)\b/i.test(head)) return 'ft';
  return /\b(m|met(er|re)s?)\b/i.test(head) ? 'm' : null;
};

/**
 * What the heads say of themselves.
 *
 * @example guessGates(['Gate', 'Split time', 'Wind']) // ['distance', 'time', null]
 */
export const guessGates = (heads: readonly string[]): (GateColumn | null)[] =>
  heads.map((head) =>
    /time|zeit|sec|\bs\b|split/i.test(head)
      ? 'time'
      : /dist|gate|\b(m|ft|yd)\b|met(er|re)|feet|yard/i.test(head)
        ? 'distance'
        : null,
  );

/** What stands in a cell beside the figure, such as its unit, says nothing. */
const inCell = (cell: string): number => secondsOf(cell.replace(/[^\d.,\-−:]/g, ''));

export type Split = { distanceM: number; timeS: number };

/** Times at gates, and the gates that gave none, metres; or why they cannot be read. */
export type Gates = { ok: true; splits: Split[]; silent: number[] } | { ok: false; why: string };

/**
 * Times from gates, as pasted or from a file, with columns matched; decimal commas and semicolons too.
 *
 * @param columns what each column holds
 * @param clock since: times run on from the start; each: of every stretch by itself
 * @param unit what the distances are in
 * @example
 * const table = readTable('Distance;Time\n5;1,20\n10;1,95');
 * readGates(table, ['distance', 'time'], 'since').splits
 * // [{ distanceM: 5, timeS: 1.2 }, { distanceM: 10, timeS: 1.95 }]
 */
export const readGates = (
  table: NonNullable<ReturnType<typeof readTable>>,
  columns: readonly (GateColumn | null)[],
  clock: 'since' | 'each',
  unit: GateUnit = 'm',
): Gates => {
  const [d, t] = [columns.indexOf('distance'), columns.indexOf('time')];
  if (d < 0 || t < 0)
    return { ok: false, why: 'Say which column is the distance and which the time.' };
  const splits: Split[] = [];
  const silent: number[] = [];
  let sumS = 0;
  for (const [i, row] of table.rows.entries()) {
    const distanceM = Number((inCell(row[d]!) * GATE_UNITS[unit]).toFixed(3));
    const timed = inCell(row[t]!);
    // A beam that nobody broke; where each stretch has a clock of its own, the sum is gone with it.
    if (clock === 'since' && !Number.isNaN(distanceM) && /^[-–—]?$/.test(row[t]!.trim())) {
      silent.push(distanceM);
      continue;
    }
    if (Number.isNaN(distanceM) || Number.isNaN(timed))
      return { ok: false, why: `Row ${i + 2}: “${row[d]}” and “${row[t]}” are not two numbers.` };
    // A bare whole number that large is in thousandths of a second: nobody takes a minute and a half for a sprint.
    const isThousandths = timed > 90 && /^\d+$/.test(row[t]!.trim());
    const timeS = isThousandths ? timed / 1000 : timed;
    sumS = clock === 'each' ? sumS + timeS : timeS;
    // The gate at the start has no time of its own.
    if (distanceM > 0) splits.push({ distanceM, timeS: Number(sumS.toFixed(3)) });
  }
  return splits.length < 2
    ? { ok: false, why: 'Two gates at least, beside the one at the start.' }
    : { ok: true, splits, silent };
};
