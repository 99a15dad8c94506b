import type { Body } from '@gravek/core/layout/body';
import type { Side } from '@gravek/core/session/repLog';
import { keptVariants, struckKey, variantsOf } from '@gravek/core/session/variants';
import { isSequence } from '@gravek/contract/choices';
import { type DrillSet, PACES } from '@gravek/contract/drillSet';
import { type Rung, RUNGS } from '@gravek/contract/rungs';
import { asDrilled } from '@gravek/library/movement/asDrilled';
import { ENDINGS, isChain, MOVES } from '@gravek/library/movement/chains';
import { bySchools } from '@gravek/library/movement/schools';
import { spotsOf } from '@gravek/library/planning/place';
import { drillOfBase } from '@gravek/library/session/fieldRun';
import {
  exitName,
  paceWord,
  RUNG_NAMES,
  sideWords,
  variantWords,
  wayName,
} from '@gravek/library/session/setWords';
import { type Base, notJoined } from '@gravek/library/session/work';
import { Segments } from '../controls/Segments';
import { Axis, Spots } from './VaryAxes';

type Vary = DrillSet['vary'];

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
    const variantKeys = new Set(variantsOf(next).map(struckKey));
    const struck = set.struck.filter((key) => variantKeys.has(key));
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
        knownSpots={spotsOf(asDrilled(movement, drillOfBase(base)?.code), choices.ground).map(
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
