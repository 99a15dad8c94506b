import { callEvents, type CallAsk, type CallEvent } from '@gravek/core/calls';
import type { Turn } from '@gravek/core/runOrder';
import type { Outline } from '@gravek/contract/approach';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Exit } from '@gravek/library/field/reads';
import { useState } from 'react';
import { useCaller, type Calling } from '../hearing/caller';

/** A tempo goes on for so long, or until it is stopped. */
const TEMPO_S = 60;
const NUMBERS = ['one', 'two', 'three', 'four', 'five', 'six'] as const;

const wordOf = (name: string, i: number) => {
  const side = /\b(left|right)\b/i.exec(name)?.[1]?.toLowerCase();
  return side === 'left' || side === 'right' ? side : (NUMBERS[i] ?? null);
};

export type SetCall = Calling & {
  /** begins the call of a turn; nothing where the set has none */
  call: (turn: Turn) => void;
  /** the exit that was called, and when it sounded; null where none was */
  read: { exit: Exit; atMs: number } | null;
};

/**
 * The call of a drill set, made anew for each rep.
 *
 * @param exits those that may be called
 */
export const useSetCall = (
  set: DrillSet,
  exits: readonly Exit[],
  outline: Outline | null,
): SetCall => {
  const caller = useCaller(set.call !== null);
  const [kept, setKept] = useState<readonly CallEvent[]>([]);
  const askOf = (turn: Turn): CallAsk | null => {
    const { call } = set;
    switch (call?.kind) {
      case 'tempo':
        return { ...call, seconds: TEMPO_S };
      case 'rhythm':
        return outline && { kind: 'rhythm', beats: outline.contacts };
      case 'steps': {
        const asked = /\blead=(left|right)\b/.exec(turn.variant)?.[1];
        const first =
          asked === 'right' || asked === 'left' ? asked : (outline?.firstFoot ?? 'left');
        return { ...call, first };
      }
      case 'reads':
        return exits.length === 0
          ? null
          : {
              kind: 'reads',
              options: exits.map(({ name, weight }, i) => ({ weight, word: wordOf(name, i) })),
            };
      case 'start':
        return call;
      case undefined:
        return null;
    }
  };
  const read = caller.events.find((one) => one.kind === 'read');
  const atMs = read && caller.now ? caller.soundedMs(read) : null;
  return {
    ...caller,
    events: kept,
    call: (turn) => {
      const ask = askOf(turn);
      if (!ask) return;
      const events = callEvents(ask, Math.floor(Math.random() * 1e9));
      setKept(events);
      caller.start(events);
    },
    read: read && atMs !== null ? { exit: exits[read.option!]!, atMs } : null,
  };
};
