import { describe, expect, it } from 'vitest';
import { SILENT_READS, silentCode, silentExit, silentRound } from '../src/field/silent';
import { MOVEMENTS } from '../src/movement/movements';
import { mirrorWords } from '../src/movement/sides';

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
