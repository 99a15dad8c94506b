import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { ApproachSummary } from '@gravek/contract/plan';
import { chainCode, chainOf, ENDINGS, MOVES } from '@gravek/library/movement/chains';
import { mayRun } from '@gravek/library/session/sessionFit';
import { setOfWork } from '@gravek/library/session/setOfWork';
import { baseOf, demandOfSet, type Finds } from '@gravek/library/session/work';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { Failed, Waiting } from '../controls/Notice';
import { useAllMovements } from '../parts/catalogue/useCatalogue';

type Offer = { key: string; name: string; what: string; works: Work[]; words: string };

const SHOWN = 8;

const chains = (): Offer[] =>
  MOVES.flatMap((move) =>
    ENDINGS.flatMap((ending) => {
      const parts = [move.code, ending.code];
      if ('why' in chainOf(parts)) return [];
      const name = `${move.name}: ${ending.name.toLowerCase()}`;
      const works: Work[] = [{ kind: 'movement', movement: chainCode(parts), drill: null }];
      return [{ key: chainCode(parts), name, what: 'move and ending', works, words: name }];
    }),
  );

/** How near a name is to what was typed: the same, beginning with it, holding it, or only meant by it. */
const nearness = ({ name }: Offer, text: string): number => {
  const typed = name.toLowerCase();
  return typed === text ? 0 : typed.startsWith(text) ? 1 : typed.includes(text) ? 2 : 3;
};

/** The drills of a movement in the order in which they are taught, all at once. */
const progressionOf = ({ code, name, progression = [] }: Movement): Offer[] =>
  progression.length < 2
    ? []
    : [
        {
          key: `${code}/progression`,
          name: `${name}: all ${progression.length} drills in order`,
          what: 'progression',
          works: progression.map(({ drill }): Work => ({
            kind: 'movement',
            movement: code,
            drill,
          })),
          words: `${name} progression in order`,
        },
      ];

/** A drill set of some work for whoever may do it: those of its plan, else those of the set before. */
export const newSet = (
  work: Work,
  finds: Finds,
  plannedIds: readonly string[],
  athletes: readonly Athlete[],
  date: string,
): DrillSet => {
  const movement = work.kind === 'movement' ? finds.movementOf(work.movement) : undefined;
  const set = setOfWork(uuid(), work, [], movement);
  const base = baseOf(work, finds);
  const able = mayRun(base ? demandOfSet(base, set) : [], athletes, date);
  const athleteIds = able.map((athlete) => athlete.id).filter((id) => plannedIds.includes(id));
  // A warm-up is done by all at once.
  return work.kind === 'warm-up'
    ? {
        ...set,
        athleteIds,
        stand: 'row',
        sets: 1,
        reps: 1,
        restS: 0,
        target: 'touches',
        amount: 20,
      }
    : { ...set, athleteIds };
};

/** One line to add a set from: plans, movements, drills, moves with endings, or a warm-up in own words. */
export const AddSet = ({
  plans,
  onAdd,
}: {
  plans: readonly ApproachSummary[];
  onAdd: (works: readonly Work[]) => void;
}) => {
  const [typed, setTyped] = useState('');
  const [open, setOpen] = useState(false);
  // A set can be put in once the movement that it is of is known.
  const all = useAllMovements(open);
  const movements = all.data;
  const text = typed.trim().toLowerCase();
  const offers: Offer[] = movements
    ? [
        ...plans.map((plan): Offer => ({
          key: plan.id,
          name: plan.name,
          what: 'plan',
          works: [{ kind: 'plan', approachId: plan.id }],
          words: plan.name,
        })),
        ...movements.map((movement): Offer => ({
          key: movement.code,
          name: movement.name,
          what: 'movement',
          works: [{ kind: 'movement', movement: movement.code, drill: null }],
          words: [movement.name, ...(movement.alsoCalled ?? [])].join(' '),
        })),
        ...(text.length > 1
          ? [
              ...movements.flatMap(progressionOf),
              ...movements.flatMap((movement) =>
                movement.drills.map((drill): Offer => ({
                  key: `${movement.code}/${drill.code}`,
                  name: drill.name,
                  what: `drill of ${movement.name.toLowerCase()}`,
                  works: [{ kind: 'movement', movement: movement.code, drill: drill.code }],
                  words: drill.name,
                })),
              ),
              ...chains(),
            ]
          : []),
      ]
    : [];
  const words = text.split(/\s+/);
  const found = offers
    .filter((offer) => words.every((word) => offer.words.toLowerCase().includes(word)))
    // A drill or a chain by its exact name comes first.
    .sort((a, b) => nearness(a, text) - nearness(b, text))
    .slice(0, SHOWN);
  const add = (works: readonly Work[]): void => {
    onAdd(works);
    setTyped('');
    setOpen(false);
  };
  return (
    <div className="add-set">
      <Form.Control
        aria-label="Add a set"
        placeholder="Add a set: a plan, a movement, a move and ending, a drill, a warm-up"
        value={typed}
        autoComplete="off"
        onFocus={() => setOpen(true)}
        onChange={(event) => {
          setTyped(event.target.value);
          setOpen(true);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setOpen(false);
          if (event.key === 'Enter' && text && found[0]) {
            event.preventDefault();
            add(found[0].works);
          }
        }}
      />
      {open && !movements && all.error !== null && (
        <Failed error={all.error} again={() => void all.refetch()} />
      )}
      {open && !movements && all.error === null && <Waiting what="Getting the movements …" />}
      {open && movements && (
        <ul className="offers" aria-label="What can be added">
          {found.map((offer) => (
            <li key={offer.key}>
              <button type="button" onClick={() => add(offer.works)}>
                <strong>{offer.name}</strong> <span className="quiet">{offer.what}</span>
              </button>
            </li>
          ))}
          {text && (
            <li>
              <button
                type="button"
                onClick={() => add([{ kind: 'warm-up', name: typed.trim().slice(0, 80) }])}
              >
                <strong>{typed.trim()}</strong> <span className="quiet">warm-up, by count</span>
              </button>
            </li>
          )}
          <li>
            <button type="button" className="quiet" onClick={() => setOpen(false)}>
              close
            </button>
          </li>
        </ul>
      )}
    </div>
  );
};
