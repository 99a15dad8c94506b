import { countSteps, type Layout } from '@gravek/core/layout/shape';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement } from '@gravek/contract/movement';
import { otherWays, type OtherWay } from '@gravek/library/planning/otherWays';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';

type Chosen = Pick<SequenceChoices, 'reads' | 'schools'>;

/**
 * Another exit or school, laid over the way that is drawn.
 *
 * @param lay lays the movement out another way
 * @returns what to draw over it, and the choice of it
 */
export const useLaidOver = (
  movement: Movement,
  { reads, schools }: Chosen,
  lay: (other: OtherWay) => Layout,
): { over: Layout | null; choice: React.ReactNode } => {
  const [code, setCode] = useState('');
  const ways = useMemo(() => otherWays(movement, { reads, schools }), [movement, reads, schools]);
  const way = ways.find((way) => way.code === code);
  const over = useMemo(() => (way ? lay(way) : null), [way, lay]);
  if (ways.length === 0) return { over, choice: null };
  const choice = (
    <label className="choice no-print">
      <span className="form-label">Lay over it</span>
      <Form.Select value={way ? code : ''} onChange={(event) => setCode(event.target.value)}>
        <option value="">nothing</option>
        {ways.map((way) => (
          <option key={way.code} value={way.code}>
            {way.name}
          </option>
        ))}
      </Form.Select>
      {over && (
        <span className="small-text quiet">
          dashed: {stepsIn(countSteps(over), over.totalTimeS)}
        </span>
      )}
    </label>
  );
  return { over, choice };
};
