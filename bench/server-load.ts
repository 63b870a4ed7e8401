// The built server under load: tsx bench/server-load.ts [seconds] [clients]. A fifth of the calls create pieces, the others save.
// Then the server is killed at random moments, and what it had acknowledged is looked up. Then system calls are counted, where strace is to be had.
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { seededRandom } from '../core/src/num';
import { quayMark } from '../server/src/demo/quay-mark';

const SECONDS = Number(process.argv[2] ?? 20);
const CLIENTS = Number(process.argv[3] ?? 50);
const KILLS = 20;
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-load-'));

async function start(under: readonly string[] = []): Promise<{ url: string; child: ChildProcess }> {
  const [command, ...args] = [...under, process.execPath, 'build/server/main.mjs'];
  const child = spawn(command, args, {
    env: { ...process.env, ARC_SHIFT_DATA: folder, ARC_SHIFT_PORT: '0', ARC_SHIFT_LOG: 'error' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((resolve) => {
    let said = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      said += chunk;
      const found = /http:\/\/\S+/.exec(said);
      if (found) resolve(found[0]);
    });
  });
  return { url, child };
}
const ended = (child: ChildProcess, signal: NodeJS.Signals): Promise<void> =>
  new Promise((resolve) => {
    child.once('exit', () => resolve());
    child.kill(signal);
  });

const send = (url: string, method: string, body: object): Promise<Response> =>
  fetch(url, { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });

interface Tally {
  readonly times: number[];
  readonly failures: Map<string, number>;
  /** By piece: the last revision that was acknowledged. */
  readonly acknowledged: Map<string, number>;
}

/** One client: creates its piece, then saves it again and again, and creates others in between. */
async function client(url: string, name: string, until: () => boolean, tally: Tally, seed: number): Promise<void> {
  const random = seededRandom(seed);
  const piece = { ...quayMark(), id: name };
  let revision = 0;
  for (let i = 0; !until(); i++) {
    const create = revision === 0 || random() < 0.2;
    const id = revision === 0 ? name : `${name}-${i}`;
    const started = performance.now();
    try {
      const response = create
        ? await send(`${url}/api/pieces`, 'POST', { piece: { ...piece, id } })
        : await send(`${url}/api/pieces/${name}`, 'PUT', { piece: { ...piece, name: `Save ${i}` }, revision });
      tally.times.push(performance.now() - started);
      if (!response.ok) {
        tally.failures.set(String(response.status), (tally.failures.get(String(response.status)) ?? 0) + 1);
        continue;
      }
      const answer = (await response.json()) as { revision: number };
      if (!create || revision === 0) revision = answer.revision;
      tally.acknowledged.set(create ? id : name, answer.revision);
    } catch {
      // The server was killed.
      return;
    }
  }
}

const tallyOf = (): Tally => ({ times: [], failures: new Map(), acknowledged: new Map() });

const first = await start();
const stop = performance.now() + 1_000 * SECONDS;
const load = tallyOf();
await Promise.all(
  Array.from({ length: CLIENTS }, (_, i) =>
    client(first.url, `load-${i}`, () => performance.now() > stop, load, i + 1),
  ),
);
const times = load.times.sort((a, b) => a - b);
const at = (share: number): string => times[Math.floor(share * (times.length - 1))].toFixed(0);
console.log(
  `${CLIENTS} clients, ${SECONDS} s, a fifth creates: ${times.length} calls, failures ${JSON.stringify([...load.failures])}, median ${at(0.5)} ms, p99 ${at(0.99)} ms, worst ${at(1)} ms`,
);
await ended(first.child, 'SIGTERM');

const random = seededRandom(7);
let lost = 0;
let known = 0;
for (let round = 0; round < KILLS; round++) {
  const server = await start();
  const tally = tallyOf();
  const clients = Array.from({ length: 4 }, (_, i) =>
    client(server.url, `kill-${round}-${i}`, () => false, tally, round * 10 + i),
  );
  await new Promise((resolve) => setTimeout(resolve, 100 + 500 * random()));
  await ended(server.child, 'SIGKILL');
  await Promise.all(clients);
  const again = await start();
  for (const [id, revision] of tally.acknowledged) {
    known++;
    const response = await fetch(`${again.url}/api/pieces/${id}`);
    const stored = response.ok ? ((await response.json()) as { revision: number }).revision : 0;
    if (stored < revision) lost++;
  }
  await ended(again.child, 'SIGTERM');
}
console.log(`${KILLS} kills at random moments: ${known} pieces acknowledged, ${lost} lost or older than acknowledged`);

if (spawnSync('strace', ['-V']).status === 0) {
  const trace = path.join(folder, 'trace');
  const server = await start(['strace', '-f', '-c', '-e', 'trace=fsync,fdatasync', '-o', trace]);
  const tally = tallyOf();
  let left = 21;
  await client(server.url, 'traced', () => left-- <= 0, tally, 1);
  // strace itself takes no notice of signals: its child is told.
  const exited = new Promise<void>((resolve) => server.child.once('exit', () => resolve()));
  spawnSync('pkill', ['-INT', '-P', String(server.child.pid)]);
  await exited;
  const counted = fs.existsSync(trace) ? fs.readFileSync(trace, 'utf8') : '';
  const syncs = [...counted.matchAll(/^\s*[\d.]+\s+[\d.]+\s+\d+\s+(\d+)\s+.*f(?:data)?sync/gm)].reduce(
    (sum, [, n]) => sum + Number(n),
    0,
  );
  console.log(`21 acknowledged writes: ${syncs} calls of fsync or fdatasync`);
} else console.log('strace is not here: system calls were not counted');
fs.rmSync(folder, { recursive: true, force: true });
