import { calibrate, type Calibration } from '../src/calibration';

/** Prints how far what the app says of faults is to be trusted. */
const SEASONS = Number(process.env.GRAVEK_SEASONS ?? 200);

const percent = (part: number): string => `${(100 * part).toFixed(1)} %`.padStart(8);
const ROWS: [string, string, (one: Calibration) => string][] = [
  ['unchanged, read clearing: looks', 'at most 3 %', (one) => percent(one.falseLooks)],
  ['unchanged, read clearing: seasons', 'at most 7 %', (one) => percent(one.falseSeasons)],
  ['halved, found in ten sessions', 'at least 80 %', (one) => percent(one.found)],
  ['sessions until half were found', '', (one) => `${one.medianSessions}`.padStart(8)],
  ['bands that hold the truth', '88 to 92 %', (one) => percent(one.held)],
  ['planted root cause chosen', 'at least 95 %', (one) => percent(one.rootFound)],
  ['unchanged after a relapse: seasons', 'at most 9 %', (one) => percent(one.falseAfterRelapse)],
  ['quartered after a relapse, found', 'at least 80 %', (one) => percent(one.foundAfterRelapse)],
  ['one exit, a quarter watched: bands', '86 to 94 %', (one) => percent(one.heldExposed)],
  ['the same counted over all reps', '', (one) => percent(one.heldByAll)],
];

const COLUMNS = [6, 12].flatMap((reps) => [0, 0.05].map((wobble) => ({ reps, wobble })));
const figures = COLUMNS.map((column) => calibrate({ ...column, seasons: SEASONS, seed: 0.31 }));
console.log(
  `${SEASONS} made-up seasons of each sort; reps a session, and by how much days are off`,
);
console.log(
  ''.padEnd(36) +
    'asked'.padEnd(15) +
    COLUMNS.map(({ reps, wobble }) => `${reps} / ${100 * wobble} pts`.padStart(12)).join(''),
);
for (const [name, asked, write] of ROWS) {
  console.log(
    name.padEnd(36) +
      asked.padEnd(15) +
      figures.map((figure) => write(figure).padStart(12)).join(''),
  );
}
