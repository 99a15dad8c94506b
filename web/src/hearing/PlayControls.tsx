import { playBeats, soundOf, wavFile } from '@gravek/core/runup/rhythm';
import { Pause, Play, Repeat, Volume2, VolumeX } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useStore } from 'zustand';
import { download, fileName } from '../controls/download';
import { Menu } from '../controls/Menu';
import { NumberInput } from '../controls/NumberInput';
import { Segments } from '../controls/Segments';
import { midiFile } from './midi';
import { RATES, toggle, useSettingsOf, useTime, type Player, type Rate } from './player';

const RATE_NAMES: Record<Rate, string> = { 1: 'True', 0.75: '¾', 0.5: 'Half', 0.25: 'Quarter' };
const SAMPLE_RATE = 44_100;

const Now = ({ player, nameAt }: { player: Player; nameAt: (timeS: number) => string }) => {
  const timeS = useTime(player);
  return (
    <span className="phase-now">
      {nameAt(timeS)} <span className="figure">{timeS.toFixed(2)}</span>
      <span className="unit"> s</span>
    </span>
  );
};

const Scrub = ({ player }: { player: Player }) => {
  const timeS = useTime(player);
  const totalS = useStore(player, (state) => state.totalS);
  return (
    <Form.Range
      className="scrub"
      aria-label="Moment shown"
      min={0}
      max={totalS}
      step={0.01}
      value={timeS}
      onChange={(event) => player.setState({ timeS: Number(event.target.value), playing: false })}
    />
  );
};

/** The rhythm as files: what is set to be heard, with its count-in, rate and part. */
const Save = ({ player, name }: { player: Player; name: string }) => {
  const heard = () => {
    const { beats, rate, countIn, part } = player.getState();
    const to = Math.min(part?.to ?? beats.length, beats.length);
    return playBeats(beats, { rate, countIn, to, from: Math.min(part?.from ?? 1, to) }).beats;
  };
  return (
    <Menu
      name="Beat as a file"
      items={[
        {
          name: 'as sound (WAV)',
          onChoose: () =>
            download(
              fileName(name, 'wav'),
              wavFile(soundOf(heard(), SAMPLE_RATE), SAMPLE_RATE) as Uint8Array<ArrayBuffer>,
              'audio/wav',
            ),
        },
        {
          name: 'as notes (MIDI)',
          onChoose: () =>
            download(
              fileName(name, 'mid'),
              midiFile(heard(), name) as Uint8Array<ArrayBuffer>,
              'audio/midi',
            ),
        },
      ]}
    />
  );
};

/** Play, how fast, with what sound, which part, and what passes now. */
export const PlayControls = ({
  player,
  name,
  nameAt,
}: {
  player: Player;
  /** what the files are called */
  name: string;
  /** what passes at a moment */
  nameAt: (timeS: number) => string;
}) => {
  const { playing, rate, sound, loop, countIn, part } = useSettingsOf(player);
  const count = useStore(player, (state) => state.beats.length);
  const setPart = (from: number, to: number): void => {
    const [a, b] = [Math.round(from), Math.round(to)].map((n) => Math.max(1, Math.min(count, n)));
    player.setState({ part: a === 1 && b === count ? null : { from: a!, to: b! } });
  };
  const from = part?.from ?? 1;
  const to = part?.to ?? count;
  return (
    <div className="play-row no-print">
      <Button variant="outline-dark" onClick={() => toggle(player)}>
        {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}{' '}
        {playing ? 'Stop' : 'Play'}
      </Button>
      <Segments
        label="Speed of the drawing"
        value={String(rate)}
        options={RATES.map((rate) => ({ value: String(rate), label: RATE_NAMES[rate] }))}
        onChoose={(value) => player.setState({ rate: Number(value) as Rate })}
      />
      <Button
        variant="outline-dark"
        aria-pressed={sound}
        aria-label="Sound"
        title="A tone a contact, left low and right high"
        onClick={() => player.setState({ sound: !sound })}
      >
        {sound ? <Volume2 size={16} aria-hidden /> : <VolumeX size={16} aria-hidden />}
      </Button>
      <Button
        variant={loop ? 'dark' : 'outline-dark'}
        aria-pressed={loop}
        onClick={() => player.setState({ loop: !loop })}
      >
        <Repeat size={16} aria-hidden /> Loop
      </Button>
      <Button
        variant={countIn ? 'dark' : 'outline-dark'}
        aria-pressed={countIn > 0}
        onClick={() => player.setState({ countIn: countIn ? 0 : 4 })}
      >
        Count in
      </Button>
      {count > 1 && (
        <span className="row-line small-text quiet" style={{ gap: 5 }}>
          contacts
          <NumberInput
            aria-label="From contact"
            width="3.1rem"
            decimals={0}
            value={from}
            onNumber={(value) => setPart(value, Math.max(value, to))}
            onMessage={() => undefined}
          />
          to
          <NumberInput
            aria-label="To contact"
            width="3.1rem"
            decimals={0}
            value={to}
            onNumber={(value) => setPart(Math.min(from, value), value)}
            onMessage={() => undefined}
          />
        </span>
      )}
      <Save player={player} name={name} />
      <Scrub player={player} />
      <Now player={player} nameAt={nameAt} />
    </div>
  );
};
