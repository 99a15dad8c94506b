import type { FrameTime } from '@gravek/core/film/watchedSteps';
import { bisector } from 'd3-array';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { useStable } from '../controls/useStable';

export const SPEEDS = [1, 0.5, 0.25] as const;
export type Speed = (typeof SPEEDS)[number];

/** Frames that are played over and over, both included. */
export type Loop = { from: number; to: number };

export type Playback = {
  /** number of the frame that is shown, from 0 */
  at: number;
  timeS: number;
  playing: boolean;
  /** how often the whole was looked at, at full speed */
  plays: number;
  loop: Loop | null;
  setLoop: (loop: Loop | null) => void;
  go: (frame: number) => void;
  play: (speed: Speed) => void;
  pause: () => void;
};

const nearest = bisector<number, number>((time) => time).center;

/** The moment of a frame, and how long before it the frame before was. */
export const frameTime = (frames: readonly number[], at: number): FrameTime => {
  const gapS = at > 0 ? frames[at]! - frames[at - 1]! : frames[1]! - frames[0]!;
  return { atS: frames[at]!, gapS };
};

/** A moment at which just this frame is shown. */
const within = (frames: readonly number[], at: number): number =>
  (frames[at]! + (frames[at + 1] ?? frames[at]! + 0.004)) / 2;

/** The frame that is shown at a moment: the last that has come. */
export const frameAt = (frames: readonly number[], timeS: number): number =>
  nearest(frames as number[], timeS);

/** A film that is played, or stepped through by its own frames. */
export const useClip = (
  frames: readonly number[],
): [video: RefObject<HTMLVideoElement | null>, playback: Playback] => {
  const video = useRef<HTMLVideoElement>(null);
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [plays, setPlays] = useState(0);
  const [loop, setLoop] = useState<Loop | null>(null);
  const whole = useRef(false);

  const go = useCallback(
    (frame: number): void => {
      const next = Math.max(0, Math.min(frames.length - 1, frame));
      whole.current = false;
      setPlaying(false);
      setAt(next);
      const element = video.current;
      if (!element) return;
      element.pause();
      element.currentTime = within(frames, next);
    },
    [frames],
  );

  const seen = useStable((mediaTime: number): void => {
    const element = video.current;
    const frame = frameAt(frames, mediaTime);
    if (!element || element.paused) return;
    setAt(frame);
    if (loop && frame >= loop.to) element.currentTime = within(frames, loop.from);
  });
  const ended = useStable((): void => {
    setPlaying(false);
    setAt(frames.length - 1);
    if (loop) {
      go(loop.from);
      void video.current?.play();
      setPlaying(true);
      return;
    }
    if (whole.current) setPlays((before) => before + 1);
    whole.current = false;
  });
  useEffect(() => {
    const element = video.current;
    if (!element) return undefined;
    let askedFrame = 0;
    const next = (_now: number, { mediaTime }: VideoFrameCallbackMetadata): void => {
      seen(mediaTime);
      askedFrame = element.requestVideoFrameCallback(next);
    };
    askedFrame = element.requestVideoFrameCallback(next);
    const end = (): void => ended();
    element.addEventListener('ended', end);
    return () => {
      element.cancelVideoFrameCallback(askedFrame);
      element.removeEventListener('ended', end);
    };
  }, [seen, ended]);

  const play = (speed: Speed): void => {
    const element = video.current;
    if (!element) return;
    const end = loop?.to ?? frames.length - 1;
    const begin = loop?.from ?? 0;
    const from = at >= end || at < begin ? begin : at;
    if (from !== at || element.ended) element.currentTime = within(frames, from);
    whole.current = speed === 1 && from === 0 && !loop;
    element.playbackRate = speed;
    setPlaying(true);
    element.play().catch(() => setPlaying(false));
  };
  const pause = (): void => {
    video.current?.pause();
    go(at);
  };
  const playback = {
    at,
    timeS: frames[at] ?? 0,
    playing,
    plays,
    loop,
    setLoop,
    go,
    play,
    pause,
  };
  return [video, playback];
};
