import type { Session } from '@gravek/contract/session';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { dayName, shift } from '../controls/dates';
import { counted } from '@gravek/core/words';
import { download, fileName } from '../controls/download';
import { Menu } from '../controls/Menu';
import { tell } from '../controls/toasts';
import { copyOf } from '../parts/intoSession/copySession';

const WEEKS = [2, 4, 8] as const;

/**
 * A saved session again on other days: tomorrow, next week, or week after week; as a template for others;
 * as a file for a calendar.
 */
export const CopyMenu = ({
  session,
  onTemplate,
}: {
  session: Session;
  /** kept to begin others from, or not any more */
  onTemplate: (template: boolean) => void;
}) => {
  const navigate = useNavigate();
  const write = useWrite((body: object) => api.post<Session>('/sessions', body), 'sessions');
  const away = useWrite(
    (id: string) => api.put(`/sessions/${id}/away`, { away: true }),
    'sessions',
  );
  const [busy, setBusy] = useState(false);
  const put = async (days: readonly string[]): Promise<void> => {
    setBusy(true);
    const made: Session[] = [];
    try {
      for (const day of days) made.push(await write.mutateAsync(copyOf(session, day)));
      tell(
        made.length === 1
          ? `${session.title} is copied to ${dayName(days[0]!)}.`
          : `${session.title} is planned for ${counted(made.length, 'week')} more.`,
        () => {
          void Promise.all(made.map((session) => away.mutateAsync(session.id)))
            .then(() => tell('The copies are put away.'))
            .catch((error: unknown) => tell(sentenceOf(error)));
        },
      );
      if (made.length === 1) void navigate(`/sessions/${made[0]!.id}`);
    } catch (error) {
      tell(`${sentenceOf(error)} ${made.length} of ${days.length} were made.`);
    } finally {
      setBusy(false);
    }
  };
  const toCalendar = async (): Promise<void> => {
    try {
      const { text } = await api.get<{ text: string }>(`/sessions/${session.id}/calendar`);
      download(fileName(session.title, 'ics'), text, 'text/calendar');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <Menu
      name={busy ? 'Copying …' : 'Copy'}
      disabled={busy}
      items={[
        ...[1, 2, 7].map((days) => ({
          name: `to ${dayName(shift(session.date, days))}`,
          onChoose: () => void put([shift(session.date, days)]),
        })),
        null,
        ...WEEKS.map((weeks) => ({
          name: `every week, ${weeks} more`,
          onChoose: () =>
            void put(Array.from({ length: weeks }, (_, i) => shift(session.date, 7 * (i + 1)))),
        })),
        null,
        {
          name: session.template ? 'no template any more' : 'keep as a template',
          onChoose: () => onTemplate(!session.template),
        },
        { name: 'as a calendar file', onChoose: () => void toCalendar() },
      ]}
    />
  );
};
