import { playBeats, type Beat } from '@gravek/core/runup/rhythm';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { startSound } from './sound';

export const RATES = [1, 0.75, 0.5, 0.25] as const;
export type Rate = (typeof RATES)[number];

type Playing = {
  timeS: number;
  playing: boolean;
  rate: Rate;
  sound: boolean;
  loop: boolean;
  /** clicks before the start */
  countIn: 0 | 4;
  /** only these beats, by their order; null for all */
  part: { from: number; to: number } | null;
  beats: readonly Beat[];
  totalS: number;
};

/** The clock of one drawing. Only what moves listens to its time, so that the rest is not drawn anew. */
export type Player = StoreApi<Playing>;

/** A moment to look at the last position before it stops. */
const REST_S = 0.6;

/** Plays what the store holds, until it is stopped or over. */
const run = (player: Player): (() => void) => {
  const { beats, totalS, rate, sound, loop, countIn, part } = player.getState();
  const from = Math.min(part?.from ?? 1, beats.length);
  const to = Math.min(Math.max(part?.to ?? beats.length, from), beats.length);
  if (beats.length === 0) {
    player.setState({ playing: false });
    return () => undefined;
  }
  const heard = playBeats(beats, { rate, countIn, from, to });
  const beganS = from === 1 ? 0 : beats[from - 2]!.timeS;
  const endS = to === beats.length ? totalS : beats[to - 1]!.timeS;
  const roundS = Math.max(heard.roundS, (endS - beganS) / rate);
  const sounding = sound ? startSound(heard.beats, heard.startS, roundS, loop) : null;
  const begin = performance.now();
  const now = sounding?.now ?? (() => (performance.now() - begin) / 1000);
  let frame = 0;
  const next = (): void => {
    const at = now() - heard.startS;
    if (!loop && at > roundS + REST_S) {
      player.setState({ timeS: endS, playing: false });
      return;
    }
    const inRound = loop && at > 0 ? at % roundS : Math.min(at, roundS);
    player.setState({ timeS: beganS + Math.max(0, inRound) * rate });
    frame = requestAnimationFrame(next);
  };
  frame = requestAnimationFrame(next);
  return () => {
    cancelAnimationFrame(frame);
    sounding?.stop();
  };
};

/** A clock that runs through beats when it is told to play, and sounds them. */
export const usePlayer = (beats: readonly Beat[], totalS: number): Player => {
  const [player] = useState(() =>
    createStore<Playing>(() => ({
      timeS: totalS,
      playing: false,
      rate: 1,
      sound: true,
      loop: false,
      countIn: 0,
      part: null,
      beats,
      totalS,
    })),
  );
  useEffect(() => {
    player.setState({ beats, totalS, timeS: totalS, playing: false });
  }, [player, beats, totalS]);
  const { playing, rate, sound, loop, countIn, part } = useSettingsOf(player);
  useEffect(
    () => (playing ? run(player) : undefined),
    [player, playing, rate, sound, loop, countIn, part],
  );
  return player;
};

/** How it plays, apart from the moment, which changes with every frame. */
export const useSettingsOf = (player: Player) =>
  useStore(
    player,
    useShallow(({ playing, rate, sound, loop, countIn, part }) => ({
      playing,
      rate,
      sound,
      loop,
      countIn,
      part,
    })),
  );

export const toggle = (player: Player): void =>
  player.setState(({ playing }) => ({ playing: !playing }));

/** The moment that is shown. */
export const useTime = (player: Player): number =>
  useStore(player, (state) => Math.min(state.timeS, state.totalS));
