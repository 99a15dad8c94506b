import type { Foot } from '@gravek/core/feet';
import { type CallAsk, type CallEvent, callEvents } from '@gravek/core/session/calls';
import type { Turn } from '@gravek/core/session/runOrder';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Outline } from '@gravek/contract/plan';
import type { Exit } from '@gravek/library/field/reads';
import { useState } from 'react';
import { type Calling, useCaller } from '../../hearing/caller';

/** A tempo goes on for so long, or until it is stopped. */
const TEMPO_S = 60;
/** Minutes are beaten through, ten at most at a time. */
const LONGEST_TEMPO_S = 600;
const NUMBERS = ['one', 'two', 'three', 'four', 'five', 'six'] as const;

/** An exit as it may be called; what is left for some and right for others is called by its number. */
type Callable = Exit & { isTwoSided?: boolean };

const wordOf = ({ name, isTwoSided }: Callable, i: number) => {
  const side = isTwoSided ? undefined : /\b(left|right)\b/i.exec(name)?.[1]?.toLowerCase();
  return side === 'left' || side === 'right' ? side : (NUMBERS[i] ?? null);
};

export type SetCall = Calling & {
  /** begins the call of a turn; nothing where the set has none */
  call: (turn: Pick<Turn, 'variant'>) => void;
  /** the exit that was called, and from when until when that sounded; null where none was */
  read: { exit: Exit; fromMs: number; untilMs: number } | null;
  /** from when until when "go" sounded; null where it was not called */
  go: { fromMs: number; untilMs: number } | null;
};

/**
 * The call of a drill set, made anew for each rep.
 *
 * @param exits those that may be called
 * @param firstFoot on which all who go begin; null where not all do
 */
export const useSetCall = (
  set: Pick<DrillSet, 'call'> & Partial<Pick<DrillSet, 'target' | 'amount'>>,
  exits: readonly Callable[],
  outline: Outline | null,
  firstFoot: Foot | null = outline?.firstFoot ?? 'left',
): SetCall => {
  const caller = useCaller(set.call !== null);
  const [kept, setKept] = useState<readonly CallEvent[]>([]);
  const askOf = (turn: Pick<Turn, 'variant'>): CallAsk | null => {
    const { call } = set;
    switch (call?.kind) {
      case 'tempo':
        return {
          ...call,
          seconds:
            set.target === 'minutes' ? Math.min(LONGEST_TEMPO_S, 60 * (set.amount ?? 1)) : TEMPO_S,
        };
      case 'rhythm':
        return outline && { kind: 'rhythm', beats: outline.contacts };
      case 'steps': {
        const leadFoot = /\blead=(left|right)\b/.exec(turn.variant)?.[1];
        return {
          ...call,
          first: leadFoot === 'right' || leadFoot === 'left' ? leadFoot : firstFoot,
        };
      }
      case 'reads':
        return exits.length === 0
          ? null
          : {
              kind: 'reads',
              options: exits.map((exit, i) => ({ weight: exit.weight, word: wordOf(exit, i) })),
            };
      case 'start':
        return call;
      case undefined:
        return null;
    }
  };
  const read = caller.events.find((event) => event.kind === 'read');
  const sounded = read && caller.now ? caller.sounded(read) : null;
  const go = caller.events.find((event) => event.kind === 'go');
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
    read: read && sounded ? { exit: exits[read.option!]!, ...sounded } : null,
    go: go && caller.now ? caller.sounded(go) : null,
  };
};
