import { ChevronLeft, ChevronRight, Pause, Play, Repeat } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Segments } from '../controls/Segments';
import { SPEEDS, type Playback, type Speed } from './useClip';

/** Looks at full speed before anything slower is offered. */
export const FULL_LOOKS = 2;

const NAMES: Record<Speed, string> = { 1: 'Full', 0.5: 'Half', 0.25: 'Quarter' };

/** Plays: twice at full speed first, then slower, frame by frame, or a part over and over. */
export const Transport = ({
  playback,
  speed,
  slow,
  onSpeed,
  onSlow,
  onLoop,
  loopName,
}: {
  playback: Playback;
  speed: Speed;
  /** slower plays are offered */
  slow: boolean;
  onSpeed: (speed: Speed) => void;
  onSlow: () => void;
  onLoop: () => void;
  loopName: string;
}) => {
  const { playing, plays, at, go, play, pause, loop } = playback;
  const left = FULL_LOOKS - plays;
  const [begun, setBegun] = useState(false);
  const start = (): void => {
    setBegun(true);
    if (playing) pause();
    else play(slow ? speed : 1);
  };
  return (
    <div className="film-transport row-line">
      <Button variant={slow ? 'outline-dark' : 'primary'} onClick={start}>
        {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}{' '}
        {playing ? 'Pause' : slow ? 'Play' : 'Play at full speed'}
      </Button>
      {slow ? (
        <>
          <Segments
            label="Speed"
            options={SPEEDS.map((speed) => ({ value: String(speed), label: NAMES[speed] }))}
            value={String(speed)}
            onChoose={(value) => {
              const chosen = Number(value) as Speed;
              onSpeed(chosen);
              if (playing) play(chosen);
            }}
          />
          <span className="d-inline-flex gap-1">
            <Button
              variant="outline-dark"
              aria-label="Frame back"
              title="Frame back (,)"
              onClick={() => go(at - 1)}
            >
              <ChevronLeft size={16} aria-hidden />
            </Button>
            <Button
              variant="outline-dark"
              aria-label="Frame on"
              title="Frame on (.)"
              onClick={() => go(at + 1)}
            >
              <ChevronRight size={16} aria-hidden />
            </Button>
          </span>
          <Button
            variant={loop ? 'dark' : 'outline-dark'}
            aria-pressed={loop !== null}
            onClick={onLoop}
          >
            <Repeat size={16} aria-hidden /> {loopName}
          </Button>
        </>
      ) : (
        <span className="quiet small-text">
          {begun && plays > 0
            ? `Once more at full speed, then slowly.`
            : `Look ${left === 1 ? 'once' : 'twice'} at full speed first.`}{' '}
          <Button variant="link" className="p-0 align-baseline small-text" onClick={onSlow}>
            Slow it down now
          </Button>
        </span>
      )}
    </div>
  );
};
