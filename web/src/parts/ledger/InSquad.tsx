import type { Athlete } from '@gravek/contract/athlete';
import type { SquadFaults } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { useState, type ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import { useAthletes, useSquadFaults } from '../../api/queries';
import { Loaded } from '../../controls/Notice';
import { Segments } from '../../controls/Segments';
import { fetchDocuments } from '../catalogue/documents';
import { useCatalogue } from '../catalogue/useCatalogue';

const ALL = 'All';

/** How somebody of the squad stands in the movement that is chosen. */
export type SquadLine = SquadFaults['items'][number] & { athlete: Athlete };

type Shown = {
  movement: Movement;
  lines: SquadLine[];
  /** name of the squad; null for everybody */
  squad: string | null;
  /** what chooses squad and movement */
  choice: ReactNode;
};

/** A squad in a movement, both to choose: what `Faults` and the summary of a season are made of. */
export const InSquad = ({
  empty,
  children,
}: {
  /** where nothing was ever logged */
  empty: ReactNode;
  children: (shown: Shown) => ReactNode;
}) => {
  const [chosenMovement, setAsked] = useState<string | null>(null);
  const [squad, setSquad] = useState(ALL);
  const athletes = useAthletes();
  const faults = useSquadFaults(chosenMovement);
  const catalogue = useCatalogue();
  const shown = (people: Athlete[], { movement: code, movements, items }: SquadFaults) => {
    if (code === null) return empty;
    const byId = new Map(people.map((person) => [person.id, person]));
    const squads = [ALL, ...[...new Set(people.map((person) => person.squad))].sort()];
    const choice = (
      <div className="row-line no-print">
        <Segments
          label="Squad"
          options={squads.map((value) => ({ value, label: value }))}
          value={squad}
          onChoose={setSquad}
        />
        {movements.length > 1 && (
          <Form.Select
            aria-label="Movement"
            style={{ width: 'auto' }}
            value={code}
            onChange={({ target: { value } }) =>
              void fetchDocuments([value]).then(() => setAsked(value))
            }
          >
            {movements.map((movement) => (
              <option key={movement} value={movement}>
                {catalogue.nameOf(movement)}
              </option>
            ))}
          </Form.Select>
        )}
      </div>
    );
    const lines = items.flatMap((item): SquadLine[] => {
      const athlete = byId.get(item.athleteId);
      return athlete && (squad === ALL || athlete.squad === squad) ? [{ ...item, athlete }] : [];
    });
    return children({
      movement: catalogue.of(code),
      lines,
      squad: squad === ALL ? null : squad,
      choice,
    });
  };
  return (
    <Loaded query={athletes} what="Getting the athletes …">
      {(people) => (
        <Loaded query={faults} what="Working out the rates …">
          {(seen) => shown(people, seen)}
        </Loaded>
      )}
    </Loaded>
  );
};
