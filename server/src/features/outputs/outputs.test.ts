import { emptyPiece } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { buildApp } from '../../app';
import { type Database, openDatabase } from '../../db/database';
import { checkHere } from '../../testing/check-here';
import { type OutputOrder, OutputRepository, type OutputResult } from './repository';

const HOST = '127.0.0.1';
const piece = emptyPiece('one', 'One');
const order: OutputOrder = {
  id: 'job1',
  pieceId: 'one',
  pieceName: 'One',
  label: 'GIF',
  choices: [{ form: 'gif', name: 'GIF', options: { fps: '25' } }],
  asked: 7,
};
const result: OutputResult = {
  state: 'made',
  fileName: 'one.gif',
  note: 'Small.',
  problem: '',
  proof: { holds: true, lines: [] },
};

let database: Database;
let agent: ReturnType<typeof request>;
beforeEach(async () => {
  database = await openDatabase(':memory:');
  agent = request(buildApp({ database, logger: pino({ level: 'silent' }), checker: checkHere }));
});
afterEach(() => database.close());

const ask = (body: object) => agent.post('/api/outputs').set('Host', HOST).send(body);
const get = (path: string) => agent.get(`/api/outputs${path}`).set('Host', HOST);
const bring = (path: string, type: string, bytes: Buffer) =>
  agent.put(`/api/outputs${path}`).set('Host', HOST).set('Content-Type', type).send(bytes);

describe('files that were asked for', () => {
  test('an order is kept with its piece; what is made of it is kept with its bytes and its pictures, and listed with its size', async () => {
    await ask({ order, piece }).expect(201);
    expect((await get('')).body.outputs).toEqual([{ ...order, result: null, size: 0, hasPictures: false }]);
    expect((await get('/job1/piece')).body.piece).toEqual(piece);
    await bring('/job1/file', 'image/gif', Buffer.from('GIF89a…')).expect(204);
    await bring('/job1/wanted', 'image/png', Buffer.from('w')).expect(204);
    await bring('/job1/found', 'image/png', Buffer.from('f')).expect(204);
    await agent.put('/api/outputs/job1').set('Host', HOST).send(result).expect(204);
    expect((await get('')).body.outputs).toEqual([{ ...order, result, size: 9, hasPictures: true }]);
    const file = await get('/job1/file').expect(200).expect('Content-Type', 'image/gif');
    expect(file.body.toString()).toBe('GIF89a…');
    expect(file.headers['content-security-policy']).toContain('sandbox');
    expect((await get('/job1/found')).body.toString()).toBe('f');
  });

  test('an order that came twice, its answer being lost, is one, with what was made of it', async () => {
    await ask({ order, piece }).expect(201);
    await agent.put('/api/outputs/job1').set('Host', HOST).send(result).expect(204);
    await ask({ order, piece }).expect(201);
    expect((await get('')).body.outputs).toMatchObject([{ id: 'job1', result }]);
  });

  test('thrown away, it is gone with its bytes; what is not there says so', async () => {
    await ask({ order, piece });
    await agent.delete('/api/outputs/job1').set('Host', HOST).expect(204);
    for (const path of ['/job1/file', '/job1/piece']) expect((await get(path)).body.code).toBe('not-found');
    expect((await bring('/job1/file', 'image/gif', Buffer.from('x'))).body.code).toBe('not-found');
    expect((await agent.delete('/api/outputs/job1').set('Host', HOST)).status).toBe(404);
  });

  test('is kept for a time, from when it was asked for', async () => {
    const repository = new OutputRepository(database);
    await ask({ order, piece });
    expect(await repository.clear(new Date(Date.now() - 60_000))).toBe(0);
    expect(await repository.clear(new Date(Date.now() + 60_000))).toBe(1);
  });

  test('an order that is none, a piece that is none, a type that is none and a part that is none are refused in words', async () => {
    expect((await ask({ order: { ...order, choices: [] }, piece })).body).toMatchObject({
      code: 'body-invalid',
      where: '/order/choices',
    });
    expect((await ask({ order, piece: { ...piece, canvas: 3 } })).body.code).toBe('piece-invalid');
    await ask({ order, piece });
    expect((await bring('/job1/file', 'text/html; x=<script>', Buffer.from('x'))).status).toBe(415);
    expect((await bring('/job1/anything', 'image/png', Buffer.from('x'))).status).toBe(415);
    expect((await get('/job1/anything')).status).toBe(404);
    const spoiled = { ...result, state: 'lost' };
    expect((await agent.put('/api/outputs/job1').set('Host', HOST).send(spoiled)).body.where).toBe('/state');
  });
});
