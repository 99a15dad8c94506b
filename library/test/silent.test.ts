import { describe, expect, it } from 'vitest';
import { silentExit } from '../src/field/silentExit';
import { SILENT_READS, silentCode, silentRound } from '../src/field/silentReads';
import { ownBeat } from '../src/field/ownBeat';
import { MOVEMENTS, movementOf } from '../src/movement/movements';
import { mirrorWords } from '../src/movement/sides';
import { usualBody } from '../src/planning/usualBody';
import { plainChoices } from '../src/session/work';

describe('what a partner shows', () => {
  const reads = MOVEMENTS.flatMap(({ code: movement, phases }) =>
    phases.flatMap(({ code: phase, read }) => (read ? [{ movement, phase, read }] : [])),
  );

  it('is there for every read, with its options and how often they come', () => {
    expect(SILENT_READS.map(({ movement, phase }) => `${movement}/${phase}`).sort()).toEqual(
      reads.map(({ movement, phase }) => `${movement}/${phase}`).sort(),
    );
    for (const { movement, phase, read } of reads) {
      const silent = SILENT_READS.find(
        (other) => other.movement === movement && other.phase === phase,
      )!;
      expect(silent.shown.map(({ option, weight }) => ({ code: option, weight }))).toEqual(
        read.options.map(({ code, weight }) => ({ code, weight })),
      );
    }
  });

  it('asks the same of somebody the other way round, whose left is right', () => {
    for (const read of SILENT_READS)
      read.shown.forEach((cue, option) => {
        const other = read.shown.findIndex(
          (shown) => shown.option === (cue.mirrored ?? cue.option),
        );
        expect(silentExit(read, option, true)).toBe(silentExit(read, other, false));
        // Mirrored twice it is what it was.
        expect(read.shown[other]!.mirrored ?? read.shown[other]!.option).toBe(cue.option);
        if (cue.mirrored) expect(mirrorWords(cue.shows)).toBe(read.shown[other]!.shows);
      });
  });

  it('goes by a code of four figures, and by no other', () => {
    expect(silentCode('gaps', 'at-mark', 7)).toMatch(/^\d{4}$/);
    expect(silentRound(silentCode('gaps', 'at-mark', 7)!)!.read.movement).toBe('gaps');
    expect(silentCode('straight-run-up', 'run', 7)).toBeNull();
    for (const code of ['', '12', '12345', 'abcd', '9999', '-100'])
      expect(silentRound(code)).toBeNull();
  });
});

describe('a beat', () => {
  const steady = movementOf('steady-cadence');
  const base = { name: '', movement: steady, choices: plainChoices(steady, null) };
  const tempo = { kind: 'tempo', cadenceSpm: 180 } as const;
  /** Somebody whose steady cadence was counted. */
  const who = (cadenceSpm: number) => ({ body: { ...usualBody(), cadenceSpm } });
  const targetOf = (countedSpm: number): number => {
    const { call } = ownBeat(tempo, base, [who(countedSpm)]);
    return (call as typeof tempo).cadenceSpm;
  };

  it('is at the target of whoever runs, never the same for all', () => {
    expect(targetOf(172)).toBeGreaterThan(targetOf(158));
    expect(targetOf(158)).toBeLessThan(175);
    expect(ownBeat(tempo, base, [who(164), who(164)])).toEqual({
      call: { kind: 'tempo', cadenceSpm: targetOf(164) },
      apartSpm: null,
    });
    expect(ownBeat(tempo, base, [who(172), who(164), who(158)])).toEqual({
      call: { kind: 'tempo', cadenceSpm: targetOf(164) },
      apartSpm: [targetOf(158), targetOf(172)],
    });
  });

  it('stays as the set has it where nobody holds a target', () => {
    const gaps = movementOf('gaps');
    const other = { name: '', movement: gaps, choices: plainChoices(gaps, null) };
    expect(ownBeat(tempo, other, [who(164)])).toEqual({ call: tempo, apartSpm: null });
    expect(ownBeat({ kind: 'rhythm' }, base, [who(164)]).call).toEqual({ kind: 'rhythm' });
    expect(ownBeat(tempo, base, [{ body: null }]).call).toEqual(tempo);
  });
});
