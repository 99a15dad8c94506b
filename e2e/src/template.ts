import { makeDatabases } from './app';

/** Playwright calls it before all tests. */
export default makeDatabases;
