import type { Foot } from '@gravek/core/feet';
import { extent } from 'd3-array';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { memo } from 'react';
import { useTime, type Player } from '../hearing/player';
import { withRoom } from './room';
import { useWidth } from './useWidth';

const LEFT = 34;
const RIGHT = 26;
const TICK_UP = 22;
const TICK_DOWN = 18;
/** Room over the ticks for the cadence, and under them for the names of phases. */
const CADENCE_ROOM = 40;
const PHASE_ROOM = 22;
const SECONDS_ROOM = 24;

type Contact = { timeS: number; foot: Foot; special: boolean };
type Span = { name: string; fromS: number; toS: number };
type X = ScaleLinear<number, number>;

/** The cadence over the ticks, written where there is room. */
const Cadence = ({
  contacts,
  cadences,
  x,
}: {
  contacts: readonly Contact[];
  cadences: readonly number[];
  x: X;
}) => {
  const [low = 0, high = 1] = extent(cadences);
  const y = scaleLinear([low, Math.max(high, low + 1)], [40, 20]);
  const places = contacts.map((contact, i) => ({ ...contact, i, spm: cadences[i]! }));
  const path = line<(typeof places)[number]>(
    (at) => x(at.timeS),
    (at) => y(at.spm),
  )(places);
  const every = Math.max(1, Math.ceil(places.length / 6));
  const labelled = places.filter(
    (at) => at.special || at.i % every === 0 || at.i === places.length - 1,
  );
  const shown = withRoom(labelled, (at) => x(at.timeS), 34);
  return (
    <>
      <path d={path ?? ''} fill="none" stroke="var(--ink-quiet)" strokeWidth="1.6" />
      {[...shown].map((at) => (
        <text
          key={at.i}
          className="quiet-label"
          x={x(at.timeS)}
          y={y(at.spm) - 7}
          textAnchor={at.i === places.length - 1 ? 'end' : 'middle'}
        >
          {Math.round(at.spm)}
        </text>
      ))}
      <text className="quiet-label" x={2} y={y(low) + 4}>
        spm
      </text>
    </>
  );
};

/** Which phase the contacts belong to, under the ticks. */
const Phases = ({ phases, x, y }: { phases: readonly Span[]; x: X; y: number }) =>
  phases.map((phase, i) => {
    const [from, to] = [x(phase.fromS), x(phase.toS)];
    return (
      <g key={i}>
        <path
          d={`M${from + 1},${y} v5 H${Math.max(from + 2, to - 1)} v-5`}
          className="phase-span"
        />
        {to - from > 6.3 * phase.name.length && (
          <text className="quiet-label" x={(from + to) / 2} y={y + 19} textAnchor="middle">
            {phase.name}
          </text>
        )}
      </g>
    );
  });

const Cursor = ({ player, x, y }: { player: Player; x: X; y: number }) => {
  const at = x(useTime(player));
  return <line className="beat-cursor" x1={at} x2={at} y1={y - 28} y2={y + 28} />;
};

/** What does not move while it plays. */
const Ticks = memo(({ contacts, x, y }: { contacts: readonly Contact[]; x: X; y: number }) =>
  contacts.map((contact, i) => (
    <line
      key={i}
      x1={x(contact.timeS)}
      x2={x(contact.timeS)}
      y1={y}
      y2={contact.foot === 'left' ? y - TICK_UP : y + TICK_DOWN}
      stroke={contact.special ? 'var(--clay)' : 'var(--ink)'}
      strokeWidth="3"
    />
  )),
);

/**
 * One tick a contact on a time axis, left above and right below; over it the cadence of a run-up, under
 * it the phases of a sequence.
 */
export const Beats = ({
  contacts,
  totalTimeS,
  cadences,
  phases,
  player,
}: {
  contacts: readonly Contact[];
  totalTimeS: number;
  /** steps a minute of each contact */
  cadences?: readonly number[];
  phases?: readonly Span[];
  player?: Player | undefined;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(1100);
  const endS = Math.max(0.1, totalTimeS);
  const x = scaleLinear([0, endS], [LEFT, width - RIGHT]);
  const y = (cadences ? CADENCE_ROOM : 12) + TICK_UP;
  const height = y + TICK_DOWN + (phases ? PHASE_ROOM + 6 : 0) + SECONDS_ROOM;
  const seconds = x.ticks(Math.min(8, Math.max(2, Math.floor(endS * 2))));
  const ends = cadences
    ? `, cadence from ${Math.round(cadences[0] ?? 0)} to ${Math.round(cadences.at(-1) ?? 0)} steps a minute`
    : ', by phase';
  return (
    <div ref={ref}>
      <svg
        className="strip"
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`The rhythm: ${contacts.length} contacts in ${totalTimeS.toFixed(1)} seconds${ends}`}
      >
        <line x1={LEFT} x2={width - RIGHT} y1={y} y2={y} stroke="var(--ink-quiet)" />
        {cadences && <Cadence contacts={contacts} cadences={cadences} x={x} />}
        <Ticks contacts={contacts} x={x} y={y} />
        {phases && (
          <Phases
            phases={phases.map((phase) => ({ ...phase, toS: Math.min(phase.toS, totalTimeS) }))}
            x={x}
            y={y + TICK_DOWN + 5}
          />
        )}
        {seconds.map((second) => (
          <text
            key={second}
            className="quiet-label"
            x={x(second)}
            y={height - 6}
            textAnchor="middle"
          >
            {second} s
          </text>
        ))}
        {player && <Cursor player={player} x={x} y={y} />}
      </svg>
    </div>
  );
};
