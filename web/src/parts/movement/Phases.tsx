import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { PHASE_KINDS } from '@gravek/contract/phaseKinds';

/** What to look at, phase by phase; pressing a phase inks only its feet in the drawing. */
export const Phases = ({
  movement,
  path,
  chosen,
  onChoose,
}: {
  movement: Movement;
  /** the phases that are gone through now; the others are shown after them */
  path: readonly MovementPhase[];
  chosen: string | null;
  onChoose: (code: string | null) => void;
}) => {
  const onPath = new Set(path.map((phase) => phase.code));
  const rest = movement.phases.filter((phase) => !onPath.has(phase.code));
  const item = (phase: MovementPhase, off: boolean) => (
    <li key={phase.code} className={off ? 'phase-item off' : 'phase-item'}>
      <button
        type="button"
        className="phase-name"
        aria-pressed={chosen === phase.code}
        disabled={off}
        onClick={() => onChoose(chosen === phase.code ? null : phase.code)}
      >
        {phase.name}
      </button>
      <span className="quiet small-text">
        {PHASE_KINDS[phase.steps.kind].name.toLowerCase()}
        {off && ', on another exit or school'}
      </span>
      <dl className="checkpoints">
        {phase.checkpoints.map((checkpoint) => (
          <div key={checkpoint.look}>
            <dt>{checkpoint.look}</dt>
            <dd>{checkpoint.right}</dd>
          </div>
        ))}
        {phase.eyes && (
          <div>
            <dt>Eyes</dt>
            <dd>{phase.eyes}</dd>
          </div>
        )}
        {phase.read && (
          <div className="exits">
            <dt>Read</dt>
            <dd>
              {phase.read.watch}
              <table className="grid-table mt-1">
                <thead>
                  <tr>
                    <th>When it</th>
                    <th>Go</th>
                  </tr>
                </thead>
                <tbody>
                  {phase.read.options.map((option) => (
                    <tr key={option.code}>
                      <td>{option.when}</td>
                      <td>{option.name}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </dd>
          </div>
        )}
      </dl>
    </li>
  );
  return (
    <section className="panel" aria-label="Phases">
      <h2>Look at</h2>
      <ol className="phase-list">
        {path.map((phase) => item(phase, false))}
        {rest.map((phase) => item(phase, true))}
      </ol>
    </section>
  );
};
