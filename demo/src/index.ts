export { makeSeason } from './season';
