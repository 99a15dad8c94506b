import type { FirstSteps } from '@gravek/contract/today';
import { Link } from 'react-router';
import Button from 'react-bootstrap/Button';
import { useMayPlan, useMember } from '../member/member';
import { useSettings } from '../member/settings';

/** What a club without data does first, the next of it one press away; gone once it is done or skipped. */
export const FirstUse = ({ come }: { come: FirstSteps }) => {
  const { club } = useMember();
  const mayPlan = useMayPlan();
  const { skipped, skip } = useSettings();
  if (!mayPlan) return null;
  const skippedHere = new Set(skipped[club.id] ?? []);
  const steps = [
    {
      code: 'athletes',
      name: 'Who is there?',
      why: 'Type them or paste a list; a name is enough.',
      done: come.athletes,
      to: '/athletes?list=1',
      press: 'Add athletes',
    },
    {
      code: 'measure',
      name: 'Measure one run',
      why: 'Then the plan is of the athlete’s own steps. Without it height and age give a guess.',
      done: come.measured,
      to: `/athletes/${come.athleteId}?run=1`,
      press: 'Measure',
    },
    {
      code: 'plan',
      name: 'Plan one approach',
      why: 'How many steps, how long, from where.',
      done: come.planned,
      to: '/approaches/new',
      press: 'Plan',
    },
    {
      code: 'session',
      name: 'Put it in a session',
      why: 'Who runs it how often, today.',
      done: come.session,
      to: '/sessions/new',
      press: 'Make a session',
    },
    {
      code: 'run',
      name: 'Run it',
      why: 'Each rep is clean or shows a fault; from these come the cues.',
      done: come.logged,
      to: come.sessionId ? `/run/${come.sessionId}` : '/run',
      press: 'Run',
    },
  ];
  // Once reps are logged nobody needs to be led.
  if (steps.at(-1)!.done) return null;
  const next = steps.find((step) => !step.done && !skippedHere.has(step.code));
  if (!next) return null;
  return (
    <section className="panel first-use" aria-label="First steps">
      <h2>To the first logged rep</h2>
      <ol className="first-steps">
        {steps.map((step) => (
          <li
            key={step.code}
            className={step.done ? 'done' : skippedHere.has(step.code) ? 'skipped' : undefined}
            aria-current={step === next ? 'step' : undefined}
          >
            <strong>{step.name}</strong>{' '}
            <span className="quiet small-text">
              {step.done
                ? 'done'
                : skippedHere.has(step.code)
                  ? 'skipped'
                  : step === next
                    ? step.why
                    : ''}
            </span>
          </li>
        ))}
      </ol>
      <div className="row-line">
        <Link className="btn btn-primary btn-lg" to={next.to}>
          {next.press}
        </Link>
        <Button variant="link" onClick={() => skip(club.id, next.code)}>
          Skip this
        </Button>
      </div>
    </section>
  );
};
