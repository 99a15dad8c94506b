import { tell } from './toasts';
import { api, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';

/**
 * Puts a row away, or back, and says so with a way to undo it.
 *
 * @param touched lists to ask for anew
 * @returns a function that resolves to whether it was done
 */
export const usePutAway = (...touched: string[]) => {
  const write = useWrite(
    ({ path, away }: { path: string; away: boolean }) => api.put(`${path}/away`, { away }),
    ...touched,
  );
  const putAway = async (path: string, said: string, away = true): Promise<boolean> => {
    try {
      await write.mutateAsync({ path, away });
      tell(
        said,
        () =>
          void write
            .mutateAsync({ path, away: !away })
            .catch((error: unknown) => tell(sentenceOf(error))),
      );
      return true;
    } catch (error) {
      tell(sentenceOf(error));
      return false;
    }
  };
  return putAway;
};
