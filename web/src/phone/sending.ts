import { create } from 'zustand';

type Sending = {
  /** idle, under way, no server, or the server answers but does not take it */
  state: 'idle' | 'sending' | 'unreachable' | 'held';
  /** what the server says when it does not take what is sent */
  why: string | null;
  /** batches that the server took since the page was loaded */
  taken: number;
};

/** How sending goes: known to every place, also to those that load no database of the phone. */
export const useSending = create<Sending>(() => ({ state: 'idle', why: null, taken: 0 }));
