import { once } from 'node:events';
import http from 'node:http';
import net from 'node:net';
import { promisify } from 'node:util';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { closerOf } from './closer';

/** Patience that never runs out: what waits for it never ends. */
const FOR_EVER = 2 ** 31 - 1;

let server: http.Server;
let release: () => void;
const port = (): number => (server.address() as net.AddressInfo).port;

beforeEach(async () => {
  server = http.createServer((_request, response) => {
    response.write('first half, ');
    release = () => response.end('second half');
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
});
afterEach(() => {
  server.closeAllConnections();
  server.close();
});

const connections = promisify((done: (error: Error | null, count: number) => void) => server.getConnections(done));

const ask = async (): Promise<http.IncomingMessage> => {
  const request = http.get({ host: '127.0.0.1', port: port(), agent: new http.Agent({ keepAlive: true }) });
  const [response] = await once(request, 'response');
  return response as http.IncomingMessage;
};

test('a connection on which nothing was ever asked does not hold up the end', async () => {
  const close = closerOf(server, FOR_EVER);
  const quiet = net.connect(port(), '127.0.0.1');
  await once(server, 'connection');
  const ended = once(quiet, 'close');
  await close();
  await ended;
  expect(server.listening).toBe(false);
});

test('what is being answered is answered to its end, then its connection goes too', async () => {
  const close = closerOf(server, FOR_EVER);
  const response = await ask();
  let text = '';
  response.on('data', (chunk: Buffer) => (text += chunk.toString()));
  const all = once(response, 'end');
  let closed = false;
  const closing = close().then(() => (closed = true));
  await new Promise(setImmediate);
  expect(closed).toBe(false);
  release();
  await all;
  expect(text).toBe('first half, second half');
  await closing;
});

test('what is never answered is cut off when patience ends', async () => {
  const close = closerOf(server, 1);
  const response = await ask();
  response.on('error', () => {});
  expect(await connections()).toBe(1);
  await close();
  expect(await connections()).toBe(0);
  expect(response.complete).toBe(false);
});
