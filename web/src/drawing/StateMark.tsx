import type { FaultState } from '@gravek/core/cue/cueState';

const WORDS: Record<FaultState, string> = {
  new: 'too few reps',
  clearing: 'clearing',
  cleared: 'cleared',
  stuck: 'stuck',
  back: 'back',
  steady: 'steady',
};

const SIGNS: Record<FaultState, string> = {
  new: 'M7,3.5 v.01 M7,7 v.01 M7,10.5 v.01',
  clearing: 'M3,4 L11,10 M11,10 h-5 M11,10 v-5',
  cleared: 'M3,7.5 L6,10.5 L11.5,3.5',
  stuck: 'M3,3 h8 v8 h-8 z',
  back: 'M3,10 L11,4 M11,4 h-5 M11,4 v5',
  steady: 'M2.5,7 h9',
};

/** How a fault stands, as a sign and a word. */
export const StateMark = ({
  state,
  wordless = false,
}: {
  state: FaultState;
  wordless?: boolean;
}) => (
  <span className={`state state-${state}`}>
    <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
      <path
        d={SIGNS[state]}
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
    {wordless ? <span className="visually-hidden">{WORDS[state]}</span> : WORDS[state]}
  </span>
);
