import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { Ground } from '@gravek/contract/ground';
import { WEEKDAYS } from '@gravek/contract/weekdays';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useGrounds } from '../api/queries';
import { counted } from '@gravek/core/words';
import { Loaded } from '../controls/Notice';
import { opened } from '../controls/opened';
import { useLengthStyle, useMayPlan } from '../member/member';
import { OwnRow } from './OwnRow';

const GroundForm = opened(async () => (await import('./GroundForm')).GroundForm);

/** What a ground has, in a line. */
const inWords = (ground: Ground, style: LengthStyle): string => {
  const length = (m: number): string => formatLength(m, style);
  const { laneM, goalM, uprightGapM, apron, gapM, baseM, rim, net, marks } = ground;
  return [
    ground.surface[0]!.toUpperCase() + ground.surface.slice(1),
    counted(ground.lanes, 'lane', 'lanes') + (laneM ? ` of ${length(laneM)}` : ''),
    goalM && `goal ${length(goalM)}`,
    uprightGapM && `bar ${length(uprightGapM)}`,
    apron && `apron ${length(apron.besideM)} beside, ${length(apron.outM)} out`,
    gapM && `gaps of ${length(gapM)}`,
    rim && `rim ${length(rim.outM)} before the end line, lane ${length(rim.laneM)} across`,
    net && `net ${length(net.heightM)} high`,
    baseM && `bases ${length(baseM)} apart`,
    ...marks.map((mark) => `${mark.name} ${length(mark.fromM)} from the ${mark.of}`),
  ]
    .filter(Boolean)
    .join(', ');
};

/** Where the club trains: what plans, drawings and sessions go by. */
export const Grounds = () => {
  const mayPlan = useMayPlan();
  const style = useLengthStyle();
  const query = useGrounds();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section className="panel" aria-label="Grounds">
      <h2>Grounds</h2>
      <p className="quiet small-text">
        What is measured here once, plans, drawings and sessions go by.
      </p>
      <Loaded query={query} what="Getting the grounds …">
        {(list) => (
          <ul className="list-plain">
            {list.map((ground) => (
              <OwnRow
                key={ground.id}
                item={ground}
                path="/grounds"
                touched="grounds"
                onChange={() => setOpen(ground.id)}
              >
                <div className="small-text">{inWords(ground, style)}.</div>
                {ground.slots.length > 0 && (
                  <div className="small-text">
                    {[...ground.slots]
                      .sort((a, b) => WEEKDAYS.indexOf(a.day) - WEEKDAYS.indexOf(b.day))
                      .map(({ day, from, to }) => `${day} ${from}–${to}`)
                      .join(', ')}
                  </div>
                )}
                {ground.note && <div className="small-text quiet">{ground.note}</div>}
                {open === ground.id && <GroundForm stored={ground} onDone={() => setOpen(null)} />}
              </OwnRow>
            ))}
            {list.length === 0 && (
              <li className="quiet">
                None yet. With the lane’s length and the goal’s width, a plan says whether it fits.
              </li>
            )}
          </ul>
        )}
      </Loaded>
      {mayPlan &&
        (open === 'new' ? (
          <GroundForm stored={null} onDone={() => setOpen(null)} />
        ) : (
          <Button size="sm" variant="outline-dark" className="mt-2" onClick={() => setOpen('new')}>
            Add a ground
          </Button>
        ))}
    </section>
  );
};
