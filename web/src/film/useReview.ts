import type { Review } from '@gravek/contract/watched';
import { useMemo, useState } from 'react';
import { api, fieldsOf } from '../api/client';
import { useWrite } from '../api/queries';
import { useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { useHistory } from '../controls/history';
import { tell } from '../controls/toasts';

/** What was marked, as it is worked on. */
export type Marks = Omit<Review, 'archived'>;

const bare = ({ archived: _, ...marks }: Review): Marks => marks;

/** Marks that were begun before a call could be marked. */
const withCall = (marks: Marks): Marks => ({
  ...marks,
  callS: (marks as Partial<Marks>).callS ?? null,
});

/** The marks of a film being worked on: a draft that outlives a reload, undo, and how it is saved. */
export const useReview = (saved: Review) => {
  const [kept, setMarks, discard, found] = useDraft<Marks>(`film.${saved.id}`, bare(saved));
  const marks = useMemo(() => withCall(kept), [kept]);
  // What was saved meanwhile stays saved, however far back the marks go.
  const { change, ...history } = useHistory(marks, (next) =>
    setMarks({ ...next, version: marks.version }),
  );
  const [changed, setChanged] = useState(found);
  const conflict = useConflict<Review>(
    (theirs) => {
      discard(bare(theirs));
      setChanged(false);
    },
    (version) => setMarks({ ...marks, version }),
  );
  const write = useWrite((body: object) => api.put<Review>(`/reviews/${saved.id}`, body), 'films');
  const save = async (): Promise<boolean> => {
    const { id: _, ...body } = marks;
    try {
      const answer = await write.mutateAsync(body);
      discard(bare(answer));
      setChanged(false);
      conflict.clear();
      tell('Marks saved.');
      return true;
    } catch (error) {
      const [first] = Object.values(fieldsOf(error));
      if (first) conflict.say(first);
      else conflict.show(error);
      return false;
    }
  };
  return {
    marks,
    /** @param what changes of the same thing in quick succession count as one */
    change: (part: Partial<Marks>, what = ''): void => {
      setChanged(true);
      change({ ...marks, ...part }, what);
    },
    history,
    /** something is not saved yet */
    changed,
    found,
    drop: (): void => {
      discard(bare(saved));
      setChanged(false);
    },
    save,
    busy: write.isPending,
    conflict,
  };
};

export type Reviewing = ReturnType<typeof useReview>;
