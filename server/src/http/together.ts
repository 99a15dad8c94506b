/** An answer that says: not now, what this needs is in use; it is done when that is free. */
export const LATER = Symbol('later');

type Waiting<Ask, Answer> = {
  ask: Ask;
  untilMs: number;
  resolve: (answer: Answer) => void;
  reject: (error: unknown) => void;
};

type Work<Ask, Answer> = (asks: Ask[], patient: boolean) => Promise<(Answer | typeof LATER)[]>;

/** So long is tried what others hold, before whoever asks is told. */
const TRIED_MS = 5_000;

/**
 * Has what comes while work is under way done next, together with all else that has come meanwhile: who
 * asks alone waits for nobody, and the more ask the less each costs. Each ask has its own fate: what fails
 * together is tried one by one, and what must wait does so beside the others.
 *
 * @param most asks that one piece of work takes
 * @param work gives an answer for each, in order, or `LATER`; told whether it may wait for what is in use
 * @param failsAll whether something thrown would be thrown for every ask, so that none is tried by itself
 * @param tooLong what those get whose turn has not come for long
 * @returns asks; only what has the same key is done together, one piece of work at a time, and beside it at
 *   most one that waits
 */
export const together = <Ask, Answer>({
  most,
  work,
  failsAll,
  tooLong,
  triedMs = TRIED_MS,
}: {
  most: number;
  work: Work<Ask, Answer>;
  failsAll: (error: unknown) => boolean;
  tooLong: () => Error;
  triedMs?: number;
}): ((key: string, ask: Ask) => Promise<Answer>) => {
  type One = Waiting<Ask, Answer>;
  /** what waits, by key; there as long as work of that key is under way */
  const fresh = new Map<string, One[]>();
  const batches = new Map<string, One[]>();

  const add = (queues: Map<string, One[]>, key: string, item: One): void => {
    const queue = queues.get(key);
    if (queue) queue.push(item);
    else {
      const begun = [item];
      queues.set(key, begun);
      void goOn(queues, key, begun);
    }
  };
  const doPart = async (key: string, part: One[], patient: boolean): Promise<void> => {
    let answers: (Answer | typeof LATER)[];
    try {
      answers = await work(
        part.map(({ ask }) => ask),
        patient,
      );
    } catch (error) {
      if (part.length === 1 || failsAll(error)) for (const { reject } of part) reject(error);
      else for (const item of part) await doPart(key, [item], patient);
      return;
    }
    for (const [i, item] of part.entries()) {
      const answer = answers[i]!;
      if (answer !== LATER) item.resolve(answer as Answer);
      else if (performance.now() > item.untilMs) item.reject(tooLong());
      else add(batches, key, item);
    }
  };
  const goOn = async (queues: Map<string, One[]>, key: string, queue: One[]): Promise<void> => {
    while (queue.length > 0) await doPart(key, queue.splice(0, most), queues === batches);
    queues.delete(key);
  };
  return (key, ask) =>
    new Promise((resolve, reject) => {
      add(fresh, key, { ask, resolve, reject, untilMs: performance.now() + triedMs });
    });
};
