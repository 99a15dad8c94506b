import type { RunAthlete } from '@gravek/contract/run';
import Button from 'react-bootstrap/Button';
import { queue, type QueuedRep } from '../phone/store';

/** Reps that the server would not take: they count for nothing, and wait until the coach lets go. */
export const Refused = ({
  waiting,
  athletes,
}: {
  waiting: readonly QueuedRep[];
  athletes: readonly RunAthlete[];
}) => {
  const refused = waiting.filter((rep) => rep.refused);
  if (refused.length === 0) return null;
  return (
    <div className="note note-wrong small-text" role="alert">
      Not taken by the server, so not counted:
      <ul className="plain-points mb-0">
        {refused.map((rep) => (
          <li key={rep.id}>
            {athletes.find((athlete) => athlete.id === rep.athleteId)?.name ?? 'Somebody'}, set{' '}
            {rep.set} rep {rep.rep}: {rep.refused}
          </li>
        ))}
      </ul>
      <Button
        variant="link"
        className="p-0 align-baseline small-text"
        onClick={() => void queue.bulkDelete(refused.map((rep) => rep.id))}
      >
        Let go
      </Button>
    </div>
  );
};
