import { makeTemplate } from './app';

/** Playwright calls it before all tests, and what it gives back after them. */
export default makeTemplate;
