import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import { drillOf, faultOf } from '@gravek/library/movement/byCode';
import { phasesOn } from '@gravek/library/planning/branches';
import { reviewCue, type Reviewed } from '@gravek/library/film/reviewed';
import { useState } from 'react';
import { faultsInFilm } from '@gravek/library/field/film';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Segments } from '../controls/Segments';
import { useLengthStyle, useMember } from '../member/member';
import { IntoLog } from './IntoLog';
import { Takes } from './Takes';
import type { Marks } from './useReview';
import { suggestionWords } from './words';

/** Faults that the figures speak for; the coach accepts or leaves them. */
const Suggested = ({
  marks,
  reviewed,
  onChange,
}: {
  marks: Marks;
  reviewed: Reviewed;
  onChange: (part: Partial<Marks>) => void;
}) => {
  const style = useLengthStyle();
  const [left, setLeft] = useState<readonly string[]>([]);
  const open = reviewed.suggestions.filter(
    ({ fault }) => !marks.faults.includes(fault.code) && !left.includes(fault.code),
  );
  if (!reviewed.seen) return <p className="quiet mb-0">{reviewed.why}</p>;
  if (reviewed.suggestions.length === 0)
    return <p className="quiet mb-0">No fault of this movement shows in the figures.</p>;
  return (
    <>
      {open.map((suggestion) => (
        <div key={suggestion.fault.code} className="film-suggestion">
          <div>
            <strong>{suggestion.fault.name}</strong>
            <div className="small-text">{suggestionWords(suggestion, style)}</div>
          </div>
          <span className="d-inline-flex gap-1">
            <Button
              size="sm"
              aria-label={`Accept: ${suggestion.fault.name}`}
              onClick={() => onChange({ faults: [...marks.faults, suggestion.fault.code] })}
            >
              Accept
            </Button>
            <Button
              size="sm"
              variant="outline-dark"
              aria-label={`Leave: ${suggestion.fault.name}`}
              onClick={() => setLeft([...left, suggestion.fault.code])}
            >
              Leave
            </Button>
          </span>
        </div>
      ))}
    </>
  );
};

/** Checkpoints phase by phase, the first phase first. */
const ByPhases = ({
  marks,
  movement,
  choices,
  onChange,
}: {
  marks: Marks;
  movement: Movement;
  choices: Choices;
  onChange: (part: Partial<Marks>, what?: string) => void;
}) => {
  const phases = phasesOn(movement, {
    ...(isSequence(choices) ? { reads: choices.reads } : {}),
    schools: choices.schools ?? {},
  });
  const said = (phase: string, look: string) =>
    marks.checks.find((check) => check.phase === phase && check.look === look)?.right ?? null;
  const open = phases.findIndex(({ code, checkpoints }) =>
    checkpoints.some(({ look }) => said(code, look) === null),
  );
  const [at, setAt] = useState<number | null>(null);
  const shown = at ?? (open < 0 ? phases.length - 1 : open);
  const phase = phases[shown];
  if (!phase) return null;
  const say = (look: string, right: 'yes' | 'no'): void =>
    onChange({
      checks: [
        ...marks.checks.filter((check) => check.phase !== phase.code || check.look !== look),
        { phase: phase.code, look, right },
      ],
    });
  const faults = movement.faults.filter((fault) => fault.phases.includes(phase.code));
  return (
    <section aria-label="Phase by phase">
      <div className="row-line">
        <h3 className="mb-0">
          {shown + 1}. {phase.name}
        </h3>
        <span className="ms-auto d-inline-flex gap-1">
          <Button
            size="sm"
            variant="outline-dark"
            disabled={shown === 0}
            onClick={() => setAt(shown - 1)}
          >
            Before
          </Button>
          <Button
            size="sm"
            variant="outline-dark"
            disabled={shown === phases.length - 1}
            onClick={() => setAt(shown + 1)}
          >
            Next phase
          </Button>
        </span>
      </div>
      <ul className="list-plain small-text">
        {phase.checkpoints.map(({ look, right }) => (
          <li key={look} className="row-line">
            <span>
              <strong>{look}.</strong> {right}
            </span>
            <span className="ms-auto">
              <Segments
                label={look}
                options={[
                  { value: 'yes', label: 'right' },
                  { value: 'no', label: 'not' },
                ]}
                value={said(phase.code, look) ?? ('' as 'yes')}
                onChoose={(value) => say(look, value)}
              />
            </span>
          </li>
        ))}
      </ul>
      {phase.checkpoints.some(({ look }) => said(phase.code, look) === 'no') && (
        <div className="row-line">
          {faults.map((fault) => (
            <Button
              key={fault.code}
              size="sm"
              variant={marks.faults.includes(fault.code) ? 'dark' : 'outline-dark'}
              aria-pressed={marks.faults.includes(fault.code)}
              onClick={() =>
                onChange({
                  faults: marks.faults.includes(fault.code)
                    ? marks.faults.filter((other) => other !== fault.code)
                    : [...marks.faults, fault.code],
                })
              }
            >
              {fault.name}
            </Button>
          ))}
        </div>
      )}
    </section>
  );
};

/** What comes of a film: what shows, the one cue, and what is taken over from it. */
export const ResultPanel = ({
  marks,
  reviewed,
  movement,
  choices,
  athlete,
  onStill,
  onChange,
}: {
  marks: Marks;
  reviewed: Reviewed;
  movement: Movement;
  choices: Choices;
  athlete: Athlete;
  onStill: () => void;
  onChange: (part: Partial<Marks>, what?: string) => void;
}) => {
  const { club } = useMember();
  const cue = reviewCue(movement, club.cueSchool, marks.faults);
  const others = faultsInFilm(movement, reviewed).filter(
    (fault) => !marks.faults.includes(fault.code),
  );
  return (
    <div className="stack">
      <section aria-label="The one cue">
        {cue ? (
          <>
            <div className="figure-label">The one cue</div>
            <p className="film-cue mb-0">{cue.fault.cue}</p>
            <p className="small-text mb-0">
              for <strong>{cue.fault.name.toLowerCase()}</strong>
              {cue.follow.length > 0 &&
                `, which brings about ${cue.follow.join(', ').toLowerCase()}`}
              {cue.drill && (
                <>
                  ; drill: <strong>{drillOf(movement, cue.drill.code)?.name}</strong>
                </>
              )}
              .
            </p>
            {cue.next && (
              <p className="small-text quiet mb-0">
                Once that is cured: “{cue.next.cue}” ({cue.next.name.toLowerCase()}).
              </p>
            )}
          </>
        ) : (
          <p className="quiet mb-0">The one cue comes of the faults that you accept or see.</p>
        )}
      </section>
      <section aria-label="What the figures speak for">
        <Suggested marks={marks} reviewed={reviewed} onChange={onChange} />
        {marks.faults.length > 0 && (
          <ul className="list-plain small-text">
            {marks.faults.map((code) => (
              <li key={code} className="row-line">
                <span>
                  <strong>{faultOf(movement, code)?.name ?? code}</strong>{' '}
                  <span className="quiet">shows</span>
                </span>
                <Button
                  size="sm"
                  variant="link"
                  className="ms-auto p-0"
                  aria-label={`Take back: ${faultOf(movement, code)?.name ?? code}`}
                  onClick={() =>
                    onChange({ faults: marks.faults.filter((fault) => fault !== code) })
                  }
                >
                  Take back
                </Button>
              </li>
            ))}
          </ul>
        )}
        <Form.Select
          size="sm"
          className="mt-2"
          aria-label="Another fault that shows"
          value=""
          onChange={(event) =>
            event.target.value && onChange({ faults: [...marks.faults, event.target.value] })
          }
        >
          <option value="">Another fault that shows …</option>
          {others.map((fault) => (
            <option key={fault.code} value={fault.code}>
              {fault.name}
            </option>
          ))}
        </Form.Select>
      </section>
      <ByPhases marks={marks} movement={movement} choices={choices} onChange={onChange} />
      <Takes marks={marks} reviewed={reviewed} athlete={athlete} onStill={onStill} />
      <IntoLog marks={marks} reviewed={reviewed} movement={movement} athlete={athlete} />
    </div>
  );
};
