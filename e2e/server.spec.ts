import { type ChildProcess, spawn } from 'node:child_process';
import fs from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { ServerProcess } from './support/server';

const ROOT = path.resolve(import.meta.dirname, '..');

/** Starts a server on a folder and tells how it went, once it listens or has ended. */
function startOn(folder: string): { child: ChildProcess; outcome: Promise<{ listens: boolean; said: string }> } {
  const child = spawn(process.execPath, ['build/server/main.mjs'], {
    cwd: ROOT,
    env: { ...process.env, ARC_SHIFT_DATA: folder, ARC_SHIFT_PORT: '0', ARC_SHIFT_LOG: 'error' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  const outcome = new Promise<{ listens: boolean; said: string }>((resolve) => {
    const hear = (chunk: Buffer): void => {
      said += chunk;
      if (said.includes('http://')) resolve({ listens: true, said });
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.once('exit', () => resolve({ listens: false, said }));
  });
  return { child, outcome };
}

let folder: string;
test.beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-start-'));
});
test.afterEach(() => fs.rmSync(folder, { recursive: true, force: true }));

test('two servers that start at once on a fresh folder: one listens, the other says so and ends', async () => {
  const both = [startOn(folder), startOn(folder)];
  const outcomes = await Promise.all(both.map(({ outcome }) => outcome));
  for (const { child } of both) child.kill();
  expect(outcomes.map(({ listens }) => listens).sort()).toEqual([false, true]);
  expect(outcomes.find(({ listens }) => !listens)?.said).toMatch(/^Another Arc Shift is at work on the folder .*\n$/);
});

test('a first start that is killed at any moment leaves a folder that opens', async () => {
  for (const delay of [150, 220, 260, 300, 340, 400]) {
    const { child } = startOn(folder);
    await new Promise((resolve) => setTimeout(resolve, delay));
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }
  const { child, outcome } = startOn(folder);
  expect(await outcome).toMatchObject({ listens: true });
  child.kill();
});

test('a garbage database is one sentence, not a stack trace', async () => {
  fs.writeFileSync(path.join(folder, 'arc-shift.sqlite'), 'Not a database at all. '.repeat(300));
  const { listens, said } = await startOn(folder).outcome;
  expect(listens).toBe(false);
  expect(said).toMatch(/^The file \S+arc-shift\.sqlite is no database that can be read[^\n]*\n$/);
});

test.describe('requests', () => {
  const server = new ServerProcess();
  test.beforeAll(() => server.start());
  test.afterAll(() => server.dispose());

  test('a script that is not there is not a fault of the server', async ({ request }) => {
    expect((await request.get(`${server.url}/assets/gone-1234.js`)).status()).toBe(404);
  });

  test('a body that never ends is answered at the limit and cut off', async () => {
    const { hostname, port } = new URL(server.url);
    const outcome = await new Promise<{ status: number; cut: boolean }>((resolve) => {
      let status = 0;
      const sending = http.request(
        { hostname, port, path: '/api/pieces', method: 'POST', headers: { 'Content-Type': 'application/json' } },
        (response) => {
          status = response.statusCode ?? 0;
          response.resume();
        },
      );
      const chunk = Buffer.alloc(256 * 1024, 'x');
      const more = (): void => {
        if (!sending.destroyed) sending.write(chunk, () => setTimeout(more, 1));
      };
      sending.once('close', () => resolve({ status, cut: true }));
      sending.on('error', () => {});
      more();
    });
    expect(outcome).toEqual({ status: 413, cut: true });
  });

  test('a picture that says it is one, and a drawing that would take for ever, are refused while others are served', async ({
    request,
  }) => {
    const [picture, drawing, list] = await Promise.all([
      request.post(`${server.url}/api/assets?name=a.png`, {
        headers: { 'Content-Type': 'image/png' },
        data: Buffer.concat([Buffer.from('89504e470d0a1a0a', 'hex'), Buffer.alloc(2_000, 7)]),
      }),
      request.post(`${server.url}/api/drawer`, { data: { name: 'Loop', svg: '<svg><use href="#a"/></svg>' } }),
      request.get(`${server.url}/api/pieces`),
    ]);
    expect([picture.status(), drawing.status(), list.status()]).toEqual([422, 422, 200]);
    expect((await picture.json()).code).toBe('asset-invalid');
  });
});
