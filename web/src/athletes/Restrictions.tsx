import type { Athlete } from '@gravek/contract/athlete';
import { holding } from '@gravek/library/session/restrictions';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { opened } from '../controls/opened';
import { RESTRICTION_NAMES } from '../controls/restrictionNames';
import { usePutAway } from '../controls/usePutAway';
import { useMayPlan, useMember } from '../member/member';
import { dayName } from '../controls/dates';

const RestrictForm = opened(async () => (await import('./RestrictForm')).RestrictForm);

export const Restrictions = ({ athlete }: { athlete: Athlete }) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const [adding, setAdding] = useState(false);
  const putAway = usePutAway('athletes');
  const holdingNow = new Set(holding(athlete.restrictions, today));
  return (
    <section className="panel" aria-label="Restrictions">
      <div className="row-line mb-1">
        <h2 className="mb-0">Restrictions</h2>
        {mayPlan && !adding && (
          <Button size="sm" variant="link" className="ms-auto p-0" onClick={() => setAdding(true)}>
            Add
          </Button>
        )}
      </div>
      {athlete.restrictions.length === 0 && !adding && <span className="quiet">None.</span>}
      <ul className="list-plain">
        {athlete.restrictions.map((restriction) => (
          <li key={restriction.id} className="row-line">
            <strong>{RESTRICTION_NAMES[restriction.kind]}</strong>
            <span className={holdingNow.has(restriction) ? '' : 'quiet'}>
              {dayName(restriction.from)} to{' '}
              {restriction.until === null ? 'when it is cleared' : dayName(restriction.until)}
              {restriction.kind === 'reduced' &&
                `, ${Math.round(restriction.share * 100)} % of the reps`}
              {holdingNow.has(restriction) ? '' : ', over'}
            </span>
            {restriction.note && <span className="quiet">{restriction.note}</span>}
            {mayPlan && (
              <Button
                size="sm"
                variant="link"
                className="ms-auto p-0"
                onClick={() =>
                  void putAway(
                    `/athletes/${athlete.id}/restrictions/${restriction.id}`,
                    restriction.kind === 'pain'
                      ? `${athlete.name} is cleared.`
                      : 'The restriction is lifted.',
                  )
                }
              >
                {restriction.kind === 'pain' ? 'Clear' : 'Lift'}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {adding && <RestrictForm athleteId={athlete.id} onDone={() => setAdding(false)} />}
    </section>
  );
};
