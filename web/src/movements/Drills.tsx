import type { Movement } from '@gravek/contract/movement';
import { RUNGS } from '@gravek/contract/rungs';
import { RUNG_NAMES } from '@gravek/library/work';
import Button from 'react-bootstrap/Button';
import { partName } from './partName';

/** Drills with their ladder, and the faults each is for. */
export const Drills = ({
  movement,
  shown,
  onShow,
}: {
  movement: Movement;
  shown: string | null;
  onShow: (code: string | null) => void;
}) => (
  <section className="panel" aria-label="Drills">
    <h2>Drills</h2>
    {movement.drills.length === 0 && <p className="quiet mb-0">This movement has no drills yet.</p>}
    <ul className="list-plain">
      {movement.drills.map((drill) => {
        const against = movement.faults.filter((fault) => fault.drills.includes(drill.code));
        return (
          <li key={drill.code} id={`drill-${drill.code}`} className="drill">
            <div>
              <strong>{drill.name}</strong>
              <div>{drill.how}</div>
              <div className="quiet small-text">
                {partName(movement, drill.part)}, {Math.round(drill.speedFraction * 100)} % speed
                {against.length > 0 &&
                  `. Against: ${against.map((fault) => fault.name.toLowerCase()).join(', ')}`}
              </div>
              <ol className="ladder" aria-label="Ladder">
                {RUNGS.filter((rung) => drill.rungs.includes(rung)).map((rung) => (
                  <li key={rung}>{RUNG_NAMES[rung]}</li>
                ))}
              </ol>
            </div>
            <Button
              size="sm"
              variant="outline-dark"
              aria-pressed={shown === drill.code}
              onClick={() => onShow(shown === drill.code ? null : drill.code)}
            >
              {shown === drill.code ? 'Show the whole' : 'Show its part'}
            </Button>
          </li>
        );
      })}
    </ul>
  </section>
);
