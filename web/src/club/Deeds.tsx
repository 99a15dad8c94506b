import type { DeedLine } from '@gravek/contract/deeds';
import { CSV_START, csvText } from '@gravek/library/roster/csv';
import { useInfiniteQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, sentenceOf } from '../api/client';
import { download } from '../controls/download';
import { Empty, Loaded } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { tell } from '../controls/toasts';
import { useAddress } from '../controls/useAddress';
import { useSettled } from '../controls/useSettled';

type Page = { items: DeedLine[]; next: string | null };

const pageOf = (words: string, after: string | null): Promise<Page> =>
  api.get<Page>(`/deeds?${new URLSearchParams({ q: words, ...(after ? { after } : {}) })}`);

const CSV_HEADS = ['when', 'who', 'did', 'what it was done to'];

const save = async (words: string): Promise<void> => {
  const rows: string[][] = [CSV_HEADS];
  let after: string | null = null;
  do {
    const page: Page = await pageOf(words, after);
    rows.push(...page.items.map(({ at, person, what, about }) => [at, person, what, about]));
    after = page.next;
  } while (after !== null);
  download('gravek-log.csv', CSV_START + csvText(rows), 'text/csv');
};

/** What was done to the club, and by whom, newest first. */
export const Deeds = () => {
  const { query, set } = useAddress();
  const words = query.get('q') ?? '';
  const looked = useSettled(words, 250);
  const [saving, setSaving] = useState(false);
  const pages = useInfiniteQuery({
    queryKey: ['club', 'deeds', looked],
    queryFn: ({ pageParam }) => pageOf(looked, pageParam),
    initialPageParam: null as string | null,
    getNextPageParam: ({ next }) => next,
  });
  const press = async (): Promise<void> => {
    setSaving(true);
    await save(looked).catch((error: unknown) => tell(sentenceOf(error)));
    setSaving(false);
  };
  return (
    <>
      <PageHead title="Who did what" over="Kept for a year; nothing in it can be changed">
        <Button variant="outline-dark" disabled={saving} onClick={() => void press()}>
          {saving ? 'Saving …' : 'Save as CSV'}
        </Button>
      </PageHead>
      <div className="stack">
        <Form.Control
          style={{ maxWidth: 300 }}
          type="search"
          placeholder="Search name or what was done"
          aria-label="Search the log"
          value={words}
          onChange={(event) => set('q', event.target.value)}
        />
        <Loaded query={pages} what="Getting the log …">
          {({ pages: list }) => {
            const lines = list.flatMap(({ items }) => items);
            if (lines.length === 0) {
              return (
                <Empty title={looked ? 'Nothing matches.' : 'Nothing was done yet.'}>
                  Sign-ins, invitations, roles, links, archives and deletions come here.
                </Empty>
              );
            }
            return (
              <div className="table-scroll">
                <table className="grid-table">
                  <thead>
                    <tr>
                      <th>When</th>
                      <th>Who</th>
                      <th>Did</th>
                    </tr>
                  </thead>
                  <tbody>
                    {lines.map(({ id, at, person, what, about }) => (
                      <tr key={id}>
                        <td className="quiet">{format(new Date(at), 'EEE d MMM yyyy, HH:mm')}</td>
                        <td>{person}</td>
                        <td>
                          {what}
                          {about && <span className="quiet small-text">: {about}</span>}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            );
          }}
        </Loaded>
        {pages.hasNextPage && (
          <Button
            variant="outline-dark"
            className="align-self-start"
            disabled={pages.isFetchingNextPage}
            onClick={() => void pages.fetchNextPage()}
          >
            Show older ones
          </Button>
        )}
      </div>
    </>
  );
};
