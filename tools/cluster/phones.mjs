import { randomUUID } from 'node:crypto';
import http from 'node:http';
import https from 'node:https';
import { Stop } from '../say.mjs';
import { pause, until } from './waiting.mjs';

const PATIENCE_MS = 15_000;
const ATHLETES_EACH = 10;

export const CLUB = {
  ...{ name: 'Tarn Valley', unit: 'metric', cueSchool: 'root-cause', timeZone: 'UTC' },
};

/** Squads of ten, each with a session; every athlete's turns are logged by a phone of its own. */
export const makeClub = async (asker, squads) => {
  const works = [];
  for (let squad = 1; squad <= squads; squad += 1) {
    const athleteIds = Array.from({ length: ATHLETES_EACH }, () => randomUUID());
    const [approachId, sessionId, drillSetId] = Array.from({ length: 3 }, () => randomUUID());
    for (const [nr, id] of athleteIds.entries()) {
      await asker.must('POST', '/api/athletes', {
        ...{ id, name: `Runner ${squad}-${nr + 1}`, squad: `Squad ${squad}`, hand: 'right' },
        ...{ takeoffFoot: 'left', shoeM: 0.26, heightM: 1.74, birthYear: 2008, positions: [] },
      });
    }
    await asker.must('POST', '/api/approaches', {
      ...{ id: approachId, name: `Board, squad ${squad}`, movement: 'straight-run-up', athleteIds },
      choices: {
        ...{ target: 'board', takeoffFoot: 'own', startFoot: null, steps: 12, distanceM: null },
        ...{ ending: { kind: 'even' }, absorb: 'early', tolerance: 0.1, speedFraction: 1 },
        checkMarks: [],
      },
    });
    await asker.must('POST', '/api/sessions', {
      ...{ id: sessionId, date: '2031-05-14', title: `Run-ups ${squad}`, place: '' },
      drillSets: [
        {
          ...{ id: drillSetId, work: { kind: 'plan', approachId }, athleteIds },
          ...{ sets: 20, reps: 50, restS: 0, setRestS: 0 },
        },
      ],
    });
    for (const athleteId of athleteIds) works.push({ sessionId, drillSetId, athleteId });
  }
  return works;
};

/** Somebody with a browser: one connection that is kept, the cookies of one sign-in. */
export const makeAsker = (origin, ca) => {
  const { Agent, request } = origin.startsWith('https:') ? https : http;
  let cookie = '';
  const agent = () => new Agent({ keepAlive: true, maxSockets: 1, ca });
  const asking = (way) => {
    const ask = (method, where, body, more = {}) =>
      new Promise((resolve, reject) => {
        const text = body === undefined || typeof body === 'string' ? body : JSON.stringify(body);
        const sent = request(
          `${origin}${where}`,
          {
            ...{ method, agent: way, timeout: PATIENCE_MS },
            headers: {
              ...{ origin, cookie, ...more },
              ...(text ? { 'content-type': 'application/json' } : {}),
            },
          },
          (answer) => {
            const parts = [];
            answer.on('data', (part) => parts.push(part));
            answer.on('end', () =>
              resolve({
                status: answer.statusCode,
                headers: answer.headers,
                said: Buffer.concat(parts).toString(),
              }),
            );
            answer.on('error', reject);
          },
        );
        sent.on('timeout', () => sent.destroy(new Error('no answer')));
        sent.on('error', reject);
        sent.end(text);
      });
    return ask;
  };
  const ask = asking(agent());
  return {
    ask,
    /** The same person at another device. */
    another: () => asking(agent()),
    signIn: (answer) =>
      (cookie = answer.headers['set-cookie'].map((line) => line.split(';')[0]).join('; ')),
    must: async (method, where, body) => {
      const { status, said } = await ask(method, where, body);
      if (![200, 202, 204].includes(status))
        throw new Stop(`${method} ${where}: ${status} ${said.slice(0, 400)}`);
      return said ? JSON.parse(said) : null;
    },
    /** Hears of changes, over a stream that is opened again when it ends, as a page does. */
    listen: () => {
      let heard = '';
      let over = false;
      let stream;
      const open = () => {
        const options = { ca, headers: { cookie } };
        const again = () => !over && setTimeout(open, 500);
        stream = request(`${origin}/api/changes`, options, (answer) => {
          answer.on('data', (part) => (heard += part));
          answer.on('close', again);
        });
        stream.on('error', again);
        stream.end();
      };
      open();
      return {
        heard: () => heard,
        end: () => {
          over = true;
          stream.destroy();
        },
      };
    },
  };
};

/** A rep as a phone logs it: the `turn`th of its athlete in a set of 20 rounds. */
export const repOf = (work, device, turn) => ({
  ...{ id: randomUUID(), movement: 'straight-run-up', ...work },
  ...{ set: 1 + Math.floor((turn - 1) / 50), rep: 1 + ((turn - 1) % 50), side: 'own', turn },
  ...{ part: null, leadFoot: null, speedPct: null, cue: null },
  ...{ outcome: 'clean', voids: null, faults: [], device, deviceNo: turn },
  at: new Date().toISOString(),
});

/**
 * Phones that log a rep every now and then, and send each again and again under the same id until the server
 * has said that it has it.
 *
 * @param works which session, set and athlete each phone logs
 * @param fromTurn of each athlete; 1 is the first
 */
export const startPhones = (asker, works, { everyMs, fromTurn }) => {
  /** ids that the server has said it has, with the number that it told */
  const acknowledged = new Map();
  const moments = [];
  let over = false;
  let unanswered = 0;
  let longestMs = 0;
  const phone = async (work, nr) => {
    const ask = asker.another();
    const device = randomUUID();
    await pause((nr * everyMs) / works.length);
    for (let turn = fromTurn; !over; turn += 1) {
      const rep = repOf(work, device, turn);
      const beganMs = Date.now();
      await until(
        `phone ${nr} is rid of rep ${turn}`,
        async () => {
          const answer = await ask('POST', '/api/reps', { reps: [rep] }).catch(() => null);
          if (answer?.status !== 200) {
            unanswered += 1;
            await pause(1_000);
            return false;
          }
          const { stored } = JSON.parse(answer.said);
          if (stored[0]?.id !== rep.id) throw new Stop(`Rep ${turn} was refused: ${answer.said}`);
          acknowledged.set(rep.id, stored[0].arrival);
          moments.push(Date.now());
          return true;
        },
        180_000,
      );
      longestMs = Math.max(longestMs, Date.now() - beganMs);
      await pause(Math.max(0, everyMs - (Date.now() - beganMs)));
    }
  };
  const ended = Promise.all(works.map(phone));
  ended.catch(() => undefined);
  return {
    acknowledged,
    unanswered: () => unanswered,
    /** the longest that any rep had to wait on its phone */
    longestMs: () => longestMs,
    /** the longest time from a moment on in which no phone was told anything */
    silenceMs: (sinceMs) => {
      const seen = [sinceMs, ...moments.filter((ms) => ms > sinceMs), Date.now()];
      return Math.max(...seen.slice(1).map((ms, nr) => ms - seen[nr]));
    },
    /** until phones have been told that so many more are stored */
    someMore: async (many) => {
      const from = acknowledged.size;
      await until(
        `${many} more reps are taken`,
        async () => acknowledged.size >= from + many,
        120_000,
      );
    },
    /** once each is rid of the rep that it holds */
    end: async () => {
      over = true;
      await ended;
    },
  };
};
