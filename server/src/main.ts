import { readConfig } from './config';
import { startErrorOf } from './db/storage-faults';
import { startServer } from './start-server';

const config = readConfig(process.env, process.argv.slice(2));
const say = (line: string): void => void process.stdout.write(`${line}\n`);
const server = await startServer(config, say).catch(giveUp);
say(`Arc Shift is open at ${server.url}`);

/** Prints in one sentence why the server did not start, and exits. */
function giveUp(error: unknown): never {
  const known = startErrorOf(error, config.dataFolder);
  if (!known) throw error;
  process.stderr.write(`${known.message}\n`);
  process.exit(1);
}

let closing = false;
function close(signal: string): void {
  if (closing) return;
  closing = true;
  server.logger.info({ signal }, 'closing');
  void server.close().then(() => process.exit(0));
}
process.on('SIGINT', close);
process.on('SIGTERM', close);
