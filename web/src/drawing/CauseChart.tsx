import type { Fault } from '@gravek/contract/movement';
import type { LinkEvidence } from '@gravek/core/cue/causeLinks';
import { groupBy } from '@gravek/core/session/repLog';
import { linkHorizontal } from 'd3-shape';

const NODE = { width: 158, height: 38 };
const GAP = { x: 62, y: 12 };
const PAD = 4;

type Node = { fault: Fault; column: number; row: number };

/** Each fault one column after the last of its causes; in a column, near the causes it has. */
const nodesOf = (faults: readonly Fault[]): Node[] => {
  const causes = new Map(
    faults.map((fault) => [
      fault.code,
      faults.filter((other) => other.leadsTo.includes(fault.code)).map((fault) => fault.code),
    ]),
  );
  const columns = new Map<string, number>();
  const columnOf = (code: string, way: readonly string[] = []): number => {
    const columnFound = columns.get(code);
    if (columnFound !== undefined) return columnFound;
    // A circle is refused elsewhere; here it must only not hang.
    const causesLeft = (causes.get(code) ?? []).filter((cause) => !way.includes(cause));
    const column = Math.max(-1, ...causesLeft.map((cause) => columnOf(cause, [...way, code]))) + 1;
    columns.set(code, column);
    return column;
  };
  faults.forEach((fault) => columnOf(fault.code));
  const rows = new Map<string, number>();
  const nodes: Node[] = [];
  const last = Math.max(0, ...columns.values());
  for (let column = 0; column <= last; column += 1) {
    const weight = (fault: Fault): number => {
      const causeRows = (causes.get(fault.code) ?? []).map((cause) => rows.get(cause) ?? 0);
      return causeRows.length === 0
        ? 0
        : causeRows.reduce((sum, row) => sum + row, 0) / causeRows.length;
    };
    faults
      .filter((fault) => columns.get(fault.code) === column)
      .sort((a, b) => weight(a) - weight(b))
      .forEach((fault, row) => {
        rows.set(fault.code, row);
        nodes.push({ fault, column, row });
      });
  }
  return nodes;
};

const placed = ({ column, row }: Node): [number, number] => [
  PAD + column * (NODE.width + GAP.x),
  PAD + row * (NODE.height + GAP.y),
];

const link = linkHorizontal();

/**
 * What causes what: earlier faults to the left, an arrow to each that they bring about.
 *
 * @param rates how often somebody shows each fault, 0–1; in its box
 * @param links what was found of each link; a missing one is drawn as well
 */
export const CauseChart = ({
  faults,
  chosen,
  onChoose,
  rates,
  links = [],
}: {
  faults: readonly Fault[];
  chosen: string | null;
  onChoose: (code: string) => void;
  rates?: ReadonlyMap<string, number> | undefined;
  links?: readonly LinkEvidence[];
}) => {
  const verdicts = new Map(links.map(({ from, to, verdict }) => [`${from}>${to}`, verdict]));
  const missing = groupBy(
    links.filter(({ verdict }) => verdict === 'missing'),
    ({ from }) => from,
  );
  const nodes = nodesOf(faults);
  const find = new Map(nodes.map((node) => [node.fault.code, node]));
  const width = Math.max(...nodes.map((node) => placed(node)[0])) + NODE.width + PAD;
  const height = Math.max(...nodes.map((node) => placed(node)[1])) + NODE.height + PAD;
  const touches = (fault: Fault, to: string): boolean => chosen === fault.code || chosen === to;
  return (
    <div className="table-scroll" tabIndex={0} role="group" aria-label="Faults and what they cause">
      <svg
        className="chart causes"
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
      >
        {nodes.flatMap((node) =>
          [
            ...node.fault.leadsTo,
            ...(missing.get(node.fault.code) ?? []).map(({ to }) => to),
          ].flatMap((to) => {
            const end = find.get(to);
            if (!end) return [];
            const [x, y] = placed(node);
            const [ex, ey] = placed(end);
            const path = link({
              source: [x + NODE.width, y + NODE.height / 2],
              target: [ex - 5, ey + NODE.height / 2],
            });
            const verdict = verdicts.get(`${node.fault.code}>${to}`);
            const middle = [(x + NODE.width + ex) / 2, (y + ey + NODE.height) / 2];
            return [
              <g
                key={`${node.fault.code}>${to}`}
                className={`cause ${touches(node.fault, to) ? 'on' : ''} ${verdict ?? ''}`}
              >
                <path d={path ?? ''} />
                <path
                  className="cause-head"
                  d={`M${ex - 8},${ey + NODE.height / 2 - 4} l6,4 l-6,4 Z`}
                />
                {verdict === 'against' && (
                  <path
                    className="cause-cross"
                    d={`M${middle.join()} m-6,-6 l12,12 m-12,0 l12,-12`}
                  />
                )}
              </g>,
            ];
          }),
        )}
        {nodes.map((node) => {
          const { fault } = node;
          const [x, y] = placed(node);
          const pressed = chosen === fault.code;
          const rate = rates?.get(fault.code);
          return (
            <g
              key={fault.code}
              className={pressed ? 'cause-node on' : 'cause-node'}
              role="button"
              tabIndex={0}
              aria-pressed={pressed}
              aria-label={`${fault.name}, severity ${fault.severity} of 3${fault.safety ? ', can hurt' : ''}${rate === undefined ? '' : `, ${Math.round(rate * 100)} % of reps`}`}
              transform={`translate(${x},${y})`}
              onClick={() => onChoose(fault.code)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                onChoose(fault.code);
              }}
            >
              <rect width={NODE.width} height={NODE.height} rx="6" />
              <text x="9" y="16">
                {fault.name.length > 23 ? `${fault.name.slice(0, 22)}…` : fault.name}
              </text>
              {rate !== undefined && (
                <text className="cause-rate" x={NODE.width - 8} y="31" textAnchor="end">
                  {Math.round(rate * 100)} %
                </text>
              )}
              <g className="severity">
                {Array.from({ length: fault.severity }, (_, i) => (
                  <rect key={i} x={9 + i * 12} y={24} width="9" height="5" />
                ))}
                {fault.safety && (
                  <text className="hurts" x={12 + fault.severity * 12} y="30">
                    can hurt
                  </text>
                )}
              </g>
            </g>
          );
        })}
      </svg>
    </div>
  );
};
