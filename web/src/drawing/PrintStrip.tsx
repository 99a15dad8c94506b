import { countSteps, type Layout, stepFalls } from '@gravek/core/layout/shape';
import { counted } from '@gravek/core/words';
import { smallGround } from './ground';
import type { Spot } from './labels';
import { MarkSign, Other } from './PlanThings';
import { type Print, printOf, Prints } from './prints';

const WIDTH = 358;
const HEIGHT = 92;
const MARGIN = 22;
/** Of a sole, pixels: as long as steps leave room for. */
const SOLE_PX = { least: 10, most: 20 };
const LETTER_PX = 13;
const LETTERS_APART_PX = 10;
/** So many feet are still said one by one. */
const MOST_SAID = 8;

/** Where the letter of a print stands: beside the foot, on its side. */
const letterAt = ({ fall, x, y, turnDeg, length }: Print): Spot => {
  const [cos, sin] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  const side = fall.foot === 'right' ? LETTER_PX : -LETTER_PX;
  return [x - (length / 2) * cos - side * sin, y - (length / 2) * sin + side * cos];
};

/** Letters that lie clear of those before them. */
const lettersOf = (prints: readonly Print[]): { print: Print; at: Spot }[] =>
  prints.reduce<{ print: Print; at: Spot }[]>((placed, print) => {
    const at = letterAt(print);
    const isClear = placed.every(
      ({ at: [x, y] }) => Math.hypot(x - at[0], y - at[1]) >= LETTERS_APART_PX,
    );
    return isClear ? [...placed, { print, at }] : placed;
  }, []);

const spokenFeet = (layout: Layout): string => {
  const feet = stepFalls(layout).map(({ foot }) => foot);
  const steps = counted(countSteps(layout), 'step');
  return feet.length <= MOST_SAID ? `${steps}: ${feet.join(', ')}` : `${steps}, ${feet[0]} first`;
};

/**
 * Where the feet go, in a line for an arm's length: L and R beside the prints, things and marks, and the foot that is
 * called just now.
 *
 * @param called how many steps have been called so far; null where nothing is called
 */
export const PrintStrip = ({ layout, called }: { layout: Layout; called: number | null }) => {
  const ground = smallGround(layout, { width: WIDTH, height: HEIGHT, margin: MARGIN });
  const steps = stepFalls(layout);
  const apartPx = steps.slice(1).map((fall, i) => {
    const [[x, y], [x2, y2]] = [ground.at(steps[i]!), ground.at(fall)];
    return Math.hypot(x2 - x, y2 - y);
  });
  const sole = Math.min(SOLE_PX.most, Math.max(SOLE_PX.least, 0.8 * Math.min(...apartPx)));
  const prints = layout.footfalls.map((fall) => printOf(fall, ground, sole));
  const now = called ? steps[(called - 1) % steps.length] : undefined;
  const ring = prints.find(({ fall }) => fall === now);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="plan-view print-strip"
      role="img"
      aria-label={spokenFeet(layout)}
    >
      {layout.others.map((other, i) => (
        <Other key={i} other={other} ground={ground} />
      ))}
      {layout.marks.map((mark, i) => (
        <MarkSign key={i} mark={mark} ground={ground} />
      ))}
      {ring && (
        <circle
          className="landed"
          cx={ring.box.x + ring.box.width / 2}
          cy={ring.box.y + ring.box.height / 2}
          r={sole / 2 + 5}
        />
      )}
      <Prints prints={prints} />
      {lettersOf(prints.filter(({ fall }) => fall.n > 0)).map(
        ({ print: { fall }, at: [x, y] }, i) => (
          <text key={i} x={x} y={y} className={fall === now ? 'foot-letter now' : 'foot-letter'}>
            {fall.foot === 'left' ? 'L' : 'R'}
          </text>
        ),
      )}
    </svg>
  );
};
