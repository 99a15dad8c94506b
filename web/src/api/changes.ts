import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useSending } from '../phone/sending';
import { api } from './client';
import { whenCounted } from './uncounted';

/** Lists that may differ when one of the club's topics has changed. */
const TOUCHED: Record<string, readonly string[]> = {
  club: ['me', 'club', 'faults', 'run', 'today'],
  athletes: ['athletes', 'run', 'faults', 'today'],
  movements: ['movements', 'run', 'faults', 'today'],
  grounds: ['grounds', 'run', 'today'],
  approaches: ['approaches', 'run', 'today'],
  sessions: ['sessions', 'run', 'faults', 'today'],
  reps: ['log'],
  counts: ['faults', 'sessions', 'today'],
  films: ['films'],
  clock: ['clock'],
};

const GATHER_MS = 400;
/** The server says that it is there every 25 s; a stream that is silent for longer is dead. */
const SILENT_MS = 65_000;
const LOOK_MS = 10_000;

/**
 * Hears what others in the club change.
 *
 * @param onTopic called with a topic, or with `all` when changes may have been missed
 * @returns a function that stops the listening
 */
export const hearChanges = (onTopic: (topic: string) => void): (() => void) => {
  let source: EventSource;
  let heardMs = Date.now();
  let opened = false;
  const open = (): void => {
    heardMs = Date.now();
    source = new EventSource('/api/changes');
    source.onopen = () => {
      heardMs = Date.now();
      // What was told while nobody listened is not known.
      if (opened) onTopic('all');
      opened = true;
    };
    source.onerror = () => {
      // Refused for good: whether the sign-in has ended is said to a question.
      if (source.readyState === EventSource.CLOSED) void api.get('/me').catch(() => undefined);
    };
    source.onmessage = ({ data }) => {
      heardMs = Date.now();
      if (data !== 'alive') onTopic(String(data));
    };
  };
  open();
  const look = setInterval(() => {
    if (source.readyState !== EventSource.CLOSED && Date.now() - heardMs < SILENT_MS) return;
    source.close();
    open();
  }, LOOK_MS);
  return () => {
    clearInterval(look);
    source.close();
  };
};

/** Keeps what is shown current while others in the club change it, and this device sends what waited. */
export const useChanges = (onAthletes: () => void): void => {
  const client = useQueryClient();
  useEffect(() => {
    const due = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hear = (topic: string): void => {
      due.add(topic);
      timer ??= setTimeout(() => {
        timer = undefined;
        const all = due.has('all');
        if (all || due.has('athletes')) onAthletes();
        if (all) void client.invalidateQueries();
        else {
          for (const key of new Set([...due].flatMap((table) => TOUCHED[table] ?? []))) {
            void client.invalidateQueries({ queryKey: [key] });
          }
        }
        due.clear();
      }, GATHER_MS);
    };
    const stop = hearChanges(hear);
    // What this device sent may have been stored before the stream was open.
    const forget = useSending.subscribe((now, before) => {
      if (now.taken === before.taken) return;
      hear('reps');
      hear('counts');
    });
    const stopLooking = whenCounted(() => hear('counts'));
    return () => {
      clearTimeout(timer);
      stopLooking();
      forget();
      stop();
    };
  }, [client, onAthletes]);
};
