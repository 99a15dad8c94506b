import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Lists that may differ when one of the club's topics has changed. */
const TOUCHED: Record<string, readonly string[]> = {
  club: ['me', 'club'],
  athletes: ['athletes', 'reps'],
  movements: ['movements', 'reps'],
  approaches: ['approaches', 'reps'],
  sessions: ['sessions', 'reps'],
  reps: ['reps', 'sessions'],
};

const GATHER_MS = 400;

/** Keeps what is shown current while others in the club change it. */
export const useChanges = (signedIn: boolean): void => {
  const client = useQueryClient();
  useEffect(() => {
    if (!signedIn) return undefined;
    const source = new EventSource('/api/changes');
    const due = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    source.onmessage = ({ data }) => {
      for (const key of TOUCHED[String(data)] ?? []) due.add(key);
      timer ??= setTimeout(() => {
        timer = undefined;
        for (const key of due) void client.invalidateQueries({ queryKey: [key] });
        due.clear();
      }, GATHER_MS);
    };
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [client, signedIn]);
};
