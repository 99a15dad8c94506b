export const RUNGS = ['stand', 'walk', 'half', 'full', 'object', 'opponent'] as const;
/** A step of a drill's ladder, slowest and simplest first. */
export type Rung = (typeof RUNGS)[number];
