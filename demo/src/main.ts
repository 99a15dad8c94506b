import { randomBytes } from 'node:crypto';
import { withFilm } from './filmed';
import { makeSeason } from './season';

// Nobody knows this password: the demo is entered by its own button, on this machine only.
const password = randomBytes(24).toString('base64url');
const today = new Date();
today.setUTCHours(12, 0, 0, 0);
process.stdout.write(JSON.stringify(withFilm(makeSeason(today, password), today)));
