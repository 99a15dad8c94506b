import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { installDebian, installPackages, ROOT, run } from './run.mjs';
import { say, Stop } from './say.mjs';

/** Where parts of a test run leave what came of them. */
export const RESULTS = path.join(ROOT, 'test-results');

/** How a part ends that could not be tried here; it says why. */
const NOT_TRIED = 77;

const SLOWEST = 10;

const seconds = (ms) => `${Math.round(ms / 1000)} s`;

const readJson = (file) => {
  const at = path.join(RESULTS, file);
  return existsSync(at) ? JSON.parse(readFileSync(at, 'utf8')) : null;
};

/** The first line of what a failed test said, without colours. */
const firstLine = (message = '') =>
  message
    .replace(/\u001b\[[\d;]*m/g, '')
    .split('\n')[0]
    .slice(0, 300);

/** What Vitest left behind: counts, what failed and why, and how long each file took. */
const vitestOutcome = (file) => {
  const found = readJson(file);
  if (!found) return null;
  return {
    passed: found.numPassedTests,
    failed: found.numFailedTests,
    skipped: found.numPendingTests,
    // A file that could not be read at all has no tests, only a message.
    wrong: found.testResults.flatMap(({ name, status, message, assertionResults }) => {
      const file = path.relative(ROOT, name);
      const failed = assertionResults.filter((test) => test.status === 'failed');
      if (status === 'failed' && !failed.length) return [`${file}: ${firstLine(message)}`];
      return failed.map(
        ({ fullName, failureMessages }) =>
          `${file} › ${fullName}: ${firstLine(failureMessages[0])}`,
      );
    }),
    files: found.testResults.map(({ name, startTime, endTime }) => ({
      name: path.relative(ROOT, name),
      ms: endTime - startTime,
    })),
  };
};

/** What Playwright left behind, likewise; a test that passed at the second try has failed. */
const playwrightOutcome = (file) => {
  const found = readJson(file);
  if (!found) return null;
  const msOf = (suite) =>
    (suite.suites ?? []).reduce((sum, inner) => sum + msOf(inner), 0) +
    (suite.specs ?? [])
      .flatMap((spec) => spec.tests.flatMap((test) => test.results))
      .reduce((sum, { duration }) => sum + duration, 0);
  const wrongOf = (suite) => [
    ...(suite.suites ?? []).flatMap(wrongOf),
    ...(suite.specs ?? [])
      .filter(({ ok }) => !ok)
      .map((spec) => {
        const errors = spec.tests
          .flatMap((test) => test.results)
          .flatMap(({ error }) => error ?? []);
        return `e2e/tests/${spec.file}:${spec.line} › ${spec.title}: ${firstLine(errors[0]?.message)}`;
      }),
  ];
  const { expected, unexpected, flaky, skipped } = found.stats;
  return {
    passed: expected,
    failed: unexpected + flaky,
    skipped,
    wrong: found.suites.flatMap(wrongOf),
    files: found.suites.map((suite) => ({ name: `e2e/tests/${suite.file}`, ms: msOf(suite) })),
  };
};

const OUTCOMES = { 'unit.json': vitestOutcome, 'browser.json': playwrightOutcome };

/** Vitest's words to leave its outcome behind. */
export const VITEST = [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${RESULTS}/unit.json`,
];

/** What tests need of the machine. */
export const prepareTests = async () => {
  await installPackages();
  if (!existsSync('/usr/bin/chromium-headless-shell')) {
    await installDebian('chromium-headless-shell', 'the browser tests');
  }
  if (!existsSync('/usr/bin/pdftotext')) {
    await installDebian('poppler-utils', 'the tests of printed sheets');
  }
  rmSync(RESULTS, { recursive: true, force: true });
  mkdirSync(RESULTS, { recursive: true });
};

/** A run of several parts, told at its end. */
export const testRun = () => {
  const began = Date.now();
  const parts = [];
  return {
    /** Runs one part to its end; the others are run though it fails. */
    part: async (name, command, args, options) => {
      const start = Date.now();
      say(`\n— ${name}`);
      const { code } = await run(command, args, options);
      const how = code === 0 ? 'good' : code === NOT_TRIED ? 'NOT TRIED' : 'FAILED';
      const ms = Date.now() - start;
      parts.push({ name, how, ms });
      say(`— ${name}: ${how} after ${seconds(ms)}`);
    },
    /**
     * Says how long each part took, which files were slowest, which tests failed and why, and as the last line how many passed.
     *
     * @param files those that parts leave behind
     * @throws {Stop} when anything failed or left nothing behind
     */
    tell: (files) => {
      const outcomes = files.map((file) => OUTCOMES[file](file));
      const slowest = outcomes
        .flatMap((outcome) => outcome?.files ?? [])
        .sort((a, b) => b.ms - a.ms)
        .slice(0, SLOWEST);
      say('\nSlowest files:');
      for (const { name, ms } of slowest) say(`  ${seconds(ms).padStart(6)}  ${name}`);
      say('Parts:');
      for (const { name, how, ms } of parts) say(`  ${seconds(ms).padStart(6)}  ${name}: ${how}`);
      say(`  ${seconds(Date.now() - began).padStart(6)}  in all`);
      const wrong = outcomes.flatMap((outcome) => outcome?.wrong ?? []);
      if (wrong.length) say('\nFailed:');
      for (const line of wrong) say(`  ${line}`);
      const sum = (key) => outcomes.reduce((all, outcome) => all + (outcome?.[key] ?? 0), 0);
      say(`\n${sum('passed')} passed, ${sum('failed')} failed, ${sum('skipped')} skipped`);
      if (outcomes.includes(null)) throw new Stop('A part of the tests left no result behind.');
      if (parts.some(({ how }) => how === 'FAILED'))
        throw new Stop('Not everything holds; see above.');
    },
  };
};
