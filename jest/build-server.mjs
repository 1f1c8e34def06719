// Before tests: the programs that they start are those of these sources.
export { buildServer as default } from '../scripts/build-server.mjs';
