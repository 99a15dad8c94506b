import type { Layout } from '@gravek/core';
import { Pause, Play } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { useStore } from 'zustand';
import { Segments } from '../controls/Segments';
import { RATES, toggle, useTime, type Player, type Rate } from './player';

const RATE_NAMES: Record<Rate, string> = { 1: 'True', 0.5: 'Half', 0.25: 'Quarter' };

const Now = ({
  layout,
  phases,
  player,
}: {
  layout: Layout;
  phases: readonly { code: string; name: string }[];
  player: Player;
}) => {
  const timeS = useTime(player);
  const at = layout.phases.find((phase) => timeS <= phase.toS + 1e-9) ?? layout.phases.at(-1);
  return (
    <span className="phase-now">
      {phases.find((one) => one.code === at?.code)?.name}{' '}
      <span className="figure">{timeS.toFixed(2)}</span>
      <span className="unit"> s</span>
    </span>
  );
};

/** Play, how fast, and the phase that passes. */
export const PlayControls = ({
  layout,
  phases,
  player,
}: {
  layout: Layout;
  phases: readonly { code: string; name: string }[];
  player: Player;
}) => {
  const { playing, rate } = useStore(player);
  return (
    <div className="row-line no-print">
      <Button variant="outline-dark" onClick={() => toggle(player)}>
        {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}{' '}
        {playing ? 'Stop' : 'Play'}
      </Button>
      <Segments
        label="Speed of the drawing"
        value={String(rate)}
        options={RATES.map((one) => ({ value: String(one), label: RATE_NAMES[one] }))}
        onChoose={(value) => player.setState({ rate: Number(value) as Rate })}
      />
      <Now layout={layout} phases={phases} player={player} />
    </div>
  );
};
