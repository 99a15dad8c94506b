import type { RuleBreak } from '@gravek/core/runup/stepRules';
import type { NamedRuleSet } from '@gravek/contract/ruleSet';

/** Whether the feet are legal under some rule sets, and if not which step breaks what. */
export const RuleCheck = ({
  checked,
}: {
  checked: readonly { set: NamedRuleSet; breaks: readonly RuleBreak[] }[];
}) =>
  checked.length > 0 && (
    <section className="panel" aria-label="Step rules">
      <h2>Step rules</h2>
      {checked.map(({ set, breaks }) => (
        <div key={set.id} className="mb-2">
          <strong>{set.name}</strong>
          {breaks.length === 0 ? (
            <div>Every step is legal.</div>
          ) : (
            <ul className="plain-points wrong">
              {breaks.map((breach) => (
                <li key={`${breach.n}${breach.rule}`}>{breach.why}</li>
              ))}
            </ul>
          )}
          <div className="quiet small-text">{set.note || 'Check the competition’s own book.'}</div>
        </div>
      ))}
    </section>
  );
