import type { Device, Invitation, RecoveryCodes, SecondStep } from '@gravek/contract/account';
import type { DeedLine } from '@gravek/contract/deeds';
import { sql } from 'kysely';
import { Secret, TOTP } from 'otpauth';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { forgetDeeds } from '../src/deeds/write';
import {
  anAthlete,
  coachIn,
  contentsOf,
  cookieOf,
  furnish,
  invited,
  inviteTo,
  openStage,
  PASSWORD,
  stranger,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
});
afterAll(() => stage.close());

const membersOf = async (who: Coach) =>
  (await who.get('/members').expect(200)).body as { id: string; email: string; person: string }[];
const invitationsOf = async (who: Coach) =>
  (await who.get('/invitations').expect(200)).body as Invitation[];
const deedsOf = async (who: Coach, q = '') =>
  ((await who.get(`/deeds?q=${encodeURIComponent(q)}`).expect(200)).body as { items: DeedLine[] })
    .items;

/** Asks for the password again from the next request on, as ten minutes later. */
const forgetPassword = (who: Coach) =>
  sql`update http_session set sess = jsonb_set(sess::jsonb, '{confirmed}', '0')::json
    where sess ->> 'accountId' = (select id::text from account where email = ${who.email})`.execute(
    stage.owner,
  );

describe('an invitation', () => {
  it('is taken up once, by whoever has its link, with a name and password of their own', async () => {
    const owner = await coachIn(stage);
    const email = 'sunna@vale.invalid';
    const id = uuid();
    const body = { id, person: 'Sunna from the club night', email, role: 'coach' };
    await owner.post('/invitations', body).expect(200);
    await owner.post('/invitations', body).expect(200);
    const other = await owner.post('/invitations', { ...body, id: uuid() });
    expect(other.body.fields).toHaveProperty('email');
    expect(await invitationsOf(owner)).toEqual([{ ...body, until: null }]);
    // Nobody gets in by the address alone.
    await stranger(stage).post('/sign-in', { email, password: PASSWORD }).expect(401);

    const link = async () =>
      ((await owner.post(`/invitations/${id}/link`).expect(200)).body as { token: string }).token;
    const old = await link();
    const token = await link();
    const kept = await sql<{ all: string }>`
      select string_agg(t::text, '') as all from invitation t`.execute(stage.owner);
    expect(kept.rows[0]!.all).not.toContain(token);
    await stranger(stage).post('/invitation', { token: old }).expect(404);
    expect((await stranger(stage).post('/invitation', { token })).body).toMatchObject({
      role: 'coach',
      email,
      signedInAs: null,
    });
    const take = (person: string) =>
      stranger(stage).post('/invitation/new', { token, person, password: PASSWORD });
    const both = await Promise.all([take('Sunna Vale'), take('Sunna Vale')]);
    expect(both.filter(({ status }) => status === 204)).toHaveLength(1);
    expect(both.every(({ status }) => [204, 404, 409].includes(status))).toBe(true);
    expect((await take('Sunna Vale')).status).toBe(404);
    expect(await invitationsOf(owner)).toEqual([]);
    expect((await membersOf(owner)).find((one) => one.email === email)?.person).toBe('Sunna Vale');
  });

  it('ends with its week, when it is taken back, and with the part of whoever made it', async () => {
    const owner = await coachIn(stage);
    const second = await coachIn(stage, 'owner', owner.clubId);
    const late = await inviteTo(owner, 'late@vale.invalid');
    await sql`update invitation set until = now() - interval '1 minute'`.execute(stage.owner);
    await stranger(stage).post('/invitation', { token: late }).expect(404);

    const back = await inviteTo(owner, 'back@vale.invalid');
    const { id } = (await invitationsOf(owner)).find(({ email }) => email === 'back@vale.invalid')!;
    await owner.remove(`/invitations/${id}`).expect(200);
    await owner.remove(`/invitations/${id}`).expect(200);
    await stranger(stage).post('/invitation', { token: back }).expect(404);

    const byLeaver = await inviteTo(second, 'again@vale.invalid');
    await stranger(stage).post('/invitation', { token: byLeaver }).expect(200);
    const leaver = (await membersOf(owner)).find((one) => one.email === second.email)!;
    await owner.put(`/members/${leaver.id}`, { role: 'coach' }).expect(200);
    const gone = { token: byLeaver, person: 'Leaver Again', password: PASSWORD };
    await stranger(stage).post('/invitation/new', gone).expect(404);
    const pending = (await invitationsOf(owner)).find(
      (invitation) => invitation.email === 'again@vale.invalid',
    );
    expect(pending?.until).toBeNull();
  });

  it('tells the inviter nothing of an account that there is, and is accepted only signed in with it', async () => {
    const home = await coachIn(stage);
    const away = await coachIn(stage);
    const token = await inviteTo(away, home.email, 'assistant');
    const seen = JSON.stringify([
      await invitationsOf(away),
      await membersOf(away),
      (await stranger(stage).post('/invitation', { token })).body,
      await deedsOf(away),
    ]);
    expect(seen).not.toContain('A owner, ');
    expect((await membersOf(away)).map((one) => one.email)).toEqual([away.email]);
    expect((await invitationsOf(away))[0]!.person).toBe('Somebody');
    // Nobody makes the account anew, and nobody accepts for another.
    const anew = { token, person: 'Not Me', password: 'a lane for everybody' };
    await stranger(stage).post('/invitation/new', anew).expect(409);
    await stranger(stage).post('/invitation/accept', { token }).expect(401);
    const refusal = await away.post('/invitation/accept', { token });
    expect(refusal.status).toBe(403);
    await stranger(stage)
      .post('/sign-in', { email: home.email, password: anew.password })
      .expect(401);

    await home.post('/invitation/accept', { token }).expect(204);
    expect((await home.get('/me')).body).toMatchObject({
      club: { id: away.clubId },
      role: 'assistant',
    });
    await home.post('/switch', { clubId: home.clubId }).expect(204);
    expect((await home.get('/me')).body.role).toBe('owner');
  });
});

describe('an account', () => {
  it('is opened by no link that its first club made, before or after another club took it in', async () => {
    const first = await coachIn(stage);
    const nils = await invited(stage, first);
    const second = await coachIn(stage);
    await furnish(second);
    const link = async () =>
      (await first.post(`/members/${nils.memberId}/link`)).body as { token: string };
    const before = await link();
    const token = await inviteTo(second, nils.email);
    await nils.post('/invitation/accept', { token }).expect(204);
    const use = (by: string) =>
      stranger(stage).post('/new-password', { token: by, password: 'a hurdle in the rain' });
    await use(before.token).expect(404);
    expect((await first.post(`/members/${nils.memberId}/link`)).status).toBe(403);
    // One that slipped through beside the accepting opens nothing either.
    await sql`insert into password_link (token_hash, account_id, opens_club, until)
      select encode(sha256('slipped'::bytea), 'base64'), id, ${first.clubId}, now() + interval '1 hour'
      from account where email = ${nils.email}`.execute(stage.owner);
    await sql`update password_link set token_hash = rtrim(translate(token_hash, '+/', '-_'), '=')`.execute(
      stage.owner,
    );
    await use('slipped').expect(404);
    expect((await nils.get('/me')).body).toMatchObject({ club: { id: second.clubId } });
    // The first club is left in peace by all of it.
    expect((await membersOf(first)).map((one) => one.email)).toContain(nils.email);
  });

  it('ends with its last membership, and the address can join again', async () => {
    const home = await coachIn(stage);
    const away = await coachIn(stage);
    const nils = await invited(stage, home);
    const token = await inviteTo(away, nils.email);
    await nils.post('/invitation/accept', { token }).expect(204);
    await home.remove(`/members/${nils.memberId}`).expect(200);
    expect((await nils.get('/me')).body).toMatchObject({ club: { id: away.clubId } });
    const there = (await membersOf(away)).find((one) => one.email === nils.email)!;
    await away.remove(`/members/${there.id}`).expect(200);
    expect((await nils.get('/me')).status).toBe(403);
    await nils.post('/sign-in', { email: nils.email, password: PASSWORD }).expect(401);
    await invited(stage, home, { email: nils.email, password: 'a new lane for all' });
    await nils.post('/sign-in', { email: nils.email, password: 'a new lane for all' }).expect(204);
  });

  it('belongs to several clubs, and goes from one to the other', async () => {
    const home = await coachIn(stage);
    const away = await coachIn(stage);
    await home
      .post('/invitation/accept', { token: await inviteTo(away, home.email, 'assistant') })
      .expect(204);
    const me = (await home.get('/me')).body as { clubs: { id: string }[] };
    expect(me.clubs.map((club) => club.id).sort()).toEqual([home.clubId, away.clubId].sort());
    const cookie = cookieOf(home);
    await home.post('/switch', { clubId: home.clubId }).expect(204);
    // What was signed in as before is over, and a page that still shows the other club is told.
    const before = await fetch(`${stage.address}/api/me`, { headers: { cookie } });
    expect(before.status).toBe(401);
    const stale = await home.get('/athletes').set('gravek-club', away.clubId);
    expect(stale.status).toBe(412);
    expect((await home.post('/switch', { clubId: uuid() })).status).toBe(403);
  });
});

describe('a sign-in', () => {
  it('is kept as a hash, and shown with its device; one or all can be ended', async () => {
    const coach = await coachIn(stage);
    const others = await Promise.all(
      [1, 2].map(async () => {
        const phone = stranger(stage);
        await phone
          .post('/sign-in', { email: coach.email, password: PASSWORD })
          .set(
            'user-agent',
            'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
          )
          .expect(204);
        return phone;
      }),
    );
    const { rows } = await sql<{ sid: string }>`select sid from http_session`.execute(stage.owner);
    for (const who of [coach, ...others]) {
      const sid = decodeURIComponent(cookieOf(who))
        .replace(/^gravek=s:/, '')
        .split('.')[0]!;
      expect(sid.length).toBeGreaterThan(20);
      expect(rows.map((row) => row.sid)).not.toContain(sid);
    }
    const list = (await coach.get('/devices').expect(200)).body as Device[];
    expect(list.map(({ here }) => here)).toEqual([true, false, false]);
    expect(list[1]!.device).toContain('Linux');
    const stranger1 = await coachIn(stage);
    await stranger1.post('/devices/end', { id: list[1]!.id }).expect(200);
    await Promise.all(others.map((phone) => phone.get('/me').expect(200)));
    const left = (await coach.post('/devices/end', { id: list[1]!.id }).expect(200))
      .body as Device[];
    expect(left).toHaveLength(2);
    const statuses = await Promise.all(
      others.map(async (phone) => (await phone.get('/me')).status),
    );
    expect(statuses.sort()).toEqual([200, 401]);
    await coach.post('/devices/end', { id: null }).expect(200);
    for (const phone of others) await phone.get('/me').expect(401);
    await coach.get('/me').expect(200);
  });

  it('ends when nobody uses it, and is used without being made anew', async () => {
    const coach = await coachIn(stage);
    const seen = async (agoMs: number) => {
      await sql`update http_session set sess = jsonb_set(sess::jsonb, '{seen}',
        to_jsonb(${Date.now() - agoMs}::bigint))::json
        where sess ->> 'accountId' = ${coach.accountId}`.execute(stage.owner);
    };
    await seen(5 * 24 * 3600_000);
    await coach.get('/me').expect(200);
    await expect
      .poll(async () => ((await coach.get('/devices')).body as Device[])[0]!.seen, {
        timeout: 45_000,
      })
      .toMatch(new RegExp(`^${new Date().toISOString().slice(0, 13)}`));
    await seen(7 * 24 * 3600_000);
    await coach.get('/me').expect(401);
    // What is used once more beside its end does not come to life again.
    await stage.owner.deleteFrom('http_session' as never).execute();
    await coach.get('/me').expect(401);
    const { rows } = await sql`select from http_session`.execute(stage.owner);
    expect(rows).toHaveLength(0);
  });
});

describe('the password again', () => {
  it('is asked for before what cannot be taken back', async () => {
    const owner = await coachIn(stage);
    const own = await furnish(owner);
    const member = await invited(stage, owner);
    await forgetPassword(owner);
    const before = await contentsOf(stage, owner.clubId);
    for (const tried of [
      owner.get('/archive'),
      owner.remove(`/athletes/${own.athlete.id}`),
      owner.put(`/members/${member.memberId}`, { role: 'owner' }),
      owner.remove(`/members/${member.memberId}`),
      owner.post(`/members/${member.memberId}/link`),
      owner.post('/invitations', { ...anAthlete(), id: uuid() }),
      owner.get('/confirmed'),
    ]) {
      const answer = await tried;
      expect(answer.status).toBe(403);
      expect(answer.body).toMatchObject({ confirm: true });
    }
    expect(await contentsOf(stage, owner.clubId)).toBe(before);
    const wrong = await owner.post('/confirmed', { password: 'not the password' });
    expect(wrong.body.fields).toHaveProperty('password');
    await owner.post('/confirmed', { password: PASSWORD }).expect(204);
    await owner.get('/confirmed').expect(204);
    await owner.remove(`/athletes/${own.athlete.id}`).expect(204);
  });
});

describe('a second step', () => {
  const codeOf = (secret: string, aheadS = 0): string =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({
      timestamp: Date.now() + aheadS * 1000,
    });

  it('is turned on with a code, asked for at the door, and each code is good for once', async () => {
    const owner = await coachIn(stage);
    const begun = (await owner.get('/second-step').expect(200)).body as SecondStep & { on: false };
    expect(begun.uri).toContain(begun.secret);
    const wrong = await owner.put('/second-step', { secret: begun.secret, code: '000000' });
    expect(wrong.body.fields).toHaveProperty('code');
    const phone = stranger(stage);
    const signIn = (code?: string) =>
      phone.post('/sign-in', { email: owner.email, password: PASSWORD, code });
    await signIn().expect(204);
    const { codes } = (
      await owner
        .put('/second-step', { secret: begun.secret, code: codeOf(begun.secret) })
        .expect(200)
    ).body as RecoveryCodes;
    // Who came in without it is out.
    await phone.get('/me').expect(401);
    expect((await signIn()).body).toMatchObject({ status: 401, secondStep: true });
    const wrongPassword = await phone.post('/sign-in', {
      ...{ email: owner.email, password: 'not the password' },
      code: codeOf(begun.secret, 30),
    });
    expect(wrongPassword.body).not.toHaveProperty('secondStep');
    await signIn(codeOf(begun.secret)).expect(401);
    await signIn(codeOf(begun.secret, 30)).expect(204);
    await signIn(codeOf(begun.secret, 30)).expect(401);
    const used = await Promise.all([signIn(codes[3]), signIn(codes[3])]);
    expect(used.map(({ status }) => status).sort()).toEqual([204, 401]);
    await signIn(codes[4]!.toUpperCase().replaceAll('-', ' ')).expect(204);
    expect((await owner.get('/second-step')).body).toEqual({ on: true, codesLeft: 8 });
    const held = await sql<{ all: string }>`select recovery::text as all from account
      where email = ${owner.email}`.execute(stage.owner);
    expect(held.rows[0]!.all).not.toContain(codes[5]!);
    await owner.remove('/second-step').expect(204);
    await signIn().expect(204);
  });

  it('may be asked of owners: who has none can do nothing that only owners can', async () => {
    const owner = await coachIn(stage);
    const second = await coachIn(stage, 'owner', owner.clubId);
    const coach = await coachIn(stage, 'coach', owner.clubId);
    expect((await owner.put('/club/two-steps', { asked: true })).status).toBe(409);
    const turnOn = async (who: Coach) => {
      const { secret } = (await who.get('/second-step')).body as { secret: string };
      await who.put('/second-step', { secret, code: codeOf(secret) }).expect(200);
    };
    await turnOn(owner);
    await owner.put('/club/two-steps', { asked: true }).expect(200);
    expect((await owner.get('/me')).body.club.ownersTwoSteps).toBe(true);
    for (const path of ['/deeds', '/invitations', '/archive']) {
      expect((await second.get(path)).body.title).toContain('second step');
      expect((await owner.get(path)).status, path).toBe(200);
    }
    await second.get('/athletes').expect(200);
    await coach.post('/athletes', anAthlete()).expect(200);
    await turnOn(second);
    await second.get('/deeds').expect(200);
  });
});

describe('what was done by whom', () => {
  it('is written down, shown to owners, searched, and cannot be changed', async () => {
    const owner = await coachIn(stage);
    const own = await furnish(owner);
    const nils = await invited(stage, owner);
    await owner.put(`/members/${nils.memberId}`, { role: 'assistant' }).expect(200);
    await owner.put(`/members/${nils.memberId}`, { role: 'assistant' }).expect(200);
    const at = `/athletes/${own.athlete.id}`;
    const held = { id: uuid(), athleteId: own.athlete.id, kind: 'no-jumping', note: '' };
    await owner
      .post(`${at}/restrictions`, { ...held, from: '2031-05-01', until: '2031-06-01' })
      .expect(200);
    await owner.put(`${at}/restrictions/${held.id}/away`, { away: true }).expect(200);
    await owner.put(`${at}/restrictions/${held.id}/away`, { away: true }).expect(200);
    await owner.post(`${at}/own-link`, { days: 30, guardian: true }).expect(200);
    await owner.remove(`${at}/own-link`).expect(204);
    await owner.get('/archive').expect(200);
    await owner.get('/csv/reps').expect(200);
    await owner.remove(at).expect(204);
    await owner.remove(`/members/${nils.memberId}`).expect(200);
    const lines = await deedsOf(owner);
    expect(lines.map(({ what }) => what)).toEqual([
      'ended a membership',
      'deleted an athlete',
      'took a table out',
      'took the archive out',
      'took an athlete’s link back',
      'gave an athlete’s link',
      'lifted a restriction',
      'changed a role',
      'joined',
      'made an invitation link',
      'invited',
      'signed in',
    ]);
    // A name that was deleted stands nowhere any more.
    expect(JSON.stringify(lines)).not.toContain(own.athlete.name);
    expect(lines.find(({ what }) => what === 'joined')!.person).toBe('Nils Farrow');
    expect((await deedsOf(owner, 'FARROW role')).map(({ what }) => what)).toEqual([
      'changed a role',
    ]);
    expect(await deedsOf(owner, '100%')).toEqual([]);
    expect(await deedsOf(await coachIn(stage), 'Farrow')).toEqual([]);
    for (const change of [sql`update deed set person = 'Nobody'`, sql`delete from deed`]) {
      await expect(change.execute(stage.db)).rejects.toThrow('permission denied');
    }
    await sql`update deed set at = now() - interval '13 months' where what = 'invited'`.execute(
      stage.owner,
    );
    await forgetDeeds(stage.db);
    const left = await deedsOf(owner);
    expect(left).toHaveLength(lines.length - 1);
  });

  it('comes a page at a time', async () => {
    const owner = await coachIn(stage);
    await sql`insert into deed (club_id, id, person, what)
      select ${owner.clubId}, gen_random_uuid(), 'Nils', 'signed in' from generate_series(1, 230)`.execute(
      stage.owner,
    );
    const ids = new Set<string>();
    let next: string | null = '';
    while (next !== null) {
      const page = (await owner.get(`/deeds?after=${encodeURIComponent(next)}`).expect(200))
        .body as {
        items: DeedLine[];
        next: string | null;
      };
      for (const { id } of page.items) ids.add(id);
      ({ next } = page);
    }
    expect(ids.size).toBe(231);
  });
});
