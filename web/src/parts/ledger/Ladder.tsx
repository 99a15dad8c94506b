import type { Athlete } from '@gravek/contract/athlete';
import type { Ledger } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { RUNG_NAMES } from '@gravek/library/session/setWords';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v7 as uuid } from 'uuid';
import { sentenceOf } from '../../api/client';
import { dayName } from '../../controls/dates';
import { opened } from '../../controls/opened';
import { tell } from '../../controls/toasts';
import { useMayPlan } from '../../member/member';
import { useChooseRung } from './useChooseRung';
import { percent } from './words';

const RungForm = opened(async () => (await import('./RungForm')).RungForm);

/** On which rung somebody stands, what the rule says comes next, and a coach's own word on it. */
export const Ladder = ({
  athlete,
  movement,
  ladder,
}: {
  athlete: Athlete;
  movement: Movement;
  ladder: Ledger['ladder'];
}) => {
  const mayPlan = useMayPlan();
  const [changing, setChanging] = useState(false);
  const choose = useChooseRung(athlete.id);
  const handBack = async (): Promise<void> => {
    try {
      await choose.mutateAsync({ id: uuid(), movement: movement.code, rung: null, reason: '' });
      tell('The rule decides on the rung again.');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  if (!ladder && !mayPlan) return null;
  return (
    <section aria-label="Ladder">
      <div className="row-line small-text">
        <span>
          {ladder ? (
            <>
              <strong>Rung: {RUNG_NAMES[ladder.rung]}.</strong>{' '}
              {ladder.reps > 0 &&
                `${percent(ladder.clean / ladder.reps)} of ${ladder.reps} reps clean in its last sessions. `}
              {ladder.step === 'up' && `Ready for ${RUNG_NAMES[ladder.next]}.`}
              {ladder.step === 'down' && `Too high yet: back to ${RUNG_NAMES[ladder.next]}.`}
              {ladder.step === 'stay' && 'It stays.'}
              {ladder.choice &&
                ` ${ladder.choice.person} chose it on ${dayName(ladder.choice.day)}: ${ladder.choice.reason}`}
            </>
          ) : (
            <span className="quiet">On no rung of a ladder yet.</span>
          )}
        </span>
        {mayPlan && !changing && (
          <span className="ms-auto row-line">
            {ladder?.choice && (
              <Button
                variant="link"
                size="sm"
                className="p-0"
                disabled={choose.isPending}
                onClick={() => void handBack()}
              >
                Let the rule decide
              </Button>
            )}
            <Button variant="link" size="sm" className="p-0" onClick={() => setChanging(true)}>
              {ladder ? 'Another rung' : 'Set a rung'}
            </Button>
          </span>
        )}
      </div>
      {changing && (
        <RungForm
          athlete={athlete}
          movement={movement}
          ladder={ladder}
          onDone={() => setChanging(false)}
        />
      )}
    </section>
  );
};
