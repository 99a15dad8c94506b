import type { CalendarAddress as Address, CalendarKept } from '@gravek/contract/club';
import { useQuery } from '@tanstack/react-query';
import { format, parseISO } from 'date-fns';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';

/** The address at which a calendar follows the club's sessions: made, made anew, taken back. */
export const CalendarAddress = ({ onClose }: { onClose: () => void }) => {
  const kept = useQuery({
    queryKey: ['club', 'calendar'],
    queryFn: () => api.get<CalendarKept>('/calendar'),
  });
  const [token, setToken] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const make = useWrite(() => api.post<Address>('/calendar'), 'club');
  const take = useWrite(() => api.remove('/calendar'), 'club');
  const tried = async (work: () => Promise<void>): Promise<void> => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const address = token && `${window.location.origin}/calendar/${token}.ics`;
  const madeAt = kept.data?.madeAt ?? null;
  return (
    <section className="panel stack mb-3" aria-label="Calendar address">
      <h2 className="mb-0">In your own calendar</h2>
      <Conflict problem={problem ?? (kept.isError ? sentenceOf(kept.error) : null)} />
      <p className="mb-0">
        A calendar that is given your address shows the club’s sessions and follows them as they
        change: when, where and what, no names of athletes. Whoever has the address can read it.
      </p>
      {address ? (
        <Field label="Your address" hint="It is shown only now; give it to your calendar.">
          <Form.Control
            readOnly
            value={address}
            onFocus={(event) => event.currentTarget.select()}
          />
        </Field>
      ) : (
        <span className="quiet">
          {madeAt
            ? `Yours was made on ${format(parseISO(madeAt), 'd MMMM yyyy')}. A new one takes its place.`
            : 'You have none yet.'}
        </span>
      )}
      <div className="row-line">
        {address ? (
          <Button
            onClick={() =>
              void navigator.clipboard.writeText(address).then(
                () => tell('The address is copied.'),
                () => tell('It could not be copied; select it and copy it by hand.'),
              )
            }
          >
            Copy
          </Button>
        ) : (
          <Button
            disabled={make.isPending}
            onClick={() =>
              void tried(async () => setToken((await make.mutateAsync(undefined)).token))
            }
          >
            {madeAt ? 'Make a new one' : 'Make one'}
          </Button>
        )}
        {(madeAt ?? address) && (
          <Button
            variant="outline-dark"
            disabled={take.isPending}
            onClick={() =>
              void tried(async () => {
                await take.mutateAsync(undefined);
                setToken(null);
                tell('Nobody can follow your address any more.');
              })
            }
          >
            Take it back
          </Button>
        )}
        <Button variant="outline-dark" onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
};
