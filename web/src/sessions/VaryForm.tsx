import type { Body } from '@gravek/core/layout/body';
import type { Side } from '@gravek/core/session/repLog';
import { keptVariants, struckKey, variantsOf } from '@gravek/core/session/variants';
import { isSequence } from '@gravek/contract/choices';
import type { Rung } from '@gravek/contract/rungs';
import { RUNGS } from '@gravek/contract/rungs';
import { PACES, type DrillSet } from '@gravek/contract/drillSet';
import { ENDINGS, isChain, MOVES } from '@gravek/library/movement/chains';
import { asDrilled } from '@gravek/library/movement/asDrilled';
import { spotsOf } from '@gravek/library/planning/place';
import { bySchools } from '@gravek/library/movement/schools';
import {
  drillOfBase,
  exitName,
  notJoined,
  paceWord,
  RUNG_NAMES,
  sideWords,
  variantWords,
  wayName,
  type Base,
} from '@gravek/library/session/work';
import { useState } from 'react';
import { Segments } from '../controls/Segments';

type Vary = DrillSet['vary'];

/** What is on of an axis, one chip a value. */
const Axis = <T extends string | number>({
  label,
  values,
  on,
  name,
  least = 0,
  onChange,
}: {
  label: string;
  values: readonly T[];
  on: readonly T[];
  name: (value: T) => string;
  /** so many stay on */
  least?: number;
  onChange: (on: T[]) => void;
}) => (
  <div className="axis" role="group" aria-label={label}>
    <span className="form-label mb-0">{label}</span>
    {/* What the movement does not have any more can still be taken out. */}
    {[...values, ...on.filter((value) => !values.includes(value))].map((value) => {
      const pressed = on.includes(value);
      return (
        <button
          key={value}
          type="button"
          className="pick"
          aria-pressed={pressed}
          disabled={pressed && on.length <= least}
          onClick={() =>
            onChange(
              pressed
                ? on.filter((chosen) => chosen !== value)
                : [
                    ...values.filter((other) => other === value || on.includes(other)),
                    ...on.filter((chosen) => !values.includes(chosen)),
                  ],
            )
          }
        >
          {name(value)}
        </button>
      );
    })}
  </div>
);

/** So many spots a set may have, and so long may the name of one be. */
const MOST_SPOTS = 12;
const LONGEST_SPOT = 30;

/** Spots on the ground by the coach's own names; makes are kept apart by them. */
const Spots = ({
  known,
  spots,
  onChange,
}: {
  /** of the movement's place: there it is drawn where it is */
  known: readonly string[];
  spots: readonly string[];
  onChange: (spots: string[]) => void;
}) => {
  const [typed, setTyped] = useState('');
  const named = typed
    .replace(/[^\p{L}\p{N} .,’'-]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, LONGEST_SPOT)
    .trim();
  const add = (): void => {
    if (named !== '' && !spots.includes(named)) onChange([...spots, named]);
    setTyped('');
  };
  return (
    <div className="axis" role="group" aria-label="Spots">
      <span className="form-label mb-0">Spots</span>
      {[...known, ...spots.filter((spot) => !known.includes(spot))].map((spot) => {
        const isOn = spots.includes(spot);
        return (
          <button
            key={spot}
            type="button"
            className="pick"
            aria-pressed={isOn}
            aria-label={known.includes(spot) ? undefined : `${spot}, take out`}
            disabled={!isOn && spots.length >= MOST_SPOTS}
            onClick={() =>
              onChange(isOn ? spots.filter((other) => other !== spot) : [...spots, spot])
            }
          >
            {spot}
          </button>
        );
      })}
      {spots.length < MOST_SPOTS && (
        <input
          className="form-control form-control-sm spot-input"
          aria-label="Another spot"
          placeholder="left wing"
          maxLength={LONGEST_SPOT}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={add}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            add();
          }}
        />
      )}
    </div>
  );
};

/** What differs from rep to rep, the list that follows with its size, and in which order it is done. */
export const VaryForm = ({
  set,
  base,
  people,
  onSet,
}: {
  set: DrillSet;
  base: Base;
  people: readonly Pick<Body, 'hand' | 'takeoffFoot'>[];
  onSet: (change: Partial<DrillSet>) => void;
}) => {
  const { movement, choices } = base;
  const { vary } = set;
  if (!movement || !choices) return null;
  const change = (part: Partial<Vary>): void => {
    const next = { ...vary, ...part };
    // What no axis makes any more need not be struck out.
    const there = new Set(variantsOf(next).map(struckKey));
    const struck = set.struck.filter((key) => there.has(key));
    onSet({ vary: next, struck });
  };
  const chain = isChain(movement.code);
  // What a drill forces is no choice.
  const forced = drillOfBase(base)?.force;
  const exits = isSequence(choices)
    ? bySchools(asDrilled(movement, choices.drill), choices.schools)
        .phases.filter(({ read }) => !read?.options.some(({ code }) => code === forced))
        .flatMap(({ code, read }) =>
          (read?.options ?? []).map((option) => `${code}:${option.code}`),
        )
    : [];
  const ways = movement.schools.flatMap(({ code, options }) =>
    options.length > 1 ? options.map((option) => `${code}:${option.code}`) : [],
  );
  const rungs = drillOfBase(base)?.rungs ?? RUNGS;
  const all = variantsOf(vary);
  const kept = keptVariants(set);
  const apart = new Map(
    notJoined(base, { ...set, struck: [] }).map(({ variant, why }) => [struckKey(variant), why]),
  );
  const toggle = (key: string): void =>
    onSet({
      struck: set.struck.includes(key)
        ? set.struck.filter((struck) => struck !== key)
        : [...set.struck, key],
    });
  return (
    <div className="vary">
      {chain && (
        <>
          <Axis
            label="Moves"
            values={MOVES.map((move) => move.code)}
            on={vary.moves}
            name={(code) => MOVES.find((move) => move.code === code)!.name}
            onChange={(moves) => change({ moves })}
          />
          <Axis
            label="Endings"
            values={ENDINGS.map((ending) => ending.code)}
            on={vary.endings}
            name={(code) => ENDINGS.find((ending) => ending.code === code)!.name}
            onChange={(endings) => change({ endings })}
          />
        </>
      )}
      {(exits.length > 1 || vary.exits.length > 0) && set.call?.kind !== 'reads' && (
        <Axis
          label="Exits"
          values={exits}
          on={vary.exits}
          name={(exit) => exitName(movement, exit)}
          onChange={(on) => change({ exits: on })}
        />
      )}
      {(ways.length > 1 || vary.ways.length > 0) && (
        <Axis
          label="Ways of teaching"
          values={ways}
          on={vary.ways}
          name={(way) => wayName(movement, way)}
          onChange={(on) => change({ ways: on })}
        />
      )}
      <Axis<Side>
        label="Sides"
        values={['own', 'other']}
        on={vary.sides}
        name={(side) => sideWords(movement, people, side)}
        least={1}
        onChange={(sides) => change({ sides })}
      />
      {movement.writtenFor.by === 'neither' && (
        <Axis
          label="Lead foot"
          values={['left', 'right'] as const}
          on={vary.leadFeet}
          name={(foot) => `${foot} first`}
          onChange={(leadFeet) => change({ leadFeet })}
        />
      )}
      <Axis
        label="Speed"
        values={[...PACES].sort((a, b) => a - b)}
        on={vary.paces}
        name={paceWord}
        least={1}
        onChange={(paces) => change({ paces })}
      />
      <Axis
        label="Rung"
        values={rungs as readonly Rung[]}
        on={vary.rungs as Rung[]}
        name={(rung) => RUNG_NAMES[rung]}
        onChange={(on) => change({ rungs: on })}
      />
      <Spots
        known={spotsOf(asDrilled(movement, drillOfBase(base)?.code), choices.ground).map(
          ({ name }) => name,
        )}
        spots={vary.spots}
        onChange={(spots) => change({ spots })}
      />
      {all.length > 1 && (
        <div className="axis">
          <span className="form-label mb-0">Order</span>
          <Segments
            label="Order"
            value={set.order}
            onChoose={(order) => onSet({ order })}
            options={[
              { value: 'blocked', label: 'one after the other' },
              { value: 'mixed', label: 'mixed' },
            ]}
          />
          {vary.paces.length > 1 && (
            <label className="check-line">
              <input
                type="checkbox"
                checked={set.slowFirst}
                onChange={(event) => onSet({ slowFirst: event.target.checked })}
              />
              slow before fast
            </label>
          )}
          {set.order === 'mixed' && (
            <button
              type="button"
              className="btn btn-link p-0"
              onClick={() => onSet({ seed: (set.seed % 999_999) + 1 })}
            >
              mix anew
            </button>
          )}
        </div>
      )}
      {all.length > 1 && (
        <details>
          <summary>
            <span className="figure">{kept.length}</span> combinations
            {kept.length < all.length && `, ${all.length - kept.length} struck out`}
          </summary>
          <ul className="combos">
            {all.map((variant) => {
              const key = struckKey(variant);
              const out = set.struck.includes(key);
              const why = apart.get(key);
              const words = [
                ...variantWords(base, variant),
                ...(vary.sides.length > 1 ? [sideWords(movement, people, variant.side)] : []),
              ].join(', ');
              return (
                <li key={key}>
                  <label className={out ? 'check-line struck' : 'check-line'}>
                    <input type="checkbox" checked={!out} onChange={() => toggle(key)} />
                    <span>{words || 'as planned'}</span>
                  </label>
                  {why && <span className="small-text quiet d-block">{why}</span>}
                </li>
              );
            })}
          </ul>
        </details>
      )}
    </div>
  );
};
