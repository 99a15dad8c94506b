import { describe, expect, it } from 'vitest';
import { MOVEMENTS } from '../src/movement/movements';
import { nothingFor, searchIn } from '../src/movement/search';

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

/** What coaches type when they look, and what it must lead to first: a movement, and where it is told of it a fault. */
const TYPED: readonly (readonly [words: string, movement: string, fault?: string | undefined])[] = [
  ...'backpedal · press cover · jam'.split(' · ').map((word) => [word, 'give-ground'] as const),
  ...'closeout · closing out · hands up late'
    .split(' · ')
    .map((word) => [word, 'slide-close-out'] as const),
  ...'come to balance · open field · breaking down · dead feet at the stop'
    .split(' · ')
    .map((word) => [word, 'close-and-shorten'] as const),
  ...'happy feet · stutter step · juke'.split(' · ').map((w) => [w, 'stutter-read-go'] as const),
  ...'box jump · knee drive · chin down · arch · J curve · flop'
    .split(' · ')
    .map((word) => [word, 'curved-run-up'] as const),
  ['sneaking a look at the board', 'straight-run-up', 'looks-down'],
  ['steps over the line', 'straight-run-up', 'over-line'],
  ['fouls the board', 'straight-run-up', 'over-line'],
  ...'false step · drive phase · blocks'.split(' · ').map((w) => [w, 'first-two-steps'] as const),
  ...'wall drill · posture drill'.split(' · ').map((word) => [word, 'wall-switches'] as const),
  ...'overstriding · turnover · beats a minute'
    .split(' · ')
    .map((word) => [word, 'steady-cadence'] as const),
  ...'jump stop · drop step · low post · hook · reverse pivot'
    .split(' · ')
    .map((word) => [word, 'post-footwork'] as const),
  ...'layup · two-step · wrong foot finish'
    .split(' · ')
    .map((word) => [word, 'two-step-finish'] as const),
  ...'pull-up · step back · crossover dribble · triple threat'
    .split(' · ')
    .map((word) => [word, 'jab-and-go'] as const),
  ...'bunt · slow roller · tag · relay · backhand'
    .split(' · ')
    .map((word) => [word, 'corner-fielder'] as const),
  ...'crow hop · fielding on the run · ground ball'
    .split(' · ')
    .map((word) => [word, 'gather-right-left'] as const),
  ...'bag drill · high knees over bags · kick slide'
    .split(' · ')
    .map((word) => [word, 'gaps'] as const),
  ...'pull · down block · reach step · pass protection · kick step'
    .split(' · ')
    .map((word) => [word, 'line-first-steps'] as const),
  ...'angle play · cutting the angle · near post'
    .split(' · ')
    .map((word) => [word, 'goal-arc'] as const),
  ...'crossovers · withdrawal · penultimate (throw)'
    .split(' · ')
    .map((word) => [word, 'crossover-run-up'] as const),
  ...'step close · approach · tight set'
    .split(' · ')
    .map((word) => [word, 'four-step-approach'] as const),
  ...'swing block · penetrate · pressing the net'
    .split(' · ')
    .map((word) => [word, 'block-jump'] as const),
];

describe('what coaches type', () => {
  const asked = TYPED.map(([words, code, fault]) => ({ words, code, fault: fault ?? null }));
  it.each(asked)(
    '“$words” leads first to $code, among five, with why',
    ({ words, code, fault }) => {
      const found = search(words);
      expect(found.length).toBeLessThanOrEqual(5);
      expect(found[0]?.movement.code).toBe(code);
      expect(found[0]!.hits.length).toBeGreaterThan(0);
      if (fault) expect(found[0]!.hits[0]).toMatchObject({ kind: 'fault', code: fault });
    },
  );

  it('gives the drill first whose exact name it is', () => {
    for (const movement of MOVEMENTS) {
      for (const { name, code } of movement.drills) {
        const [best] = search(name);
        expect(best!.hits[0], name).toMatchObject({ kind: 'drill' });
        const same = best!.movement.drills.find((drill) => drill.code === best!.hits[0]!.code)!;
        expect(same.name.toLowerCase(), code).toBe(name.toLowerCase());
      }
    }
  });

  it('says of a screen that nothing is meant by it here, and offers what is nearest', () => {
    for (const words of ['screen', 'Screens', 'screen by a teammate']) {
      expect(nothingFor(words)).toMatch(/screen/i);
      expect(search(words)[0]!.movement.code).toBe('slide-close-out');
    }
    expect(nothingFor('backpedal')).toBeNull();
  });
});
