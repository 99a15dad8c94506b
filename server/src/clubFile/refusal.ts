import { StartFault } from '../startFault';

const SHOWN = 5;

/** Refuses a club file with the first places that are wrong: path → sentence. */
export const refusal = (places: Record<string, string>): StartFault => {
  const all = Object.entries(places);
  const lines = all.slice(0, SHOWN).map(([path, why]) => `  ${path || 'the file'}: ${why}`);
  if (all.length > SHOWN) lines.push('  … and more places');
  return new StartFault(
    `This club file cannot be loaded; nothing was changed.\n${lines.join('\n')}`,
  );
};
