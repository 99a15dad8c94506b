import type { Review } from '@gravek/contract/watched';
import { useEffect, useState } from 'react';
import { keepFilm, keptFilm } from '../phone/keptFilms';
import { type Clip, FilmProblem, isSameFilm, readClip, SHIPPED, shippedFilm } from './clip';

type State =
  | { is: 'reading'; part: number }
  /** this device does not have it */
  | { is: 'missing'; why: string | null }
  | { is: 'there'; clip: Clip };

/** A clip that is let go of when nobody looks at it any more. */
export const useClipUrl = (clip: Clip | null): void => {
  useEffect(() => (clip ? () => URL.revokeObjectURL(clip.url) : undefined), [clip]);
};

/** The film in which marks were made: as this device kept it, or as it is chosen anew. */
export const useFilmFile = ({ id, film: mark }: Pick<Review, 'id' | 'film'>) => {
  const [state, setState] = useState<State>({ is: 'reading', part: 0 });
  const read = async (file: Blob & { name?: string }): Promise<void> => {
    setState({ is: 'reading', part: 0 });
    try {
      const clip = await readClip(file, mark.name, (part) => setState({ is: 'reading', part }));
      if (!isSameFilm(clip.mark, mark)) {
        URL.revokeObjectURL(clip.url);
        throw new FilmProblem(
          `This is another film: these marks were made in ${mark.name}, which has ${mark.frames} frames; this one has ${clip.mark.frames}.`,
        );
      }
      await keepFilm(id, file);
      setState({ is: 'there', clip });
    } catch (error) {
      if (!(error instanceof FilmProblem)) throw error;
      setState({ is: 'missing', why: error.message });
    }
  };
  const fetchShipped = async (): Promise<void> => {
    setState({ is: 'reading', part: 0 });
    try {
      await read(await shippedFilm());
    } catch (error) {
      setState({ is: 'missing', why: error instanceof FilmProblem ? error.message : null });
    }
  };
  useEffect(() => {
    let gone = false;
    void keptFilm(id).then((film) => {
      if (gone) return;
      if (film) void read(film);
      else if (mark.name === SHIPPED.name) void fetchShipped();
      else setState({ is: 'missing', why: null });
    });
    return () => {
      gone = true;
    };
    // The film of these marks is one; the rest follows from it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  useClipUrl(state.is === 'there' ? state.clip : null);
  return { state, read };
};
