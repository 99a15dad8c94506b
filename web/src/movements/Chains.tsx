import type { Body } from '@gravek/core/layout/body';
import type { Side } from '@gravek/core/session/repLog';
import { checkRules } from '@gravek/core/runup/stepRules';
import type { Movement } from '@gravek/contract/movement';
import { chainOf, ENDINGS, MOVES } from '@gravek/library/movement/chains';
import { laidOut } from '@gravek/library/planning/plan';
import { toldTo } from '@gravek/library/movement/sides';
import { countSteps } from '@gravek/core/layout/shape';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useAthletes } from '../api/queries';
import { PageHead } from '../controls/PageHead';
import { useAddress } from '../controls/useAddress';
import { Beats } from '../drawing/Beats';
import { PlanView } from '../drawing/PlanView';
import { beatsOfLayout, phaseAt, phaseSpans } from '../hearing/beats';
import { PlayControls } from '../hearing/PlayControls';
import { usePlayer } from '../hearing/player';
import { useMayPlan } from '../member/member';
import { ForWhom } from './ForWhom';
import { RuleCheck } from '../parts/movement/RuleCheck';
import { useRuleSets } from '../parts/catalogue/useCatalogue';
import { bodyFor } from '../parts/catalogue/usual';

type Named = { code: string; name: string; summary: string };

/** A list of parts to press one of; what cannot be joined says why. */
const Parts = ({
  label,
  parts,
  chosen,
  none,
  whyNot,
  onChoose,
}: {
  label: string;
  parts: readonly Named[];
  chosen: string;
  /** what is said for no part; left out where one is needed */
  none?: string;
  whyNot: (code: string) => string | null;
  onChoose: (code: string) => void;
}) => (
  <section aria-label={label}>
    <h2>{label}</h2>
    <div className="picks">
      {none !== undefined && (
        <button
          type="button"
          className="pick"
          aria-pressed={chosen === ''}
          onClick={() => onChoose('')}
        >
          {none}
        </button>
      )}
      {parts.map(({ code, name }) => {
        const why = code === chosen ? null : whyNot(code);
        return (
          <button
            key={code}
            type="button"
            className={why ? 'pick barred' : 'pick'}
            aria-pressed={code === chosen}
            title={why ?? undefined}
            onClick={() => onChoose(code)}
          >
            {name}
          </button>
        );
      })}
    </div>
    <p className="quiet small-text mb-0 mt-1">
      {parts.find(({ code }) => code === chosen)?.summary ?? ''}
    </p>
  </section>
);

type Asked = { written: Movement; body: Body; side: Side };

/** The chain on the ground, with its rhythm, and what joins its parts. */
const Drawn = ({ written, body, side, says }: Asked & { says: string }) => {
  const movement = toldTo(written, body, side);
  const layout = useMemo(() => laidOut(written, body, { side }), [written, body, side]);
  const beats = useMemo(() => beatsOfLayout(layout), [layout]);
  const player = usePlayer(beats, layout.totalTimeS);
  return (
    <>
      <h2 className="mb-1">{movement.name}</h2>
      <PlanView
        layout={layout}
        player={player}
        shoeM={body.shoeM}
        maxHeight={260}
        phases={movement.phases}
        label={`${movement.name} from above: ${stepsIn(countSteps(layout), layout.totalTimeS)}`}
      />
      <Beats
        contacts={beats}
        totalTimeS={layout.totalTimeS}
        phases={phaseSpans(layout, movement.phases)}
        player={player}
      />
      <PlayControls
        player={player}
        name={movement.name}
        nameAt={phaseAt(layout, movement.phases)}
      />
      <p className="mb-0 mt-1" role="status">
        {says}
      </p>
    </>
  );
};

const Legal = ({ written, body, side }: Asked) => {
  const ruleSets = useRuleSets();
  const { footfalls } = laidOut(written, body, { side });
  return (
    <RuleCheck
      checked={written.ruleSets.flatMap((code) => {
        const set = ruleSets.find((set) => set.id === code);
        return set ? [{ set, breaks: checkRules(footfalls, set) }] : [];
      })}
    />
  );
};

/** Moves in any number and an ending, composed into one movement. */
export const Chains = () => {
  const { query, set } = useAddress();
  const athletes = useAthletes().data ?? [];
  const mayPlan = useMayPlan();
  const knownCode = (key: string, parts: readonly Named[]): string | undefined =>
    parts.find(({ code }) => code === query.get(key))?.code;
  const moveCodes = (query.get('moves') ?? '').split(',');
  const movesFound = moveCodes.filter((code) => MOVES.some((move) => move.code === code));
  const moves = movesFound.length > 0 ? movesFound : [MOVES[0]!.code];
  const ending = knownCode('end', ENDINGS) ?? ENDINGS[0]!.code;
  const side = query.get('side') === 'other' ? 'other' : 'own';
  const athlete = athletes.find(({ id }) => id === query.get('athlete'));
  const body = useMemo(() => bodyFor(athlete), [athlete]);
  const chain = chainOf([...moves, ending]);
  const why = (first: readonly string[], last: string): string | null => {
    const made = chainOf([...first, last]);
    return 'why' in made ? made.why : null;
  };
  /** The moves with another at a place; none there ends the chain. */
  const withMove = (at: number, code: string): string[] =>
    code ? [...moves.slice(0, at), code, ...moves.slice(at + 1)] : moves.slice(0, at);
  const written = 'movement' in chain ? chain.movement : null;
  return (
    <>
      <PageHead title="Chains" over="Moves in any number and an ending: joined by the feet">
        {written && (
          <Link className="btn btn-outline-dark" to={`/movements/${written.code}`}>
            Faults and drills
          </Link>
        )}
        {written && mayPlan && (
          <Link
            className="btn btn-primary"
            to={`/approaches/new?movement=${written.code}${athlete ? `&athlete=${athlete.id}` : ''}`}
          >
            Plan it
          </Link>
        )}
      </PageHead>
      <div className="stack">
        <section className="strip-panel" aria-label="The chain">
          <div className="plan-choices">
            <ForWhom
              movement={written ?? { writtenFor: { by: 'hand', side: 'right' } }}
              body={body}
              athletes={athletes}
              athleteId={athlete?.id ?? ''}
              side={side}
              onAthlete={(id) => set('athlete', id)}
              onSide={(next) => set('side', next === 'other' ? next : '')}
            />
          </div>
          {written ? (
            <Drawn
              written={written}
              body={body}
              side={side}
              says={
                'joins' in chain && chain.joins.length > 0
                  ? chain.joins.join(' ')
                  : 'They join as they are, no step between.'
              }
            />
          ) : (
            <div className="note note-wrong" role="status">
              {'why' in chain ? chain.why : ''}
            </div>
          )}
        </section>
        <div className="chain-columns">
          {[...moves, ''].map((move, i) => (
            <Parts
              key={i}
              label={i === 0 ? 'Move' : i === 1 ? 'Then' : `Then, move ${i + 1}`}
              parts={i === 0 ? MOVES : MOVES.filter(({ begins }) => begins === 'dribble')}
              chosen={move}
              {...(i > 0 && { none: 'nothing more' })}
              whyNot={(code) => why(withMove(i, code), ending)}
              onChoose={(code) => set('moves', withMove(i, code).join(','))}
            />
          ))}
          <Parts
            label="Ending"
            parts={ENDINGS}
            chosen={ending}
            whyNot={(code) => why(moves, code)}
            onChoose={(code) => set('end', code)}
          />
        </div>
        {written && <Legal written={written} body={body} side={side} />}
      </div>
    </>
  );
};
