import { Link } from 'react-router';
import Button from 'react-bootstrap/Button';
import { useApproaches, useAthletes, useSessions } from '../api/queries';
import { shift } from '../controls/dates';
import { useMayPlan, useMember } from '../member/member';
import { useSettings } from '../member/settings';

/** Sessions further away than this do not count as begun, days. */
const AROUND_DAYS = 14;

/** What a club without data does first, the next of it one press away; gone once it is done or skipped. */
export const FirstUse = () => {
  const { today, club } = useMember();
  const mayPlan = useMayPlan();
  const athletes = useAthletes().data;
  const approaches = useApproaches().data;
  const found = useSessions(shift(today, -AROUND_DAYS), shift(today, AROUND_DAYS)).data;
  const sessions = found?.filter((one) => !one.archived);
  const { skipped, skip } = useSettings();
  if (!mayPlan || !athletes || !approaches || !sessions) return null;
  const own = new Set(skipped[club.id] ?? []);
  const open = sessions.find((one) => one.date === today) ?? sessions[0];
  const steps = [
    {
      code: 'athletes',
      name: 'Who is there?',
      why: 'Type them or paste a list; a name is enough.',
      done: athletes.length > 0,
      to: '/athletes?list=1',
      press: 'Add athletes',
    },
    {
      code: 'measure',
      name: 'Measure one run',
      why: 'Then the plan is of the athlete’s own steps. Without it height and age give a guess.',
      done: athletes.some((one) => one.trials.length > 0),
      to: `/athletes/${athletes[0]?.id}?run=1`,
      press: 'Measure',
    },
    {
      code: 'plan',
      name: 'Plan one approach',
      why: 'How many steps, how long, from where.',
      done: approaches.length > 0,
      to: '/approaches/new',
      press: 'Plan',
    },
    {
      code: 'session',
      name: 'Put it in a session',
      why: 'Who runs it how often, today.',
      done: sessions.length > 0,
      to: '/sessions/new',
      press: 'Make a session',
    },
    {
      code: 'run',
      name: 'Run it',
      why: 'Each rep is clean or shows a fault; from these come the cues.',
      done: sessions.some((one) => one.logged > 0),
      to: open ? `/run/${open.id}` : '/run',
      press: 'Run',
    },
  ];
  // Once reps are logged nobody needs to be led.
  if (steps.at(-1)!.done) return null;
  const next = steps.find((step) => !step.done && !own.has(step.code));
  if (!next) return null;
  return (
    <section className="panel first-use" aria-label="First steps">
      <h2>To the first logged rep</h2>
      <ol className="first-steps">
        {steps.map((step) => (
          <li
            key={step.code}
            className={step.done ? 'done' : own.has(step.code) ? 'skipped' : undefined}
            aria-current={step === next ? 'step' : undefined}
          >
            <strong>{step.name}</strong>{' '}
            <span className="quiet small-text">
              {step.done ? 'done' : own.has(step.code) ? 'skipped' : step === next ? step.why : ''}
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
