import type { Layout } from '@gravek/core/layout/shape';
import type { CallEvent } from '@gravek/core/session/calls';
import type { Call } from '@gravek/contract/drillSet';
import { Volume2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { PrintStrip } from '../../drawing/PrintStrip';
import type { SetCall } from './useSetCall';

/** A call in a line, as the coach has set it. */
export const callWords = (call: Call | null): string => {
  switch (call?.kind) {
    case 'tempo':
      return `steady, ${call.cadenceSpm} a minute`;
    case 'rhythm':
      return 'the rhythm of the plan';
    case 'steps':
      return `${call.steps} single steps on the call, then still`;
    case 'reads':
      return 'a way is called';
    case 'start':
      return 'marks, set, go';
    case undefined:
      return '';
  }
};

const said = (event: CallEvent | null, read: SetCall['read'], running: boolean): string => {
  if (event?.kind === 'read') return read?.exit.name ?? '';
  if (event?.kind === 'hold') return 'hold';
  if (event?.kind === 'go') return 'go';
  if (!running || !event) return '';
  return event.kind === 'step' ? (event.foot ?? '') : (event.word ?? '');
};

/** The beats of the feet in time, where it is not known where they go. */
const Beats = ({ events, passed }: { events: readonly CallEvent[]; passed: number }) => {
  const shown = events.filter((event) => event.kind === 'step').slice(0, 24);
  return (
    <svg viewBox="0 0 240 44" aria-hidden preserveAspectRatio="none">
      {shown.map((event, i) => {
        const from = shown[0]!.timeS;
        const span = Math.max(0.1, shown.at(-1)!.timeS - from);
        return (
          <rect
            key={i}
            x={2 + (230 * (event.timeS - from)) / span}
            y={event.foot === 'left' ? 0 : 16}
            width="5"
            height={event.foot === 'left' ? 44 : 28}
            fill={events.indexOf(event) <= passed ? 'var(--ink)' : 'var(--ink-quiet)'}
          />
        );
      })}
    </svg>
  );
};

/**
 * Where the feet go; where a set is called, as it is called: the foot that is called now, the word, a flash for who
 * cannot hear.
 */
export const CallBar = ({
  call,
  at,
  layout,
}: {
  call: Call | null;
  at: SetCall;
  /** where the feet go; null where that is not known */
  layout: Layout | null;
}) => {
  if (!call) return layout && <PrintStrip layout={layout} called={null} />;
  const { events, now, running } = at;
  const passed = now ? events.indexOf(now) : -1;
  const word = said(now, at.read, running);
  const called = events.filter((event, i) => event.kind === 'step' && i <= passed).length;
  return (
    <div
      className="call-bar"
      data-flash={running && now && now.kind !== 'count' ? passed % 2 : undefined}
      data-running={running || undefined}
    >
      {layout ? (
        <PrintStrip layout={layout} called={running ? called : null} />
      ) : (
        <Beats events={events} passed={passed} />
      )}
      <span className="call-word" role="status">
        {word || <span className="quiet small-text">{callWords(call)}</span>}
      </span>
    </div>
  );
};

/** Begins and stops the call of the turn that is up. */
export const CallButton = ({
  call,
  at,
  onCall,
}: {
  call: Call;
  at: SetCall;
  onCall: () => void;
}) => (
  <Button
    variant="outline-dark"
    aria-label={at.running ? 'Stop the call' : `Call: ${callWords(call)}`}
    onClick={() => (at.running ? at.stop() : onCall())}
  >
    <Volume2 size={18} aria-hidden /> {at.running ? 'Stop' : 'Call'}
  </Button>
);
