import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { coachIn, openStage, PASSWORD, stranger, type Stage } from './setup';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
});
afterAll(() => stage.close());

const firstClub = {
  club: {
    name: 'Tarn Valley',
    unit: 'imperial',
    cueSchool: 'first-phase',
    timeZone: 'Europe/Oslo',
  },
  person: 'Edda Brook',
  email: 'Edda@Tarn.invalid',
  password: PASSWORD,
};

describe('the door', () => {
  it('makes the first club of an empty database, and only the first', async () => {
    const edda = stranger(stage);
    expect((await edda.get('/door')).body).toEqual({
      demo: false,
      empty: true,
      signedIn: false,
    });
    const wrong = await edda.post('/first-club', {
      ...firstClub,
      email: 'edda',
      password: 'short',
    });
    expect(wrong.status).toBe(422);
    expect(Object.keys(wrong.body.fields as object).sort()).toEqual(['email', 'password']);
    await edda.post('/first-club', firstClub).expect(204);
    const me = (await edda.get('/me')).body;
    expect(me).toMatchObject({
      person: 'Edda Brook',
      role: 'owner',
      club: { name: 'Tarn Valley' },
    });
    const again = await stranger(stage).post('/first-club', {
      ...firstClub,
      email: 'b@tarn.invalid',
    });
    expect(again.status).toBe(409);
  });

  it('lets in with the password, whatever the case of the address, and out again', async () => {
    const edda = stranger(stage);
    await edda.post('/sign-in', { email: 'edda@TARN.invalid', password: PASSWORD }).expect(204);
    expect((await edda.get('/me')).status).toBe(200);
    await edda.post('/sign-out').expect(204);
    expect((await edda.get('/me')).status).toBe(401);
  });

  it('says the same of a wrong password and an unknown address', async () => {
    const response = await stranger(stage).post('/sign-in', {
      email: 'edda@tarn.invalid',
      password: 'not the password',
    });
    const two = await stranger(stage).post('/sign-in', {
      email: 'nobody@tarn.invalid',
      password: 'not the password',
    });
    expect(response.status).toBe(401);
    expect(two.body).toEqual(response.body);
  });

  it('sets a cookie that scripts cannot read and other sites do not send', async () => {
    const answer = await stranger(stage).post('/sign-in', {
      email: 'edda@tarn.invalid',
      password: PASSWORD,
    });
    const cookie = String(answer.headers['set-cookie']);
    expect(cookie).toContain('HttpOnly');
    expect(cookie).toContain('SameSite=Lax');
  });

  it('refuses writes that come from elsewhere', async () => {
    const coach = await coachIn(stage);
    for (const origin of ['http://elsewhere.invalid', 'null', undefined]) {
      const write = coach.agent.post('/api/athletes').send({});
      if (origin) void write.set('origin', origin);
      expect((await write).status).toBe(403);
    }
  });

  it('offers no demo entry unless it is switched on', async () => {
    expect((await stranger(stage).post('/demo-entry')).status).toBe(404);
  });

  it('allows no inline script', async () => {
    const { headers } = await stranger(stage).agent.get('/healthz');
    const policy = String(headers['content-security-policy']);
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(policy).toContain("require-trusted-types-for 'script'");
    expect(policy).toMatch(/trusted-types gravek(;|$)/);
    const permissions = String(headers['permissions-policy']);
    expect(permissions).toContain('microphone=(self)');
    for (const unused of ['camera', 'geolocation', 'usb', 'payment']) {
      expect(permissions).toContain(`${unused}=()`);
    }
  });

  it('stops guessing after twenty wrong passwords', async () => {
    const statuses = new Set<number>();
    for (let i = 0; i < 22; i += 1) {
      const guess = await stranger(stage).post('/sign-in', {
        email: 'edda@tarn.invalid',
        password: `guess number ${i}`,
      });
      statuses.add(guess.status);
    }
    expect([...statuses]).toEqual([401, 429]);
  });
});
