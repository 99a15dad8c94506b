import http from 'node:http';
import type { RepReceipt } from '@gravek/contract/session';
import { atPace, DEVICES, type Timed, type Work } from './pace';

/** The devices of the bench: each has one connection and sends one rep at a time. */
const run = async ({ address, to = address, email, password, reps }: Work): Promise<Timed> => {
  const agents = Array.from(
    { length: DEVICES },
    () => new http.Agent({ keepAlive: true, maxSockets: 1 }),
  );
  let cookie = '';
  const post = (
    agent: http.Agent,
    path: string,
    body: object,
    at = address,
  ): Promise<{ status: number; cookie: string; text: string }> =>
    new Promise((resolve, reject) => {
      const request = http.request(
        `${at}/api${path}`,
        {
          agent,
          method: 'POST',
          headers: { origin: address, cookie, 'content-type': 'application/json' },
        },
        (answer) => {
          let text = '';
          answer.on('data', (part: Buffer) => (text += part.toString()));
          answer.on('end', () =>
            resolve({
              status: answer.statusCode!,
              cookie: (answer.headers['set-cookie'] ?? [])
                .map((text) => text.split(';')[0])
                .join('; '),
              text,
            }),
          );
        },
      );
      request.on('error', reject);
      request.end(JSON.stringify(body));
    });
  cookie = (await post(agents[0]!, '/sign-in', { email, password })).cookie;
  let refused = 0;
  const times = await atPace(reps.length, async (n) => {
    const { status, text } = await post(agents[n % DEVICES]!, '/reps', { reps: [reps[n]] }, to);
    if (status !== 200 || (JSON.parse(text) as RepReceipt).stored.length !== 1) refused += 1;
  });
  for (const agent of agents) agent.destroy();
  return { times, refused };
};

process.once('message', (work) => {
  void run(work as Work).then((timed) => process.send!(timed, () => process.exit(0)));
});
