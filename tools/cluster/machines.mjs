import { spawn, spawnSync } from 'node:child_process';
import { closeSync, mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ownByPostgres } from '../postgres.mjs';
import { must, ROOT } from '../run.mjs';
import { Stop } from '../say.mjs';
import { until } from './waiting.mjs';

/**
 * Three machines on one: each a network namespace with an address of its own on a bridge, in it a voter, Patroni
 * and the PostgreSQL that Patroni keeps. A machine can lose its power, and it can be cut off while it goes on.
 */
const BRIDGE = 'gravek0';
export const NETWORK = '10.213.77.0/24';
const address = (nr) => `10.213.77.${10 + nr}`;
const NAMES = ['db1', 'db2', 'db3'];

const ip = (...args) => must(`ip ${args.join(' ')}`, 'ip', args);

/** A file of deploy/ with its {{places}} filled in, readable by postgres only. */
export const fill = (name, places, to) => {
  const text = readFileSync(path.join(ROOT, 'deploy', name), 'utf8');
  const filled = text.replace(/\{\{(\w+)\}\}/g, (_, key) => {
    if (places[key] === undefined) throw new Stop(`deploy/${name}: nothing is known of {{${key}}}`);
    return String(places[key]);
  });
  writeFileSync(to, filled, { mode: 0o600 });
  ownByPostgres(to);
};

/** Runs as postgres without a process in between, so that a signal reaches what is meant. */
export const AS_POSTGRES = [
  'setpriv',
  '--reuid=postgres',
  '--regid=postgres',
  '--init-groups',
  '--inh-caps=-all',
  '--reset-env',
];

/** Starts a program, as the head of a group of its own; what it says goes into a file. */
export const startLogged = ([command, ...args], log, options = {}) => {
  const out = openSync(log, 'a');
  const stdio = ['ignore', out, out];
  const child = spawn(command, args, { cwd: '/', stdio, detached: true, ...options });
  closeSync(out);
  child.on('error', () => undefined);
  return child;
};

export const laysNetwork = () =>
  spawnSync('ip', ['netns', 'add', 'gravek-probe']).status === 0 &&
  spawnSync('ip', ['netns', 'delete', 'gravek-probe']).status === 0;

/**
 * @param folder theirs, with a folder for each
 * @param secret passwords by name
 * @returns the machines by name, and what is asked of all of them; `end` leaves nothing behind
 */
export const makeMachines = async (folder, bin, secret) => {
  const addresses = Object.fromEntries(NAMES.map((name, nr) => [name, address(nr + 1)]));
  const backups = path.join(folder, 'backups');
  mkdirSync(backups);
  ownByPostgres(backups);

  const netns = (name) => `gravek-${name}`;
  const running = (name) => {
    const { stdout } = spawnSync('ip', ['netns', 'pids', netns(name)], { encoding: 'utf8' });
    return stdout.split('\n').filter(Boolean).map(Number);
  };
  const powerOff = async (name) => {
    await until(`nothing runs on ${name}`, async () => {
      const found = running(name);
      for (const pid of found) process.kill(pid, 'SIGKILL');
      return found.length === 0;
    });
  };

  const end = async () => {
    for (const name of NAMES) {
      await powerOff(name);
      // The link first: a namespace may outlive its name for a while, and its link with it.
      spawnSync('ip', ['link', 'delete', `gvk-${name}`]);
      spawnSync('ip', ['netns', 'delete', netns(name)]);
    }
    spawnSync('ip', ['link', 'delete', BRIDGE]);
  };
  // What a run that was killed has left.
  await end();
  await ip('link', 'add', BRIDGE, 'type', 'bridge');
  await ip('address', 'add', NETWORK.replace('0/', '1/'), 'dev', BRIDGE);
  await ip('link', 'set', BRIDGE, 'up');

  const machine = async (name) => {
    const home = path.join(folder, name);
    mkdirSync(home);
    ownByPostgres(home);
    const inside = netns(name);
    await ip('netns', 'add', inside);
    await ip('link', 'add', `gvk-${name}`, 'type', 'veth', 'peer', 'name', 'eth0', 'netns', inside);
    await ip('link', 'set', `gvk-${name}`, 'master', BRIDGE, 'up');
    await ip('-n', inside, 'address', 'add', `${addresses[name]}/24`, 'dev', 'eth0');
    await ip('-n', inside, 'link', 'set', 'eth0', 'up');
    await ip('-n', inside, 'link', 'set', 'lo', 'up');

    const places = {
      ...addresses,
      ...{ name, address: addresses[name], run: home, bin, network: NETWORK, backups },
      ...{ data: path.join(home, 'data'), socket: home, cipher: secret.cipher },
      ...{ superPassword: secret.super, replicaPassword: secret.replica },
      ...{ restPassword: secret.rest },
    };
    const file = (of) => path.join(home, of);
    for (const config of ['etcd.yml', 'patroni.yml', 'pgbackrest.conf'])
      fill(config, places, file(config));
    const environment = [
      `PATH=${bin}:/usr/sbin:/usr/bin:/sbin:/bin`,
      ...['LC_ALL=C.UTF-8', `PGHOST=${home}`, `PGBACKREST_CONFIG=${file('pgbackrest.conf')}`],
    ];
    /** A command as postgres on this machine. */
    const command = (...args) => [
      ...['ip', 'netns', 'exec', inside],
      ...[...AS_POSTGRES, 'env', ...environment, ...args],
    ];
    const others = NAMES.filter((other) => other !== name);
    return {
      name,
      address: addresses[name],
      data: places.data,
      home,
      start: () => {
        startLogged(command('etcd', `--config-file=${file('etcd.yml')}`), file('etcd.log'));
        startLogged(command('patroni', file('patroni.yml')), file('patroni.log'));
      },
      powerOff: () => powerOff(name),
      /** From its peers alone: whoever asks it for rows still reaches it. */
      cutOff: async () => {
        for (const other of others)
          await ip('-n', inside, 'route', 'add', 'blackhole', addresses[other]);
      },
      join: async () => {
        for (const other of others)
          await ip('-n', inside, 'route', 'delete', 'blackhole', addresses[other]);
      },
      runHere: (what, ...args) => {
        const [program, ...rest] = command(...args);
        return must(what, program, rest, { cwd: '/' });
      },
      /** What runs of PostgreSQL under a title, such as `walreceiver`. */
      processes: (title) =>
        running(name).filter((pid) => {
          try {
            return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(title);
          } catch {
            return false;
          }
        }),
    };
  };
  const machines = {};
  for (const name of NAMES) machines[name] = await machine(name);

  const rest = async (name, where, init) => {
    const asked = { signal: AbortSignal.timeout(2_000), ...init };
    const answer = await fetch(`http://${addresses[name]}:8008${where}`, asked);
    return { ok: answer.ok, body: await answer.text() };
  };
  /** The machine that leads, as each Patroni says that it does; null while none or more than one does. */
  const leader = async () => {
    const found = [];
    for (const name of NAMES)
      if ((await rest(name, '/primary').catch(() => null))?.ok) found.push(name);
    return found.length === 1 ? machines[found[0]] : null;
  };
  /** Whether all three are there: a leader, and two that follow it, one of them synchronously. */
  const isWhole = async () => {
    const at = await leader();
    if (!at) return false;
    const { members } = JSON.parse((await rest(at.name, '/cluster')).body);
    const roles = members.map(({ role }) => role).sort();
    const follow = members.every(({ role, state, lag }) =>
      role === 'leader' ? true : /streaming|running/.test(state) && Number(lag) < 20_000_000,
    );
    return follow && roles.join() === 'leader,replica,sync_standby';
  };
  const change = async (settings) => {
    const at = await leader();
    const { ok, body } = await rest(at.name, '/config', {
      method: 'PATCH',
      headers: {
        authorization: `Basic ${Buffer.from(`gravek:${secret.rest}`).toString('base64')}`,
      },
      body: JSON.stringify(settings),
    });
    if (!ok) throw new Stop(`The settings of the cluster were not taken: ${body}`);
  };

  return {
    machines,
    addresses,
    backups,
    leader,
    isWhole,
    change,
    end,
  };
};
