import type { OwnCounted } from '@gravek/contract/ownView';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import { dayName } from '../controls/dates';

const SHOWN = 8;

/** What somebody has counted alone: shown beside what coaches have seen, and never mixed into it. */
export const OwnCounts = ({ athleteId }: { athleteId: string }) => {
  const { data } = useQuery({
    queryKey: ['athletes', athleteId, 'own-counts'],
    queryFn: () => api.get<{ items: OwnCounted[] }>(`/athletes/${athleteId}/own-counts`),
  });
  if (!data || data.items.length === 0) return null;
  return (
    <section className="panel stack" aria-label="Own count">
      <h2 className="mb-0">Own count</h2>
      <p className="small-text quiet mb-0">
        Worked off alone and counted by the athlete; no rate, cue or target goes by it.
      </p>
      <ul className="list-plain mb-0">
        {data.items.slice(0, SHOWN).map(({ date, name, made, tried, bestHeldS }, i) => (
          <li key={i} className="row-line">
            <span>
              {name} <span className="quiet small-text">{dayName(date)}</span>
            </span>
            <span className="ms-auto figure">
              {bestHeldS === null ? (
                <>
                  {made}
                  <span className="unit"> of {tried}</span>
                </>
              ) : (
                <>
                  {bestHeldS.toFixed(1)}
                  <span className="unit"> s at best of {tried}</span>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
};
