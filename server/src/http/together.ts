type Waiting<Ask, Answer> = {
  ask: Ask;
  resolve: (answer: Answer) => void;
  reject: (error: unknown) => void;
};

/**
 * Has what comes while work is under way done next, together with all else that has come meanwhile: who
 * asks alone waits for nobody, and the more ask the less each costs.
 *
 * @param most asks that one piece of work takes
 * @param work gives an answer for each, in order; when it fails, it has failed for all of them
 * @returns asks; only what has the same key is done together, one piece of work at a time
 */
export const together = <Ask, Answer>(
  most: number,
  work: (asks: Ask[]) => Promise<Answer[]>,
): ((key: string, ask: Ask) => Promise<Answer>) => {
  /** what waits, by key; there as long as work of that key is under way */
  const queues = new Map<string, Waiting<Ask, Answer>[]>();
  const goOn = async (key: string, queue: Waiting<Ask, Answer>[]): Promise<void> => {
    while (queue.length > 0) {
      const part = queue.splice(0, most);
      try {
        const answers = await work(part.map(({ ask }) => ask));
        part.forEach(({ resolve }, i) => resolve(answers[i]!));
      } catch (error) {
        for (const { reject } of part) reject(error);
      }
    }
    queues.delete(key);
  };
  return (key, ask) =>
    new Promise((resolve, reject) => {
      const queue = queues.get(key);
      if (queue) queue.push({ ask, resolve, reject });
      else {
        const begun = [{ ask, resolve, reject }];
        queues.set(key, begun);
        void goOn(key, begun);
      }
    });
};
