import { LOADS } from '@gravek/contract/movement';

const LOAD_NAMES: Record<(typeof LOADS)[number], string> = {
  jump: 'jumping',
  sprint: 'sprinting',
  contact: 'contact',
  volume: 'many reps',
};

/** What a movement or a drill asks of the body, in words. */
export const LOADS_NAMED = LOADS.map((load) => [load, LOAD_NAMES[load]] as const);
