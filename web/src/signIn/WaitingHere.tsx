import { useQuery } from '@tanstack/react-query';
import { wasHereBefore } from '../api/door';

/** How many reps wait on this device; asked for where somebody was here before, since the phone's database is large. */
export const WaitingHere = () => {
  const { data = 0 } = useQuery({
    queryKey: ['waiting-here'],
    enabled: wasHereBefore(),
    queryFn: async () =>
      (await import('../phone/store')).queue.filter((rep) => !rep.refused).count(),
  });
  if (data === 0) return null;
  return (
    <p className="small-text quiet mb-0" role="status">
      {data === 1 ? 'One rep waits' : `${data} reps wait`} on this device to be sent by whoever
      logged {data === 1 ? 'it' : 'them'}.
    </p>
  );
};
