import type { OnGround } from '@gravek/contract/ground';

/** A hall with nothing built in it but what is given. */
export const groundOf = (change: Partial<OnGround>): OnGround => ({
  ...{ groundId: '0191a6ee-7a36-7c7e-8a4f-6a3c5a1d0009', name: 'Hall', surface: 'hall floor' },
  ...{ laneM: null, goalM: null, uprightGapM: null, apron: null, gapM: null, baseM: null },
  ...{ rim: null, net: null, marks: [] },
  ...change,
});
