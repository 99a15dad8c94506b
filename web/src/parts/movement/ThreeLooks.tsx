import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { threeLooks } from '@gravek/library/movement/threeLooks';

/** On paper: the three things to look at. */
export const ThreeLooks = ({
  movement,
  path,
}: {
  movement: Movement;
  path: readonly MovementPhase[];
}) => (
  <section className="print-only" aria-label="Look at">
    <h2>Look at</h2>
    <ol>
      {threeLooks(movement, path).map(({ phase, look, right }) => (
        <li key={`${phase}/${look}`}>
          <strong>
            {phase}, {look.toLowerCase()}:
          </strong>{' '}
          {right}
        </li>
      ))}
    </ol>
  </section>
);
