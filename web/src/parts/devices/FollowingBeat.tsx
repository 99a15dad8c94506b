import { beatFor } from '@gravek/core/measuring/deviceCourse';
import { playBeats, steadyBeats } from '@gravek/core/runup/rhythm';
import { useEffect, useState } from 'react';
import { startSound } from '../../hearing/sound';

/** Contacts of a round that is played over and over. */
const ROUND = 8;
/** Readings over which the runner's own cadence is taken. */
const OVER = 5;

/** A beat that goes from the runner's own cadence to the target, never far ahead of the feet. */
export const FollowingBeat = ({
  cadences,
  targetSpm,
}: {
  /** as they were measured, the newest last */
  cadences: readonly number[];
  targetSpm: number;
}) => {
  const [on, setOn] = useState(false);
  const lately = cadences.slice(-OVER);
  const meanSpm =
    lately.length === 0 ? 0 : lately.reduce((sum, spm) => sum + spm, 0) / lately.length;
  // In twos, so that a beat that is hardly another does not begin anew.
  const beatSpm = 2 * Math.round(beatFor(meanSpm, targetSpm) / 2);
  useEffect(() => {
    if (!on) return undefined;
    const heard = playBeats(steadyBeats(beatSpm, (60 / beatSpm) * ROUND + 0.01));
    const sounding = startSound(heard.beats, heard.startS, heard.roundS, true);
    return () => sounding.stop();
  }, [on, beatSpm]);
  return (
    <button type="button" className="cue-change" aria-pressed={on} onClick={() => setOn(!on)}>
      {on ? `Beat at ${beatSpm}: stop` : 'Beat that follows'}
    </button>
  );
};
