import { isDay } from '@gravek/core/days';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session, SessionInput } from '@gravek/contract/session';
import { asDrillSet, withoutAthletes } from '@gravek/library/session/sessionFit';
import type { Finds } from '@gravek/library/session/work';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, onPress, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { dayName } from '../controls/dates';
import { tell } from '../controls/toasts';
import { useChosenGround } from '../member/chosenGround';
import { useMember } from '../member/member';
import { useDraftedForm } from '../parts/fields/DraftedForm';
import { valueOfSession } from '../parts/intoSession/copySession';
import { newSet } from './AddSet';

export const NO_SETS: readonly DrillSet[] = [];

/** One that may have been begun before sets could vary, or sessions had a ground. */
export const asNow = (kept: SessionInput): SessionInput => ({
  ...kept,
  groundId: kept.groundId ?? null,
  template: kept.template ?? false,
  drillSets: kept.drillSets.map(asDrillSet),
});

const usualTitle = (day: string): string => `Session of ${dayName(day)}`;
const A_USUAL_TITLE = /^Session of [A-Z][a-z]{2} \d{1,2} [A-Z][a-z]{2}( \d{4})?$/;

/** A name that nobody has typed goes with the day. */
export const withUsualTitle = (
  { title }: Pick<SessionInput, 'title'>,
  { date }: Partial<Pick<SessionInput, 'date'>>,
): { title?: string } =>
  date && isDay(date) && A_USUAL_TITLE.test(title) ? { title: usualTitle(date) } : {};

/** The form of a session: kept as it is typed, checked as the server checks it, saved by version. */
export const useSessionForm = ({
  session,
  plans,
  athletes,
  finds,
  onWrong,
}: {
  session: Session | null;
  plans: readonly ApproachSummary[];
  athletes: readonly Athlete[];
  finds: Finds;
  onWrong: (fields: Record<string, unknown>) => void;
}) => {
  const { today } = useMember();
  const [query, setQuery] = useSearchParams();
  const { chosen } = useChosenGround();
  // Sent here by the planner: the approach waits to be put in as a drill set.
  const toAdd = plans.find((plan) => plan.id === query.get('add'));
  const date = query.get('day') ?? today;
  const fresh = (): SessionInput => ({
    id: uuid(),
    date,
    title: usualTitle(date),
    groundId: chosen?.groundId ?? null,
    place: '',
    template: false,
    // With one plan there is nothing to choose.
    drillSets: [toAdd ?? (plans.length === 1 ? plans[0] : undefined)].flatMap((approach) =>
      approach
        ? [
            newSet(
              { kind: 'plan', approachId: approach.id },
              finds,
              approach.athleteIds,
              athletes,
              date,
            ),
          ]
        : [],
    ),
  });
  const save = useWrite(
    (send: () => Promise<Session>) => send(),
    'sessions',
    'approaches',
    'run',
    'faults',
  );
  const form = useDraftedForm<SessionInput, Session>({
    name: `session.${session?.id ?? 'new'}`,
    stored: session,
    valueOf: (stored) => (stored ? valueOfSession(stored) : fresh()),
    older: ({ version: _, ...kept }: Partial<Session>) => kept as SessionInput,
    check: async (value) => {
      const { checkSession } = await onPress(() => import('./sessionCheck'));
      const checked = checkSession(asNow(value));
      const empty = withoutAthletes(value.drillSets, session?.drillSets);
      if (Object.keys(empty).length === 0) return checked;
      return { ok: false, fields: { ...(checked.ok ? {} : checked.fields), ...empty } };
    },
    send: (value, version) =>
      save.mutateAsync(() =>
        version === null
          ? api.post<Session>('/sessions', value)
          : api.put<Session>(`/sessions/${value.id}`, { ...value, version }),
      ),
    onSaved: (stored) => {
      if (query.has('add')) setQuery({}, { replace: true });
      tell(`${stored.title} is saved.`);
    },
    onWrong,
  });
  const draft = useMemo(() => asNow(form.value), [form.value]);

  /** Changes the session as it is saved; what is typed here and not saved stays as it is. */
  const keepAsTemplate = async (template: boolean): Promise<void> => {
    const { id, version } = session!;
    const before = valueOfSession(session!);
    try {
      const stored = await save.mutateAsync(() =>
        api.put<Session>(`/sessions/${id}`, { ...before, template, version }),
      );
      if (JSON.stringify(draft) === JSON.stringify(before)) form.restart(stored);
      else {
        form.set({ ...draft, template });
        form.putOver(stored.version);
      }
      tell(
        template
          ? `${stored.title} is a template: new sessions can begin from it.`
          : `${stored.title} is no template any more.`,
      );
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return { form, draft, keepAsTemplate, toAdd };
};
