import { once } from 'node:events';
import http from 'node:http';
import type net from 'node:net';
import { expect, test } from '@jest/globals';
import express, { type RequestHandler } from 'express';
import { problemHandler } from './problems';

/** A server whose work fails as soon as `until` is over, asked once: what is logged, and the request. */
async function failing(until: (response: express.Response, request: http.ClientRequest) => Promise<unknown>) {
  let note: (line: string) => void = () => {};
  const logged = new Promise<string>((resolve) => {
    note = resolve;
  });
  const at = (level: string) => (_fields: object, text: string) => note(`${level}: ${text}`);
  const withLog: RequestHandler = (request, _response, next) => {
    Object.assign(request, { log: { warn: at('warn'), error: at('error') } });
    next();
  };
  const app = express();
  app.use(withLog);
  app.get('/', async (_request, response) => {
    await until(response, asking);
    throw new Error('The database is closed.');
  });
  app.use(problemHandler);
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const asking = http.get({ host: '127.0.0.1', port: (server.address() as net.AddressInfo).port });
  asking.on('close', () => server.close());
  asking.on('error', () => {});
  return { logged, asking };
}

test('a fault of the server is an error in the log and an answer for whoever waits', async () => {
  const { logged, asking } = await failing(async () => {});
  const [response] = (await once(asking, 'response')) as [http.IncomingMessage];
  response.resume();
  expect([response.statusCode, await logged]).toEqual([500, 'error: request failed']);
});

test('where nobody waits any more it is a warning', async () => {
  const { logged } = await failing((response, request) => {
    request.destroy();
    return once(response, 'close');
  });
  expect(await logged).toBe('warn: failed with nobody waiting for the answer');
});
