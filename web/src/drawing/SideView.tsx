import { frontFigureOf } from '@gravek/core/body/frontView';
import type { PostureAngles } from '@gravek/core/body/posture';
import type { PostureLook } from '@gravek/core/body/keyframes';
import {
  sideAt,
  type SideContact,
  type SideMoment,
  type SideView as View,
} from '@gravek/core/body/sideView';
import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import { Length } from '../controls/Figure';
import { type Player, useTime } from '../hearing/player';
import { useLengthStyle } from '../member/member';
import { ANGLE, degrees, Figure, FRONT_WIDTH, LOOK_NAMES, SIZE } from './BodyFigure';
import { Front, Sheet } from './BodySheet';

/** The moment that the side view stands at: while nothing plays, the first contact is there to be seen. */
const useMoment = (player: Player, view: View, layout: Layout, body: Body): SideMoment | null => {
  const timeS = useTime(player);
  const rest = timeS >= layout.totalTimeS - 1e-9;
  const shownS = rest ? (view.contacts[0]?.timeS ?? view.keys[0]!.timeS) : timeS;
  return sideAt(view, layout, body, shownS);
};

export const SideDrawing = ({
  view,
  layout,
  body,
  player,
  nameOf,
}: {
  view: View;
  layout: Layout;
  body: Body;
  player: Player;
  nameOf: (phase: string) => string;
}) => {
  const moment = useMoment(player, view, layout, body);
  return (
    <div>
      <div className="side-figures">
        <Sheet
          label={
            moment
              ? `The body from the side: ${nameOf(moment.phase)}`
              : 'Nothing to see from the side here'
          }
        >
          {moment ? (
            <Figure
              figure={moment.figure}
              on={moment.on}
              looks={view.looks.get(moment.phase) ?? []}
              body={body}
              topM={view.topM}
              wall={moment.wall}
              boxM={moment.boxM}
            />
          ) : (
            <text className="plan-tag" x={SIZE.width / 2} y={SIZE.height / 2} textAnchor="middle">
              Here the feet count, not the posture.
            </text>
          )}
        </Sheet>
        {moment?.feet && (
          <Sheet label={`The body from the front: ${nameOf(moment.phase)}`} width={FRONT_WIDTH}>
            <Front
              figure={frontFigureOf(moment.figure, moment.on, moment.feet, body.heightM)}
              body={body}
              topM={view.topM}
            />
          </Sheet>
        )}
      </div>
      <div className="quiet small-text text-center" aria-live="off">
        {moment && (
          <>
            {nameOf(moment.phase)}
            {moment.contact !== null && `, contact ${moment.contact}`}
          </>
        )}
      </div>
    </div>
  );
};

/** Contacts of a phase that are all alike, from the first to the last of them; or a posture that is held. */
type Alike = { contact: SideContact; toN: number };
type Seen = PostureAngles & Pick<SideContact, 'phase' | 'timeS'> & Partial<SideContact>;

const told = (contact: SideContact): string =>
  [
    contact.phase,
    ...Object.values(ANGLE).map((angle) => Math.round(contact[angle])),
    ...[contact.footToHipM, contact.hipTravelM ?? -9].map((m) => Math.round(m * 100)),
    Math.round(contact.trunkRiseDeg ?? -99),
  ].join();

const alike = (contacts: readonly SideContact[]): Alike[] => {
  const rows: Alike[] = [];
  for (const contact of contacts) {
    const last = rows.at(-1);
    if (last && told(last.contact) === told(contact)) last.toN = contact.n;
    else rows.push({ contact, toN: contact.n });
  }
  return rows;
};

/** Contacts and what is held between them, in the order in which they come. */
const rowsOf = (view: View): { seen: Seen; which: string }[] =>
  [
    ...view.held.map((seen): { seen: Seen; which: string } => ({ seen, which: 'held' })),
    ...alike(view.contacts).map(({ contact, toN }) => ({
      seen: contact,
      which: toN === contact.n ? `${toN}` : `${contact.n}–${toN}`,
    })),
  ].sort((a, b) => a.seen.timeS - b.seen.timeS);

const Row = ({
  seen,
  which,
  looks,
  name,
  onShow,
}: {
  seen: Seen;
  /** which contacts it is; held, where none lands */
  which: string;
  looks: readonly PostureLook[];
  name: string;
  onShow: () => void;
}) => {
  const style = useLengthStyle();
  return (
    <tr>
      <td>
        <button
          type="button"
          aria-label={seen.n === undefined ? `Show ${name}` : `Show contact ${seen.n}`}
          onClick={onShow}
        >
          <span className="figure">{which}</span>
        </button>
      </td>
      <td>{name}</td>
      {(['trunk', 'hip', 'knee', 'shin', 'ankle'] as const).map((look) => (
        <td key={look} className={looks.includes(look) ? 'num' : 'num quiet'}>
          <span className="figure">{degrees(seen, look)}</span>
        </td>
      ))}
      <td className="num">
        <Length m={seen.footToHipM} style={{ ...style, small: true }} />
      </td>
      <td className="num">
        {typeof seen.hipTravelM === 'number' && <Length m={seen.hipTravelM} style={style} />}
      </td>
      <td className="num">
        {typeof seen.trunkRiseDeg === 'number' && (
          <span className="figure">{Math.round(seen.trunkRiseDeg)}°</span>
        )}
      </td>
    </tr>
  );
};

/**
 * The body from the side beside the plan, to the athlete's own height and leg: a figure that moves with
 * play, and at each contact its angles, the foot against the hip, the way of the hip and the rise of the
 * trunk.
 */
export const SideView = ({
  view,
  layout,
  body,
  player,
  nameOf,
}: {
  view: View;
  layout: Layout;
  body: Body;
  player: Player;
  nameOf: (phase: string) => string;
}) => (
  <section aria-label="From the side">
    <h2 className="mb-1">
      {view.fronts.size > 0 ? 'From the side and from the front' : 'From the side'}
    </h2>
    <div className={view.fronts.size > 0 ? 'side-columns two-figures' : 'side-columns'}>
      <SideDrawing view={view} layout={layout} body={body} player={player} nameOf={nameOf} />
      <div className="table-scroll">
        <table className="grid-table side-table">
          <caption className="visually-hidden">The posture asked at each contact</caption>
          <thead>
            <tr>
              <th>Contact</th>
              <th>Phase</th>
              {(['trunk', 'hip', 'knee', 'shin', 'ankle', 'foot'] as const).map((look) => (
                <th key={look} className="num">
                  {LOOK_NAMES[look]}
                </th>
              ))}
              <th className="num">Hip travels</th>
              <th className="num">Trunk up</th>
            </tr>
          </thead>
          <tbody>
            {rowsOf(view).map(({ seen, which }) => (
              <Row
                key={`${seen.phase}/${which}`}
                seen={seen}
                which={which}
                looks={view.looks.get(seen.phase) ?? []}
                name={nameOf(seen.phase)}
                onShow={() => player.setState({ timeS: seen.timeS, playing: false })}
              />
            ))}
          </tbody>
        </table>
        <p className="quiet small-text mb-0 mt-1">
          Asked of this body, by the leg it lands on: trunk and shin from upright, towards the way;
          hip, knee and ankle inside the joint; behind the hip counts as minus.
        </p>
      </div>
    </div>
  </section>
);
