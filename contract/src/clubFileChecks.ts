import type { ClubFile } from './clubFile';

/** More places than anybody mends at once. */
const MOST = 40;

/**
 * What does not hang together in a club file, though each piece is well-formed: path → sentence. Ids must
 * not repeat, and what is named must be there.
 */
export const looseEndsOfClub = (file: ClubFile): Record<string, string> => {
  const found: Record<string, string> = {};
  const say = (path: string, text: string): void => {
    if (Object.keys(found).length < MOST) found[path] ??= text;
  };
  const distinct = (path: string, what: string, keys: readonly string[]): void => {
    const seen = new Set<string>();
    keys.forEach((key, i) => {
      if (seen.has(key)) say(`${path}[${i}]`, `${what} stands there twice.`);
      seen.add(key);
    });
  };
  const idsOf = (rows: readonly { id: string }[]): string[] => rows.map((row) => row.id);

  distinct('people', 'This id', idsOf(file.people));
  distinct(
    'people',
    'This e-mail address',
    file.people.map((person) => person.email),
  );
  if (!file.people.some((person) => person.role === 'owner')) say('people', 'Nobody is an owner.');
  for (const [path, rows] of Object.entries({
    athletes: file.athletes,
    restrictions: file.restrictions,
    movements: file.movements,
    ruleSets: file.ruleSets,
    grounds: file.grounds,
    approaches: file.approaches,
    sessions: file.sessions,
    reps: file.reps,
  })) {
    distinct(path, 'This id', idsOf(rows));
  }
  // Measured runs and other tests are kept in one place.
  const tests = new Set(idsOf(file.trials));
  distinct('trials', 'This id', idsOf(file.trials));
  distinct('readings', 'This id', idsOf(file.readings));
  file.readings.forEach((reading, i) => {
    if (tests.has(reading.id)) say(`readings[${i}].id`, 'A measured run has this id already.');
  });

  const athletes = new Set(idsOf(file.athletes));
  const mustBeThere = (path: string, id: string): void => {
    if (!athletes.has(id)) say(path, 'There is no such athlete in the file.');
  };
  for (const [path, rows] of Object.entries({
    restrictions: file.restrictions,
    trials: file.trials,
    readings: file.readings,
  })) {
    rows.forEach((row, i) => mustBeThere(`${path}[${i}].athleteId`, row.athleteId));
  }
  for (const [path, rows] of Object.entries({
    cueChoices: file.cueChoices ?? [],
    rungChoices: file.rungChoices ?? [],
    reviews: file.reviews ?? [],
  })) {
    distinct(path, 'This id', idsOf(rows));
    rows.forEach((row, i) => mustBeThere(`${path}[${i}].athleteId`, row.athleteId));
  }
  file.approaches.forEach((approach, i) =>
    approach.solved?.forEach((one, a) =>
      mustBeThere(`approaches[${i}].solved[${a}].athleteId`, one.athleteId),
    ),
  );
  file.approaches.forEach((approach, i) =>
    approach.athleteIds.forEach((id, a) => mustBeThere(`approaches[${i}].athleteIds[${a}]`, id)),
  );

  const approaches = new Set(idsOf(file.approaches));
  file.reviews?.forEach(({ approachId }, i) => {
    if (approachId !== null && !approaches.has(approachId))
      say(`reviews[${i}].approachId`, 'There is no such approach in the file.');
  });
  const grounds = new Set(idsOf(file.grounds));
  const sessionOfSet = new Map<string, string>();
  file.sessions.forEach((session, i) => {
    if (session.groundId !== null && !grounds.has(session.groundId))
      say(`sessions[${i}].groundId`, 'There is no such ground in the file.');
    session.drillSets.forEach((set, d) => {
      const path = `sessions[${i}].drillSets[${d}]`;
      if (sessionOfSet.has(set.id)) say(`${path}.id`, 'This id stands there twice.');
      sessionOfSet.set(set.id, session.id);
      if (set.work.kind === 'plan' && !approaches.has(set.work.approachId))
        say(`${path}.work.approachId`, 'There is no such approach in the file.');
      set.athleteIds.forEach((id, a) => mustBeThere(`${path}.athleteIds[${a}]`, id));
    });
  });

  const reps = new Map(file.reps.map((rep, i) => [rep.id, { rep, i }]));
  file.reps.forEach((rep, i) => {
    const path = `reps[${i}]`;
    mustBeThere(`${path}.athleteId`, rep.athleteId);
    if (sessionOfSet.get(rep.drillSetId) !== rep.sessionId)
      say(`${path}.drillSetId`, 'There is no such drill set in its session.');
    if (rep.voids === null) return;
    const meant = reps.get(rep.voids);
    if (!meant || meant.i >= i)
      say(`${path}.voids`, 'The rep that it takes back does not stand before it.');
    else if (
      meant.rep.sessionId !== rep.sessionId ||
      meant.rep.drillSetId !== rep.drillSetId ||
      meant.rep.athleteId !== rep.athleteId ||
      meant.rep.outcome === 'void'
    )
      say(`${path}.voids`, 'It takes back a rep of another turn.');
  });
  return found;
};
