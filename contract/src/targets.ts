/** What a run-up to a target arrives at. */
export const TARGETS = ['board', 'line', 'box', 'hurdle', 'take-off spot', 'opponent'] as const;
