import { emptyPiece } from '@core';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { api, problemText } from './api';
import { createStore } from './store';

/** What was asked of the server: method, path, and the body as text. */
let asked: { method: string; path: string; type: string | null; body: string }[] = [];
let answer: { status: number; body: unknown } = { status: 200, body: {} };
const { fetch: realFetch, Request: RealRequest } = globalThis;

beforeAll(() => {
  // Outside of a page an address needs a server's name.
  globalThis.Request = class extends RealRequest {
    constructor(url: string | URL | Request, init?: RequestInit) {
      super(typeof url === 'string' ? new URL(url, 'http://server.test') : url, init);
    }
  };
  globalThis.fetch = async (input) => {
    const request = input as Request;
    const { pathname, search } = new URL(request.url);
    asked.push({
      method: request.method,
      path: pathname + search,
      type: request.headers.get('content-type'),
      body: await request.text(),
    });
    const empty = answer.body === undefined;
    return new Response(empty ? null : JSON.stringify(answer.body), {
      status: answer.status,
      headers: { 'Content-Type': 'application/json' },
    });
  };
});
afterAll(() => {
  globalThis.fetch = realFetch;
  globalThis.Request = RealRequest;
});

/** Calls the server by an endpoint; returns what was asked, and what came of it. */
async function call(
  start: (endpoints: typeof api.endpoints) => unknown,
  answers: typeof answer = { status: 200, body: {} },
): Promise<[(typeof asked)[number], { data?: unknown; error?: unknown }]> {
  asked = [];
  answer = answers;
  const result = await (createStore().dispatch(start(api.endpoints) as never) as Promise<{ data?: unknown }>);
  return [asked[0], result];
}

test('ids and names are written so that no address is left by them', async () => {
  const id = 'a/b?c';
  for (const [start, method, path] of [
    [(e) => e.loadPiece.initiate(id), 'GET', '/api/pieces/a%2Fb%3Fc'],
    [(e) => e.fetchPiece.initiate(id), 'GET', '/api/pieces/a%2Fb%3Fc'],
    [(e) => e.deletePiece.initiate(id), 'DELETE', '/api/pieces/a%2Fb%3Fc'],
    [(e) => e.restorePiece.initiate(id), 'POST', '/api/pieces/a%2Fb%3Fc/restore'],
    [(e) => e.duplicatePiece.initiate(id), 'POST', '/api/pieces/a%2Fb%3Fc/duplicate'],
    [(e) => e.removeFromDrawer.initiate(id), 'DELETE', '/api/drawer/a%2Fb%3Fc'],
    [(e) => e.renameInDrawer.initiate({ id, name: 'N' }), 'PATCH', '/api/drawer/a%2Fb%3Fc'],
    [(e) => e.removeEasing.initiate(id), 'DELETE', '/api/easings/a%2Fb%3Fc'],
  ] as [(e: typeof api.endpoints) => unknown, string, string][]) {
    const [request] = await call(start);
    expect([request.method, request.path]).toEqual([method, path]);
  }
});

test('a save sends the piece as it was written, with the revision that it is based on', async () => {
  const text = '{"id":"p","name":"é"}';
  const [request] = await call((e) => e.savePiece.initiate({ id: 'p', text, revision: 7 }));
  expect(request).toMatchObject({ method: 'PUT', path: '/api/pieces/p', type: 'application/json' });
  expect(JSON.parse(request.body)).toEqual({ piece: { id: 'p', name: 'é' }, revision: 7 });
});

test('a new piece, a shape for the drawer and an easing are sent whole', async () => {
  const piece = emptyPiece('p', 'New');
  expect(JSON.parse((await call((e) => e.createPiece.initiate(piece)))[0].body)).toEqual({ piece });
  const shape = { name: 'Dot', svg: '<svg/>' };
  expect(JSON.parse((await call((e) => e.keepInDrawer.initiate(shape)))[0].body)).toEqual(shape);
  const easing = { name: 'Soft', easing: { kind: 'linear' } as never };
  expect(JSON.parse((await call((e) => e.keepEasing.initiate(easing)))[0].body)).toEqual(easing);
});

test('lists come out of the answers that they are wrapped in', async () => {
  for (const [start, body] of [
    [(e: typeof api.endpoints) => e.listPieces.initiate(), { pieces: [1] }],
    [(e: typeof api.endpoints) => e.listDrawer.initiate(), { shapes: [2] }],
    [(e: typeof api.endpoints) => e.listEasings.initiate(), { easings: [3] }],
  ] as const) {
    const [, { data }] = await call(start, { status: 200, body });
    expect(data).toEqual(Object.values(body)[0]);
  }
});

test('a file goes with its type, by its ending where the browser has none, and with a name of 200 letters at most', async () => {
  for (const [name, given, type] of [
    ['a.TTF', '', 'font/ttf'],
    ['a.otf', 'text/plain', 'font/otf'],
    ['a.woff', '', 'font/woff'],
    ['a.svg', '', 'image/svg+xml'],
    ['a.png', 'image/png', 'image/png'],
    ['a', '', 'application/octet-stream'],
  ]) {
    const [request] = await call((e) => e.keepAsset.initiate(new File(['x'], name, { type: given })));
    expect([name, request.type, request.path]).toEqual([name, type, `/api/assets?name=${name}`]);
  }
  const [request] = await call((e) => e.keepAsset.initiate(new File(['x'], `${'n'.repeat(300)}.svg`)));
  expect(request.path).toBe(`/api/assets?name=${'n'.repeat(200)}`);
});

test('a failure tells the server’s reason, or that there is none', async () => {
  const [, { error }] = await call((e) => e.deletePiece.initiate('p'), {
    status: 409,
    body: { detail: 'It is open.' },
  });
  expect(problemText(error)).toBe('It is open.');
  expect(problemText({ status: 'FETCH_ERROR' })).toMatch(/^The server does not answer/);
  for (const unknown of [{ status: 500 }, undefined, null, {}])
    expect(problemText(unknown)).toBe('The request failed for a reason that the server did not tell.');
});

test('what a change makes old is asked for again', async () => {
  const store = createStore();
  answer = { status: 200, body: { pieces: [], shapes: [], easings: [] } };
  const lists = [api.endpoints.listPieces, api.endpoints.listDrawer, api.endpoints.listEasings];
  for (const { initiate } of lists) await store.dispatch(initiate() as never);
  for (const [start, paths] of [
    [api.endpoints.deletePiece.initiate('p'), ['/api/pieces']],
    [api.endpoints.restorePiece.initiate('p'), ['/api/pieces']],
    [api.endpoints.duplicatePiece.initiate('p'), ['/api/pieces']],
    [api.endpoints.createPiece.initiate(emptyPiece('p', 'New')), ['/api/pieces']],
    [api.endpoints.savePiece.initiate({ id: 'p', text: '{}', revision: 1 }), ['/api/pieces']],
    [api.endpoints.removeEasing.initiate('e'), ['/api/drawer', '/api/easings']],
    [api.endpoints.removeFromDrawer.initiate('d'), ['/api/drawer', '/api/easings']],
  ] as const) {
    asked = [];
    await store.dispatch(start as never);
    await new Promise((resolve) => setTimeout(resolve, 20));
    const again = asked.filter(({ method }) => method === 'GET').map(({ path }) => path);
    expect(again.sort()).toEqual(paths);
  }
});
