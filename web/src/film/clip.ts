import { counted } from '@gravek/core/words';
import { FILM_MAX_S, type Review } from '@gravek/contract/watched';

/** A film as it was read: where to play it from, what it is known by, the moment of each of its frames. */
export type Clip = {
  url: string;
  mark: Review['film'];
  /** seconds, rising */
  frames: readonly number[];
};

/** The film that ships, to try things out. */
export const SHIPPED = { url: '/film/run-up.webm', name: 'run-up.webm' };

/** Why a film cannot be looked at, as a sentence. */
export class FilmProblem extends Error {}

const MINUTE_S = 60;

const lasts = (seconds: number): string => {
  const whole = Math.round(seconds / MINUTE_S);
  const [hours, minutes] = [Math.floor(whole / 60), whole % 60];
  return [
    ...(hours > 0 ? [counted(hours, 'hour')] : []),
    ...(minutes > 0 || hours === 0 ? [`${minutes} min`] : []),
  ].join(' ');
};

/** Frames after which the page gets a turn. */
const AT_A_TIME = 400;
const aTurn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** Whether the browser shows it, by trying. */
const shown = (url: string): Promise<{ width: number; height: number } | null> =>
  new Promise((resolve) => {
    const video = document.createElement('video');
    video.muted = true;
    video.preload = 'auto';
    const end = (size: { width: number; height: number } | null): void => {
      video.removeAttribute('src');
      video.load();
      resolve(size);
    };
    video.onloadeddata = () =>
      end(video.videoWidth > 0 ? { width: video.videoWidth, height: video.videoHeight } : null);
    video.onerror = () => resolve(null);
    video.src = url;
  });

/**
 * Reads the frames of a film from the film itself; nothing of it is sent anywhere.
 *
 * @param onPart how much has been read, 0 to 1
 * @throws {FilmProblem} when it cannot be looked at
 */
export const readClip = async (
  file: Blob & { name?: string },
  name: string,
  onPart: (part: number) => void,
): Promise<Clip> => {
  if (file.size === 0) throw new FilmProblem('This file is empty.');
  const { ALL_FORMATS, BlobSource, EncodedPacketSink, Input } = await import('mediabunny');
  const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
  try {
    if (!(await input.canRead())) {
      throw new FilmProblem(
        'This is no film that can be read here. MP4, MOV and WebM can, as phones make them.',
      );
    }
    const track = await input.getPrimaryVideoTrack();
    if (!track) throw new FilmProblem('There are no pictures in this file.');
    const lengthS =
      (await track.getDurationFromMetadata()) ??
      (await input.getDurationFromMetadata()) ??
      (await track.computeDuration());
    if (lengthS > FILM_MAX_S) {
      throw new FilmProblem(
        `This film lasts ${lasts(lengthS)}. Cut the run out of it first: at most ${FILM_MAX_S / MINUTE_S} minutes are looked at.`,
      );
    }
    const frames: number[] = [];
    for await (const packet of new EncodedPacketSink(track).packets(undefined, undefined, {
      metadataOnly: true,
    })) {
      if (packet.timestamp >= 0) frames.push(packet.timestamp);
      if (packet.timestamp > FILM_MAX_S) {
        throw new FilmProblem(
          `This film lasts more than ${FILM_MAX_S / MINUTE_S} minutes. Cut the run out of it first.`,
        );
      }
      if (frames.length % AT_A_TIME === 0) {
        onPart(lengthS > 0 ? Math.min(1, packet.timestamp / lengthS) : 0);
        await aTurn();
      }
    }
    // Frames are stored in the order in which they are decoded, which is not always that of time.
    const inOrder = [...new Set(frames)].sort((a, b) => a - b);
    if (inOrder.length < 2) throw new FilmProblem('This is a single picture, not a film.');
    const url = URL.createObjectURL(file);
    const size = await shown(url);
    if (!size) {
      URL.revokeObjectURL(url);
      throw new FilmProblem(
        'This browser cannot show the film. Save it as MP4 (H.264) or WebM, or open it in another browser.',
      );
    }
    return {
      url,
      frames: inOrder,
      mark: {
        name: name.slice(-120),
        bytes: file.size,
        frames: inOrder.length,
        durationS: inOrder.at(-1)!,
        ...size,
      },
    };
  } catch (error) {
    if (error instanceof FilmProblem) throw error;
    throw new FilmProblem('This film is broken: it cannot be read to its end.');
  } finally {
    input.dispose();
  }
};

/** Fetches the film that ships. */
export const shippedFilm = async (): Promise<Blob> => {
  const answer = await fetch(SHIPPED.url).catch(() => null);
  if (!answer?.ok) throw new FilmProblem('The film that ships cannot be fetched just now.');
  return answer.blob();
};

/** Whether a film is the one that marks were made in. */
export const isSameFilm = (a: Review['film'], b: Review['film']): boolean =>
  a.frames === b.frames && Math.abs(a.durationS - b.durationS) < 0.01;
