import type { Athlete } from '@gravek/contract/athlete';
import type { ConditionAxis, Ledger } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { sideWord } from '@gravek/library/movement/sides';
import { exitName, RUNG_NAMES } from '@gravek/library/session/setWords';
import Form from 'react-bootstrap/Form';

export const SHOWN = 8;
const AXES: Record<ConditionAxis, string> = {
  part: 'Part',
  side: 'Side',
  leadFoot: 'Lead foot',
  speedPct: 'Speed',
  rung: 'Rung',
  exit: 'Read',
  late: 'In the set',
  loggedBy: 'Logged by',
};

const valueName = (
  movement: Movement,
  athlete: Athlete,
  { axis, value, name }: Ledger['axes'][number],
): string => {
  if (name !== null) return name;
  if (value === 'null') return axis === 'part' ? 'the whole' : 'not said';
  switch (axis) {
    case 'side':
      return sideWord(movement, athlete, value === 'own' ? 'own' : 'other');
    case 'leadFoot':
      return `${value} foot first`;
    case 'speedPct':
      return `${value} %`;
    case 'rung':
      return value in RUNG_NAMES ? RUNG_NAMES[value as keyof typeof RUNG_NAMES] : value;
    case 'late':
      return value === 'true' ? 'late' : 'early';
    case 'part':
      return movement.drills.find((drill) => drill.code === value)?.name ?? value;
    case 'exit':
      return exitName(movement, value);
    case 'loggedBy':
      return 'somebody who has left';
  }
};

/** Which reps the ledger is of; one choice an axis. */
export const Filters = ({
  ledger,
  movement,
  athlete,
  filters,
  onAsk,
}: {
  ledger: Ledger;
  movement: Movement;
  athlete: Athlete;
  filters: Readonly<Record<string, string>>;
  onAsk: (asked: Record<string, string>) => void;
}) => {
  const axes = [...new Set(ledger.axes.map(({ axis }) => axis))];
  if (axes.length === 0) return null;
  return (
    <div className="row-line ledger-filters">
      {axes.map((axis) => (
        <Form.Select
          key={axis}
          size="sm"
          aria-label={AXES[axis]}
          value={filters[axis] ?? ''}
          onChange={({ target }) => {
            const { [axis]: _, ...rest } = filters;
            onAsk(target.value === '' ? rest : { ...rest, [axis]: target.value });
          }}
        >
          <option value="">{AXES[axis]}: all</option>
          {ledger.axes
            .filter((other) => other.axis === axis)
            .map((axis) => (
              <option key={axis.value} value={axis.value}>
                {valueName(movement, athlete, axis)} ({axis.reps})
              </option>
            ))}
        </Form.Select>
      ))}
    </div>
  );
};
