import { describe, expect, it } from 'vitest';
import { MOVEMENTS, searchIn } from '../src';

const search = searchIn(MOVEMENTS);
const first = (words: string) => search(words)[0]!;

describe('the search', () => {
  it('finds the movement, the fault and the drill by what goes wrong', () => {
    const found = first('stops and stamps, shoulders fall forward');
    expect(found.movement.code).toBe('close-and-shorten');
    expect(found.hits[0]).toMatchObject({ kind: 'fault', code: 'stops-dead' });
    expect(found.drills).toContain('Clap to short');
  });

  it.each([
    ['goalkeeper', 'goal-arc'],
    ['corner infielder', 'corner-fielder'],
    ['a runner coming straight at you', 'give-ground'],
    ['drifts forward into the net', 'four-step-approach'],
    ['defender leans on the left shoulder', 'post-footwork'],
    ['left hand drop step', 'post-footwork'],
    ['lands along the bar', 'curved-run-up'],
    ['overstriding', 'steady-cadence'],
    ['chopping steps near the board', 'straight-run-up'],
    ['pivot foot lifts', 'jab-and-go'],
  ])('%s → %s', (words, code) => {
    expect(
      search(words)
        .slice(0, 2)
        .map((one) => one.movement.code),
    ).toContain(code);
  });

  it.each([
    ['keeper', 'goal-arc'],
    ['goalie', 'goal-arc'],
    ['high jump', 'curved-run-up'],
    ['javelin', 'crossover-run-up'],
    ['feint', 'stutter-read-go'],
    ['sprint start', 'first-two-steps'],
    ['lay-up', 'two-step-finish'],
    ['heel strike', 'steady-cadence'],
  ])('knows what people call it: %s → %s comes first', (words, code) => {
    expect(first(words).movement.code).toBe(code);
  });

  it('bears a slip of the finger and half a word', () => {
    expect(first('goalkeper').movement.code).toBe('goal-arc');
    expect(first('crossov run').movement.code).toBe('crossover-run-up');
  });

  it('shows all for no words and none for nonsense', () => {
    expect(search('  ')).toHaveLength(MOVEMENTS.length);
    expect(search('zzqxj')).toEqual([]);
    expect(search('the of a')).toEqual([]);
  });
});
