import type { StepRule } from '@gravek/core/runup/stepRules';
import { RULE_SETS } from '@gravek/library/movement/ruleSets';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useClubRuleSets } from '../api/queries';
import { Loaded } from '../controls/Notice';
import { opened } from '../controls/opened';
import { useMayPlan } from '../member/member';
import { OwnRow } from './OwnRow';

const RuleSetForm = opened(async () => (await import('./RuleSetForm')).RuleSetForm);

const inWords = (rule: StepRule): string => {
  switch (rule.kind) {
    case 'steps-with-ball':
      return `at most ${rule.limit} steps with the ball, ${rule.gatherCounts ? 'the gather counts' : 'the gather does not count'}`;
    case 'pivot-foot':
      return `the pivot foot stays down until the ${rule.until}`;
    case 'take-off-feet':
      return rule.feet === 1 ? 'takes off from one foot' : 'takes off from both feet';
    case 'landing-feet':
      return rule.feet === 1 ? 'lands on one foot' : 'lands on both feet';
    case 'behind-line':
      return 'no foot beyond the line';
    case 'most-steps':
      return `at most ${rule.limit} steps to the take-off`;
  }
};

/** Step rules that plans are held to: those that ship, and the club's own. */
export const RuleSets = () => {
  const mayPlan = useMayPlan();
  const query = useClubRuleSets();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section className="panel" aria-label="Step rules">
      <h2>Step rules</h2>
      <p className="quiet small-text">
        Codes and countries differ; the competition’s own book has the last word.
      </p>
      <Loaded query={query} what="Getting the step rules …">
        {(list) => (
          <ul className="list-plain">
            {list.map((set) => (
              <OwnRow
                key={set.id}
                item={set}
                path="/rule-sets"
                touched="movements"
                tag="the club’s own"
                onChange={() => setOpen(set.id)}
              >
                <div className="small-text">{set.rules.map(inWords).join('; ')}.</div>
                {set.note && <div className="small-text quiet">{set.note}</div>}
                {open === set.id && (
                  <RuleSetForm key={set.version} stored={set} onDone={() => setOpen(null)} />
                )}
              </OwnRow>
            ))}
          </ul>
        )}
      </Loaded>
      {mayPlan &&
        (open === 'new' ? (
          <RuleSetForm stored={null} onDone={() => setOpen(null)} />
        ) : (
          <Button size="sm" variant="outline-dark" className="mt-2" onClick={() => setOpen('new')}>
            Add a rule set
          </Button>
        ))}
      <details className="mt-3">
        <summary>Rule sets that ship with Gravek</summary>
        <ul className="list-plain mt-2">
          {RULE_SETS.map((ruleSet) => (
            <li key={ruleSet.id}>
              <strong>{ruleSet.name}</strong>
              <div className="small-text">{ruleSet.rules.map(inWords).join('; ')}.</div>
              <div className="small-text quiet">{ruleSet.note}</div>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
};
