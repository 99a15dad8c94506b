import type { CauseCheck } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import type { LinkEvidence } from '@gravek/core/cue/causeLinks';
import { withLink } from '@gravek/library/cue/causes';
import { faultOf } from '@gravek/library/movement/byCode';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { api, ApiProblem } from '../../api/client';
import { useCauses, useWrite } from '../../api/queries';
import { Fold } from '../../controls/Fold';
import { Loaded } from '../../controls/Notice';
import { tell } from '../../controls/toasts';
import { CauseChart } from '../../drawing/CauseChart';
import { useMayPlan } from '../../member/member';
import { useAddMovement } from '../catalogue/useOwnMovement';
import { useCatalogue } from '../catalogue/useCatalogue';
import { causeSentence, linkRates } from './words';

/** One press puts a link into the club's copy of a movement, or takes it out; a copy is made where there is none. */
const ChangeCopy = ({ movement, link }: { movement: Movement; link: LinkEvidence }) => {
  const catalogue = useCatalogue();
  const mayPlan = useMayPlan();
  const navigate = useNavigate();
  const { add, busy } = useAddMovement();
  const write = useWrite(
    ({ id, sent }: { id: string; sent: object }) => api.put(`/movements/${id}`, sent),
    'movements',
    'faults',
    'run',
  );
  if (!mayPlan || !catalogue.ready) return null;
  const missing = link.verdict === 'missing';
  const evidence =
    catalogue.clubMovements.find((other) => other.id === movement.code) ??
    catalogue.clubMovements.find(
      (other) => !other.archived && other.basedOn?.code === movement.code,
    );
  const isDone =
    evidence && faultOf(evidence.movement, link.from)?.leadsTo.includes(link.to) === missing;
  const change = async (): Promise<void> => {
    try {
      if (evidence) {
        const { id, basedOn, version } = evidence;
        const changed = withLink(evidence.movement, link, missing);
        await write.mutateAsync({ id, sent: { basedOn, movement: changed, version } });
        tell(`${evidence.movement.name} is changed: cues go by its chain from now on.`);
      } else {
        const copy = await add(withLink(movement, link, missing), `${movement.name}, ours`);
        tell(`${copy.movement.name} is the club’s copy. Plan with it, and cues go by its chain.`);
        void navigate(`/movements/${copy.id}`);
      }
    } catch (error) {
      tell(error instanceof ApiProblem ? error.message : 'That could not be saved. Try again.');
    }
  };
  if (isDone && evidence.id !== movement.code) {
    return <span className="quiet small-text">{evidence.movement.name} has it so already.</span>;
  }
  return (
    <Button
      size="sm"
      variant="outline-dark"
      disabled={busy || write.isPending}
      onClick={() => void change()}
    >
      {missing ? 'Put it into' : 'Take it out of'}{' '}
      {evidence ? evidence.movement.name : 'a copy of our own'}
    </Button>
  );
};

const summary = ({ reps, links }: CauseCheck): string => {
  const count = (verdict: LinkEvidence['verdict']): number =>
    links.filter((link) => link.verdict === verdict).length;
  const evidenced = links.length - count('missing');
  const holding = count('holds');
  if (reps === 0) return 'No reps of the last year to hold it against.';
  return `Held against ${reps.toLocaleString('en')} reps of the club’s last year: ${holding} of ${evidenced} links hold${
    count('unclear') > 0 ? `, ${count('unclear')} are seen too seldom to tell` : ''
  }.`;
};

/**
 * The chain of causes of a movement, held against the club's own reps.
 *
 * @param rates an athlete's rate of each fault that was seen; the club's evidence alone where absent
 */
export const Causes = ({
  movement,
  rates,
}: {
  movement: Movement;
  rates?: ReadonlyMap<string, number>;
}) => {
  const query = useCauses(movement.code);
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <Fold title="What brings about what">
      <section aria-label="What brings about what">
        <h2>What brings about what</h2>
        <Loaded query={query} what="Holding the causes against the reps …">
          {(check) => {
            const points = check.links.filter(
              ({ verdict }) => verdict === 'against' || verdict === 'missing',
            );
            const ofChosen = check.links.filter(
              ({ from, to, rates: seen }) => seen && (from === chosen || to === chosen),
            );
            return (
              <div className="stack">
                <p className="mb-0">
                  {summary(check)}
                  {check.reps > 0 && points.length === 0 && ' Nothing speaks against the chain.'}
                </p>
                {points.length > 0 && !rates && (
                  <ul className="list-plain cause-points">
                    {points.map((link) => (
                      <li key={`${link.from}>${link.to}`} className="row-line">
                        <span>{causeSentence(movement, link)}</span>
                        <ChangeCopy movement={movement} link={link} />
                      </li>
                    ))}
                  </ul>
                )}
                <CauseChart
                  faults={movement.faults}
                  chosen={chosen}
                  onChoose={(code) => setChosen(code === chosen ? null : code)}
                  rates={rates}
                  links={check.links}
                />
                {ofChosen.length > 0 ? (
                  <ul className="mb-0" aria-live="polite">
                    {ofChosen.map((link) => (
                      <li key={`${link.from}>${link.to}`}>{linkRates(movement, link)}</li>
                    ))}
                  </ul>
                ) : (
                  <p className="quiet small-text mb-0">
                    Thick: the reps bear it out. Thin: too few to tell. Crossed out: they speak
                    against it. Dotted: it shows, and the chain does not say so. Press a fault for
                    figures{rates ? '; in a box, this athlete’s rate' : ''}.
                  </p>
                )}
              </div>
            );
          }}
        </Loaded>
      </section>
    </Fold>
  );
};
