import { Server } from './server.js';

/** Runs before all tests: the demo is made once, each server starts on a copy. */
export default () => Server.makeDemo();
