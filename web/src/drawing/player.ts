import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';

export const RATES = [1, 0.5, 0.25] as const;
export type Rate = (typeof RATES)[number];

type Playing = { timeS: number; playing: boolean; rate: Rate };

/** The clock of one drawing. Only what moves listens to its time, so that the rest is not drawn anew. */
export type Player = StoreApi<Playing> & { totalS: number };

/** A moment to look at the last position before it starts over. */
const REST_S = 0.6;

/** A clock that runs from 0 to the end of a drawing when it is told to play. */
export const usePlayer = (totalS: number): Player => {
  const player = useMemo(
    () =>
      Object.assign(
        createStore<Playing>(() => ({ timeS: totalS, playing: false, rate: 1 })),
        { totalS },
      ),
    [totalS],
  );
  const playing = useStore(player, (state) => state.playing);
  useEffect(() => {
    if (!playing) return undefined;
    let frame = 0;
    let last = performance.now();
    const next = (now: number): void => {
      const { timeS, rate } = player.getState();
      const at = timeS + ((now - last) / 1000) * rate;
      last = now;
      if (at > totalS + REST_S * rate) {
        player.setState({ timeS: totalS, playing: false });
        return;
      }
      player.setState({ timeS: at });
      frame = requestAnimationFrame(next);
    };
    frame = requestAnimationFrame(next);
    return () => cancelAnimationFrame(frame);
  }, [player, playing, totalS]);
  return player;
};

/** Plays from the start, or goes on from where it was stopped. */
export const toggle = (player: Player): void =>
  player.setState(({ playing, timeS }) => ({
    playing: !playing,
    timeS: !playing && timeS >= player.totalS - 1e-9 ? 0 : timeS,
  }));

/** The moment that is shown; it never goes past the end. */
export const useTime = (player: Player): number =>
  useStore(player, (state) => Math.min(state.timeS, player.totalS));
