import { seriesStand } from '@gravek/core/session/seriesNext';
import { counted } from '@gravek/core/words';
import type { OwnCount, OwnItem, OwnList } from '@gravek/contract/ownView';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { clockMs } from '../controls/clock';
import { dayName } from '../controls/dates';
import { CallBar, CallButton } from '../parts/field/CallBar';
import { useSetCall } from '../parts/field/useSetCall';
import type { Counts } from './useCounts';

/** A phone that was put away while it timed. */
const LONGEST_S = 3600;

/** Whether a try is as it was asked: held for as long as was wanted, else made or done. */
const isMade = (list: OwnList, { made, heldS }: OwnCount): boolean =>
  list.counts === 'seconds' ? (heldS ?? 0) >= (list.heldS ?? 0) : made === true;

const standOf = (list: OwnList, counts: readonly OwnCount[]) => {
  const items = list.items.map(({ side, variant }) => {
    const tries = counts.filter((count) => count.side === side && count.variant === variant);
    return { made: tries.filter((count) => isMade(list, count)).length, tried: tries.length };
  });
  return { items, ...seriesStand(list.rules, items) };
};

/** What is asked of each item, in words. */
const rulesSaid = ({ counts, rules: { makes, tries }, heldS, items }: OwnList): string => {
  const each = items.length > 1 ? ' of each' : '';
  if (counts === 'makes') return `${counted(makes, 'make')}${each}, ${tries} tries at most`;
  return `${counted(tries, 'time')}${each}${heldS === null ? '' : `, ${heldS} s held`}`;
};

/** Held for as long as it goes: pressed at the beginning and at the end. */
const Hold = ({ onHeld }: { onHeld: (seconds: number) => void }) => {
  const [fromMs, setFromMs] = useState<number | null>(null);
  return (
    <button
      type="button"
      className="answer answer-held"
      onClick={() => {
        if (fromMs !== null)
          onHeld(Math.min(LONGEST_S, Math.round((clockMs() - fromMs) / 100) / 10));
        setFromMs(fromMs === null ? clockMs() : null);
      }}
    >
      {fromMs === null ? 'Hold' : 'Let go'}
      <small>{fromMs === null ? 'press as you begin' : 'press as you stop'}</small>
    </button>
  );
};

/** The item that comes: what to do, where the feet go, the call, and the own answer. */
const Item = ({
  list,
  item,
  stand: { made, tried },
  attempt,
  onTry,
}: {
  list: OwnList;
  item: OwnItem;
  stand: { made: number; tried: number };
  attempt: number;
  onTry: (came: Partial<OwnCount>) => void;
}) => {
  const { call: how, counts, rules } = list;
  const call = useSetCall(list, item.exits, item.outline);
  const come = (came: Partial<OwnCount>): void => {
    call.stop();
    onTry(came);
  };
  return (
    <>
      <div className="run-who">
        <div>
          <h4 className="mb-0">{item.words}</h4>
          <div className="quiet" role="status">
            {counts === 'makes'
              ? `${made} of ${rules.makes} made, try ${attempt} of ${rules.tries}`
              : `${tried + 1} of ${rules.tries}`}
          </div>
        </div>
      </div>
      <CallBar call={how} at={call} layout={item.layout} />
      {how && <CallButton call={how} at={call} onCall={() => call.call(item)} />}
      <div className="run-answers own-answers">
        <div className="two-answers">
          {counts === 'seconds' ? (
            <Hold onHeld={(heldS) => come({ heldS })} />
          ) : (
            <button type="button" className="answer" onClick={() => come({ made: true })}>
              {counts === 'makes' ? 'Made' : 'Done'}
            </button>
          )}
          {counts === 'makes' && (
            <button
              type="button"
              className="answer answer-missed"
              onClick={() => come({ made: false })}
            >
              Missed
            </button>
          )}
        </div>
      </div>
    </>
  );
};

/** A set of the coach's, worked off alone: the own count, which no coach’s figures mix with. */
const List = ({ list, counts }: { list: OwnList; counts: Counts }) => {
  const [isOpen, setOpen] = useState(false);
  const tries = counts.of(list);
  const { items, next, attempt, left } = standOf(list, tries);
  const last = tries.at(-1);
  const done = items.filter(({ made }) => made >= list.rules.makes).length;
  const held = Math.max(0, ...tries.map(({ heldS }) => heldS ?? 0));
  return (
    <div className="stack own-list" role="group" aria-label={list.name}>
      <div className="row-line">
        <div>
          <h3 className="mb-0">{list.name}</h3>
          <div className="quiet small-text">
            {dayName(list.date)} · {rulesSaid(list)}
          </div>
        </div>
        {!isOpen && next !== null ? (
          <Button className="ms-auto" onClick={() => setOpen(true)}>
            {tries.length === 0 ? 'Do it now' : 'Go on'}
          </Button>
        ) : (
          <span className="ms-auto figure">
            {done}
            <span className="unit"> of {items.length} done</span>
          </span>
        )}
      </div>
      {isOpen && list.how && <p className="small-text mb-0">{list.how}</p>}
      {isOpen && list.cue && <p className="film-cue mb-0">{list.cue}</p>}
      {isOpen && next !== null && (
        <Item
          key={`${next} ${tries.length}`}
          list={list}
          item={list.items[next]!}
          stand={items[next]!}
          attempt={attempt!}
          onTry={(came) => counts.add(list, list.items[next]!, came)}
        />
      )}
      {next === null && (
        <p className="mb-0" role="status">
          {left.length === 0
            ? 'All of it is done.'
            : `Done. Not made often enough: ${left.map((place) => list.items[place]!.words).join(' · ')}.`}
        </p>
      )}
      {held > 0 && <div className="small-text quiet">Longest held: {held.toFixed(1)} s</div>}
      {isOpen && last && (
        <Button
          variant="outline-dark"
          className="align-self-start"
          onClick={() => counts.undo(last)}
        >
          Undo the last
        </Button>
      )}
    </div>
  );
};

/** What can be worked off without a coach, the newest first. */
export const Alone = ({ lists, counts }: { lists: readonly OwnList[]; counts: Counts }) =>
  lists.length > 0 && (
    <section className="panel stack" aria-label="To work off alone">
      <h2 className="mb-0">To work off alone</h2>
      {lists.map((list) => (
        <List key={list.drillSetId} list={list} counts={counts} />
      ))}
      <p className="quiet small-text mb-0" role="status">
        {counts.waiting > 0
          ? `${counted(counts.waiting, 'try', 'tries')} waiting to be sent.`
          : 'Your coach sees what you count, beside what they have seen themselves.'}
      </p>
    </section>
  );
