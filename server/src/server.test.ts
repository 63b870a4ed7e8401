import { createHash } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { emptyPiece, type Piece } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { Express } from 'express';
import { pino } from 'pino';
import { QueryTypes } from 'sequelize';
import request from 'supertest';
import { buildApp } from './app';
import { readConfig } from './config';
import { type Database, openDatabase } from './db/database';
import { quayMark } from './demo/quay-mark';
import { seedDemo } from './demo/seed';
import { PieceRepository } from './features/pieces/repository';
import { PICKER_STYLE } from './http/guards';
import { checkHere } from './testing/check-here';
import { PICTURES } from './testing/pictures';

let database: Database;
let app: Express;
const piece: Piece = { ...quayMark(), id: 'one', name: 'One' };
const HOST = '127.0.0.1';

beforeEach(async () => {
  database = await openDatabase(':memory:');
  app = buildApp({ database, logger: pino({ level: 'silent' }), checker: checkHere });
});
afterEach(() => database.close());

const get = (url: string) => request(app).get(url).set('Host', HOST);
const post = (url: string, body: object = {}) => request(app).post(url).set('Host', HOST).send(body);
const put = (url: string, body: object) => request(app).put(url).set('Host', HOST).send(body);
const del = (url: string) => request(app).delete(url).set('Host', HOST);

describe('pieces', () => {
  test('are created, listed latest first, read, replaced and duplicated', async () => {
    await post('/api/pieces', { piece }).expect(201).expect('Location', '/api/pieces/one');
    await post('/api/pieces', { piece: emptyPiece('two', 'Two') }).expect(201);
    const { body } = await get('/api/pieces').expect(200);
    expect(body.pieces.map(({ name, revision }: { name: string; revision: number }) => [name, revision])).toEqual([
      ['Two', 1],
      ['One', 1],
    ]);
    expect((await get('/api/pieces/one')).body.piece).toEqual(piece);
    const saved = await put('/api/pieces/one', { piece: { ...piece, name: 'Renamed' }, revision: 1 }).expect(200);
    expect(saved.body).toMatchObject({ name: 'Renamed', revision: 2 });
    const copy = await post('/api/pieces/one/duplicate').expect(201);
    expect(copy.body.name).toBe('Renamed copy');
    expect((await get(`/api/pieces/${copy.body.id}`)).body.piece.poses).toEqual(piece.poses);
  });

  test('a stale write is refused with what is newer, and changes nothing', async () => {
    await post('/api/pieces', { piece });
    await put('/api/pieces/one', { piece: { ...piece, name: 'Mine' }, revision: 1 }).expect(200);
    const { body } = await put('/api/pieces/one', { piece: { ...piece, name: 'Theirs' }, revision: 1 })
      .expect(409)
      .expect('Content-Type', /application\/problem\+json/);
    expect(body).toMatchObject({ code: 'piece-stale', where: '/revision', newer: { revision: 2, name: 'Mine' } });
    expect(body.newer.piece.name).toBe('Mine');
    expect((await get('/api/pieces/one')).body.name).toBe('Mine');
  });

  test('of two writers at once one wins', async () => {
    await post('/api/pieces', { piece });
    const results = await Promise.all(
      Array.from({ length: 8 }, (_, i) => put('/api/pieces/one', { piece: { ...piece, name: `W${i}` }, revision: 1 })),
    );
    expect(results.map(({ status }) => status).sort()).toEqual([200, ...Array(7).fill(409)]);
  });

  test('deleting can be undone; deleted pieces are not listed, read or overwritten', async () => {
    await post('/api/pieces', { piece });
    await del('/api/pieces/one').expect(204);
    await get('/api/pieces/one').expect(404);
    expect((await get('/api/pieces')).body.pieces).toEqual([]);
    await put('/api/pieces/one', { piece, revision: 1 }).expect(404);
    await post('/api/pieces', { piece }).expect(409);
    await post('/api/pieces/one/restore').expect(204);
    expect((await get('/api/pieces/one').expect(200)).body.piece).toEqual(piece);
    await post('/api/pieces/one/restore').expect(404);
  });

  test('many creates, duplicates and uploads at once all succeed, with saves between them', async () => {
    await post('/api/pieces', { piece }).expect(201);
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) => [
        post('/api/pieces', { piece: { ...piece, id: `many-${i}` } }),
        post('/api/pieces/one/duplicate'),
        put('/api/pieces/one', { piece, revision: i + 1 }),
        request(app)
          .post('/api/assets')
          .set('Host', HOST)
          .set('Content-Type', 'image/svg+xml')
          .send(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg"><circle r="${i + 1}"/></svg>`)),
      ]).flat(),
    );
    expect(answers.filter(({ status }) => status >= 500)).toEqual([]);
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(36);
    expect((await get('/api/pieces')).body.pieces).toHaveLength(25);
  });

  test('one that cannot be read does not take the list away; it says so, and what is stored can be fetched', async () => {
    await post('/api/pieces', { piece });
    await post('/api/pieces', { piece: emptyPiece('two', 'Two') });
    await database.sequelize.query(
      `UPDATE pieces SET document = '{"torn', createdAt = 'never', updatedAt = 'never' WHERE id = 'two'`,
    );
    const { body } = await get('/api/pieces').expect(200);
    expect(body.pieces.map(({ id, updatedAt }: Record<string, string>) => [id, typeof updatedAt])).toEqual(
      expect.arrayContaining([
        ['one', 'string'],
        ['two', 'object'],
      ]),
    );
    const refusal = await get('/api/pieces/two').expect(422);
    expect(refusal.body).toMatchObject({ code: 'piece-unreadable', detail: expect.stringContaining('“Two”') });
    expect((await get('/api/pieces/two/text').expect(200)).text).toBe('{"torn');
  });

  test('the answer to a save names the revision that it made, though another has followed', async () => {
    await post('/api/pieces', { piece });
    const repository = new PieceRepository(database);
    const [first] = await Promise.all([
      repository.replace('one', 1, 'First', '{}'),
      repository.replace('one', 2, 'Second', '{}'),
    ]);
    expect(first?.revision).toBe(2);
    expect((await repository.find('one'))?.revision).toBe(3);
  });

  test('the bin is emptied of what is old', async () => {
    await post('/api/pieces', { piece });
    await del('/api/pieces/one');
    const repository = new PieceRepository(database);
    expect(await repository.emptyBin(new Date(Date.now() - 60_000))).toBe(0);
    expect(await repository.emptyBin(new Date(Date.now() + 60_000))).toBe(1);
  });
});

describe('refusals say what was expected and where', () => {
  test.each([
    ['an unknown id', () => get('/api/pieces/ghost'), 404, 'not-found', /ghost/],
    ['an unknown route', () => get('/api/nowhere'), 404, 'no-such-route', /GET/],
    ['a body without piece', () => post('/api/pieces', {}), 400, 'body-invalid', /piece/],
    ['a body with more', () => post('/api/pieces', { piece, admin: true }), 400, 'body-invalid', /additional/],
    [
      'a piece that is none',
      () => post('/api/pieces', { piece: { name: 'x' } }),
      422,
      'piece-invalid',
      /arcshift-piece/,
    ],
    [
      'a broken field',
      () => post('/api/pieces', { piece: { ...piece, canvas: { ...piece.canvas, width: -1 } } }),
      422,
      'piece-invalid',
      /canvas\/width/,
    ],
    [
      'an unknown version',
      () => post('/api/pieces', { piece: { ...piece, version: 42 } }),
      422,
      'piece-version',
      /version 42/,
    ],
    [
      'an id that is taken',
      () => post('/api/pieces', { piece }).then(() => post('/api/pieces', { piece })),
      409,
      'piece-exists',
      /not in use/,
    ],
    [
      'another id in the body',
      () =>
        post('/api/pieces', { piece }).then(() =>
          put('/api/pieces/one', { piece: { ...piece, id: 'two' }, revision: 1 }),
        ),
      400,
      'body-invalid',
      /two/,
    ],
    ['a revision of text', () => put('/api/pieces/one', { piece, revision: 'last' }), 400, 'body-invalid', /revision/],
    [
      'no JSON',
      () =>
        request(app).post('/api/pieces').set('Host', HOST).set('Content-Type', 'application/json').send('{"piece":'),
      400,
      'body-syntax',
      /JSON/,
    ],
    [
      'a form',
      () => request(app).post('/api/pieces').set('Host', HOST).type('form').send('a=b'),
      415,
      'media-type',
      /application\/json/,
    ],
    [
      'a body of 21 MB',
      () => post('/api/pieces', { piece: { ...piece, name: 'x'.repeat(21 * 1024 * 1024) } }),
      413,
      'body-too-large',
      /20 MB/,
    ],
    ['an id that could break a statement', () => get('/api/pieces/%00'), 404, 'not-found', /letters, digits/],
    ['an id in the drawer that is none', () => del('/api/drawer/a%27%20OR%201'), 404, 'not-found', /letters, digits/],
    ['an address that cannot be read', () => get('/api/pieces/%ff'), 404, 'no-such-route', /readable/],
    [
      'broken compression',
      () =>
        request(app)
          .post('/api/pieces')
          .set('Host', HOST)
          .set('Content-Type', 'application/json')
          .set('Content-Encoding', 'gzip')
          .send('this is not gzip'),
      400,
      'body-invalid',
      /can be read/,
    ],
    [
      'a foreign host',
      () => request(app).get('/api/pieces').set('Host', 'evil.example'),
      403,
      'origin-refused',
      /evil/,
    ],
    ['a foreign origin', () => get('/api/pieces').set('Origin', 'http://evil.example'), 403, 'origin-refused', /evil/],
  ])('%s', async (_name, call, status, code, says) => {
    const response = await call();
    expect([response.status, response.body.code]).toEqual([status, code]);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect(response.body.detail).toMatch(says);
  });

  test('a fault of our own tells nothing of the inside', async () => {
    await database.sequelize.query('DROP TABLE pieces');
    const { body, status } = await get('/api/pieces');
    expect(status).toBe(500);
    expect(JSON.stringify(body)).not.toMatch(/SQL|pieces"|at /);
  });
});

describe('security headers', () => {
  test('no script but our own, no framing, no sniffing', async () => {
    const { headers } = await get('/api/health').expect(200);
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    // WebAssembly may be compiled; script from text may not.
    expect(headers['content-security-policy'].replace("'wasm-unsafe-eval'", '')).not.toContain('unsafe');
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
  });
});

describe('the database', () => {
  test('keeps pieces over a restart, with every commit forced to the disk and foreign keys, and migrates once', async () => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-db-'));
    const first = await openDatabase(folder);
    await new PieceRepository(first).create('kept', 'Kept', JSON.stringify(piece));
    await first.close();
    const second = await openDatabase(folder);
    expect((await new PieceRepository(second).find('kept'))?.document).toBe(JSON.stringify(piece));
    const ask = (pragma: string) => second.sequelize.query(`PRAGMA ${pragma}`, { type: QueryTypes.SELECT });
    expect([...(await ask('journal_mode')), ...(await ask('foreign_keys')), ...(await ask('synchronous'))]).toEqual([
      { journal_mode: 'wal' },
      { foreign_keys: 1 },
      // FULL: with a write-ahead log, fsync at every commit (SQLite, "PRAGMA synchronous").
      { synchronous: 2 },
    ]);
    await second.close();
    fs.rmSync(folder, { recursive: true });
  });

  test('the demo is seeded once and leaves what was changed or deleted alone', async () => {
    const repository = new PieceRepository(database);
    expect(await seedDemo(repository)).toEqual([
      'Deckhand',
      'Fog Loader',
      'Deck Crew',
      'Gate',
      'Tide Gauge',
      'Pier Letters',
      'Boarding Button',
      'Quay Mark',
    ]);
    await repository.bin('demo-quay-mark');
    await repository.replace('demo-boarding-button', 1, 'Mine', '{}');
    expect(await seedDemo(repository)).toEqual([]);
    expect((await repository.list()).map(({ name }) => name)).toEqual([
      'Mine',
      'Pier Letters',
      'Tide Gauge',
      'Gate',
      'Deck Crew',
      'Fog Loader',
      'Deckhand',
    ]);
  });
});

describe('configuration', () => {
  test('has sensible defaults and refuses nonsense by name', () => {
    expect(readConfig({}, [])).toMatchObject({ host: '127.0.0.1', port: 4610, demo: false });
    expect(readConfig({ ARC_SHIFT_PORT: '0', ARC_SHIFT_DATA: '/x' }, ['--demo'])).toMatchObject({
      port: 0,
      demo: true,
      dataFolder: '/x',
    });
    expect(() => readConfig({ ARC_SHIFT_PORT: 'http' }, [])).toThrow(/ARC_SHIFT_PORT.*http/);
    expect(() => readConfig({ ARC_SHIFT_LOG: 'loud' }, [])).toThrow(/ARC_SHIFT_LOG.*loud/);
  });
});

/** One byte of the pixel data is another. */
function spoiled(bytes: Buffer): Buffer {
  const copy = Buffer.from(bytes);
  copy[copy.indexOf('IDAT') + 8] ^= 0xff;
  return copy;
}

describe('assets', () => {
  const picture = (type: keyof typeof PICTURES): Buffer => Buffer.from(PICTURES[type], 'base64');
  const png = picture('image/png');
  const font = fs.readFileSync(
    'node_modules/@fontsource/barlow-condensed/files/barlow-condensed-latin-600-normal.woff',
  );
  const send = (type: string, bytes: Buffer, name = 'picture.png') =>
    request(app).post(`/api/assets?name=${name}`).set('Host', HOST).set('Content-Type', type).send(bytes);

  test('a picture is kept once under the hash of its bytes, and comes back as it was', async () => {
    const { body } = await send('image/png', png).expect(201);
    expect(body).toMatchObject({ name: 'picture.png', mediaType: 'image/png' });
    expect((await send('image/png', png, 'again.png')).body.id).toBe(body.id);
    const back = await get(`/api/assets/${body.id}`).expect(200).expect('Content-Type', 'image/png');
    expect(Buffer.compare(back.body as Buffer, png)).toBe(0);
  });

  test('an SVG that is opened by itself may not act', async () => {
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>');
    const { body } = await send('image/svg+xml', svg).expect(201);
    const { headers } = await get(`/api/assets/${body.id}`).expect(200);
    expect(headers['content-security-policy']).toContain('sandbox');
    expect(headers['content-security-policy']).toContain("default-src 'none'");
    expect(headers['x-content-type-options']).toBe('nosniff');
  });

  test.each([
    ['text/html', Buffer.from('<html></html>'), 415, 'media-type'],
    ['image/png', Buffer.from('<svg></svg>, but called a PNG'), 422, 'asset-invalid'],
    ['image/jpeg', png, 422, 'asset-invalid'],
    ['image/webp', Buffer.alloc(0), 422, 'asset-invalid'],
    ['font/ttf', Buffer.from('wOFFaaaaaaaaaaaa'), 422, 'asset-invalid'],
    ['image/png', Buffer.concat([png, Buffer.alloc(11 * 1024 * 1024)]), 413, 'body-too-large'],
    // The first bytes are right; what follows is not.
    ['image/png', png.subarray(0, png.length - 4), 422, 'asset-invalid'],
    ['image/png', spoiled(png), 422, 'asset-invalid'],
    ['image/jpeg', picture('image/jpeg').subarray(0, 300), 422, 'asset-invalid'],
    ['image/webp', picture('image/webp').subarray(0, 30), 422, 'asset-invalid'],
    ['image/jpeg', Buffer.from('ffd8ffe000104a46494600010101ffd9ffd9', 'hex'), 422, 'asset-invalid'],
    ['font/woff', font.subarray(0, 4_000), 422, 'asset-invalid'],
    ['font/otf', Buffer.from('OTTO00000000'), 422, 'asset-invalid'],
    ['image/svg+xml', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><path'), 422, 'asset-invalid'],
  ])('%s that is not one is refused', async (type, bytes, status, code) => {
    const { body } = await send(type, bytes).expect(status);
    expect(body).toMatchObject({ code, status });
  });

  test.each(Object.keys(PICTURES) as (keyof typeof PICTURES)[])('a whole picture of type %s is taken', async (type) => {
    await send(type, picture(type)).expect(201);
  });

  test('a whole font is taken, and what cannot become an outline may still be traced', async () => {
    await send('font/woff', font).expect(201);
    const words = '<svg xmlns="http://www.w3.org/2000/svg"><text>Quay</text></svg>';
    await send('image/svg+xml', Buffer.from(words)).expect(201);
  });

  test('what is not there is said', async () => {
    expect((await get(`/api/assets/${'0'.repeat(64)}`).expect(404)).body.code).toBe('not-found');
    expect((await get('/api/assets/nonsense').expect(404)).body.detail).toContain('nonsense');
  });
});

describe('the drawer', () => {
  const svg = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H9V9Z"/></svg>';
  const patch = (url: string, body: object) => request(app).patch(url).set('Host', HOST).send(body);

  test('shapes are kept, listed latest first, renamed and removed', async () => {
    const first = (await post('/api/drawer', { name: 'Fin', svg }).expect(201)).body;
    await post('/api/drawer', { name: 'Sail', svg }).expect(201);
    await patch(`/api/drawer/${first.id}`, { name: 'Tail' }).expect(204);
    const { body } = await get('/api/drawer').expect(200);
    expect(body.shapes.map(({ name }: { name: string }) => name).sort()).toEqual(['Sail', 'Tail']);
    expect(body.shapes.find(({ id }: { id: string }) => id === first.id).svg).toBe(svg);
    await del(`/api/drawer/${first.id}`).expect(204);
    expect((await get('/api/drawer')).body.shapes).toHaveLength(1);
  });

  test('what cannot be drawn is refused with the reader’s reason; what is not there is said', async () => {
    const empty = await post('/api/drawer', { name: 'X', svg: '<svg xmlns="http://www.w3.org/2000/svg"/>' }).expect(
      422,
    );
    expect(empty.body.detail).toContain('at least one drawn shape');
    await post('/api/drawer', { name: '', svg }).expect(400);
    await post('/api/drawer', { name: 'X' }).expect(400);
    await patch('/api/drawer/nobody', { name: 'X' }).expect(404);
    await del('/api/drawer/nobody').expect(404);
  });
});

describe('kept easings', () => {
  test('are kept by name, listed by name, and thrown away', async () => {
    const spring = { kind: 'spring', bounce: 0.4 };
    const { id } = (await post('/api/easings', { name: 'Swell', easing: spring }).expect(201)).body;
    await post('/api/easings', { name: 'Ebb', easing: { kind: 'steps', count: 4, jump: 'end' } }).expect(201);
    const { body } = await get('/api/easings').expect(200);
    expect(body.easings.map(({ name }: { name: string }) => name)).toEqual(['Ebb', 'Swell']);
    expect(body.easings[1]).toEqual({ id, name: 'Swell', easing: spring });
    await del(`/api/easings/${id}`).expect(204);
    await del(`/api/easings/${id}`).expect(404);
    expect((await get('/api/easings')).body.easings).toHaveLength(1);
  });
  test('what a piece could not have is refused with the reason', async () => {
    const refused = await post('/api/easings', { name: 'X', easing: { kind: 'magic' } }).expect(422);
    expect(refused.body.detail).toContain('easing');
    await post('/api/easings', { name: 'X', easing: { kind: 'steps', count: 1, jump: 'none' } }).expect(422);
    await post('/api/easings', { name: '', easing: { kind: 'linear' } }).expect(400);
    await post('/api/easings', { name: 'X', easing: 'linear' }).expect(400);
  });
});

describe('demo pieces', () => {
  test('are sound, and each shows what it is there for', async () => {
    const repository = new PieceRepository(database);
    expect((await seedDemo(repository)).sort()).toEqual([
      'Boarding Button',
      'Deck Crew',
      'Deckhand',
      'Fog Loader',
      'Gate',
      'Pier Letters',
      'Quay Mark',
      'Tide Gauge',
    ]);
    expect(await seedDemo(repository)).toEqual([]);
    const piece = async (id: string): Promise<Piece> => (await get(`/api/pieces/${id}`)).body.piece;
    const letters = await piece('demo-pier-letters');
    expect(Object.values(letters.texts).map(({ content }) => content)).toEqual(['N', 'S', 'B', '8', 'i', 'o']);
    const lanes = async (id: string) => Object.values((await piece(id)).lanes);
    expect((await lanes('demo-fog-loader')).filter(({ pulse }) => pulse)).toHaveLength(3);
    expect((await lanes('demo-deckhand')).filter(({ follow }) => follow)).toHaveLength(1);
    expect((await lanes('demo-deck-crew')).filter(({ property }) => property === 'drawn')).toHaveLength(1);
    expect((await piece('demo-fog-loader')).playback).toBe('stretch');
    const contours = Object.values(letters.parts).map((part) => part.contours.length);
    expect(contours).toEqual([1, 1, 3, 3, 2, 2]);
    const tide = await piece('demo-tide-gauge');
    const copies = Object.values(tide.parts)
      .flatMap((part) => part.contours[0].anchors)
      .filter(({ origin }) => origin);
    expect(copies.length).toBeGreaterThan(30);
    // The line lies on the area's upper edge in every pose.
    const [water, level] = tide.figureOrder.map((id) =>
      tide.figures[id].poses.map((pose) => tide.parts[tide.poses[pose].parts[0]].contours[0].anchors),
    );
    level.forEach((anchors, i) => {
      expect(anchors.map(({ at }) => at)).toEqual(water[i].slice(0, anchors.length).map(({ at }) => at));
    });
  });
});

describe('the content security policy', () => {
  test('knows the style that the colour picker of the installed package writes', () => {
    const source = fs.readFileSync('node_modules/react-colorful/dist/index.mjs', 'utf8');
    const [, literal] = /innerHTML='((?:[^'\\]|\\.)*)'/.exec(source) ?? [];
    const css = literal.replace(/\\(.)/g, '$1');
    expect(PICKER_STYLE).toBe(`'sha256-${createHash('sha256').update(css).digest('base64')}'`);
  });
});
