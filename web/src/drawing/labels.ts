export type Box = { x: number; y: number; width: number; height: number };
export type Spot = [x: number, y: number];

/** A text that wants to stand near a spot. */
export type LabelAsk = {
  /** a line each */
  text: string;
  /** what it belongs to */
  at: Spot;
  /** how far off its near edge begins, pixels */
  reach: number;
  /** which way it would rather stand off, degrees clockwise from the right */
  towardDeg: number;
  width: number;
  height: number;
};

/** Where a label stands; `lead` is a line to what it belongs to, where it stands far off. */
export type Label = LabelAsk & { box: Box; lead: [Spot, Spot] | null };

const GAP = 2;
const STEP = 9;
const WAYS = 24;
/** Further off than this it needs a line to what it belongs to. */
const LEAD_FROM = 22;
/** How strictly a label keeps off lines and its own line off labels, and how far it looks for such room. */
const PASSES = [
  { offLines: true, leadClear: true, rings: 6 },
  { offLines: false, leadClear: true, rings: 16 },
  { offLines: false, leadClear: false, rings: 34 },
] as const;
type Pass = (typeof PASSES)[number];

export const meet = (a: Box, b: Box, apart = 0): boolean =>
  a.x < b.x + b.width + apart &&
  b.x < a.x + a.width + apart &&
  a.y < b.y + b.height + apart &&
  b.y < a.y + a.height + apart;

const boxAt = ({ at, reach, width, height }: LabelAsk, deg: number, further: number): Box => {
  const [cos, sin] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  // As far off as the box needs in that direction to clear the spot.
  const clear = Math.min(
    Math.abs(cos) > 1e-6 ? width / 2 / Math.abs(cos) : Infinity,
    Math.abs(sin) > 1e-6 ? height / 2 / Math.abs(sin) : Infinity,
  );
  const off = reach + further + clear;
  return {
    x: at[0] + off * cos - width / 2,
    y: at[1] + off * sin - height / 2,
    width,
    height,
  };
};

const within = (box: Box, room: Box): boolean =>
  box.x >= room.x &&
  box.y >= room.y &&
  box.x + box.width <= room.x + room.width &&
  box.y + box.height <= room.y + room.height;

const nearestOn = (box: Box, [x, y]: Spot): Spot => [
  Math.max(box.x, Math.min(box.x + box.width, x)),
  Math.max(box.y, Math.min(box.y + box.height, y)),
];

/** The line from what a label belongs to, where it stands so far off that it needs one. */
const leadTo = ({ at, reach }: LabelAsk, box: Box): [Spot, Spot] | null => {
  const end = nearestOn(box, at);
  const off = Math.hypot(end[0] - at[0], end[1] - at[1]);
  return off > reach + LEAD_FROM ? [at, end] : null;
};

/** Ways to stand off, the asked one first, then to either side of it. */
const turns = Array.from(
  { length: WAYS },
  (_, i) => (i % 2 === 0 ? -1 : 1) * Math.ceil(i / 2) * (360 / WAYS),
);

/**
 * Places labels one after the other, so that none lies over another or over what must stay free; those
 * that find no room are left out.
 *
 * @param solid what no label may cover, such as prints
 * @param thin what a label rather does not cover, such as lines
 * @param closed what no line that leads to a label crosses, where that can be
 */
export const placeLabels = (
  asks: readonly LabelAsk[],
  room: Box,
  solid: readonly Box[],
  thin: readonly Box[] = [],
  closed: readonly Box[] = [],
): (Label | null)[] => {
  const taken: Box[] = [...solid];
  const texts: Box[] = [...closed];
  const free = (ask: LabelAsk, box: Box, { offLines, leadClear }: Pass): boolean =>
    within(box, room) &&
    !taken.some((other) => meet(box, other, GAP)) &&
    !(offLines && thin.some((other) => meet(box, other))) &&
    !(
      leadClear &&
      alongLine(leadTo(ask, box) ?? []).some((spot) => texts.some((text) => meet(spot, text)))
    );
  const find = (ask: LabelAsk): Box | null => {
    for (const pass of PASSES) {
      for (let ring = 0; ring < pass.rings; ring += 1) {
        for (const by of turns) {
          const box = boxAt(ask, ask.towardDeg + by, ring * STEP);
          if (free(ask, box, pass)) return box;
        }
      }
    }
    return null;
  };
  return asks.map((ask) => {
    const box = find(ask);
    if (!box) return null;
    const lead = leadTo(ask, box);
    texts.push(box);
    taken.push(box, ...alongLine(lead ?? []));
    return { ...ask, box, lead };
  });
};

/** Small boxes along a line, so that labels keep off it. */
export const alongLine = (spots: readonly Spot[], every = 8): Box[] =>
  spots.slice(1).flatMap((to, i) => {
    const from = spots[i]!;
    const parts = Math.max(1, Math.ceil(Math.hypot(to[0] - from[0], to[1] - from[1]) / every));
    return Array.from({ length: parts + 1 }, (_, k) => ({
      x: from[0] + ((to[0] - from[0]) * k) / parts - 1,
      y: from[1] + ((to[1] - from[1]) * k) / parts - 1,
      width: 2,
      height: 2,
    }));
  });
