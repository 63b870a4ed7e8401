import { checkPiece } from '@core';
import express, { type Request, Router } from 'express';
import { ApiError } from '../../errors';
import { BODY_LIMIT, bodyLimit } from '../../http/bodies';
import { jsonOnly } from '../../http/guards';
import { bodyCheck, idOnly } from '../../http/validate';
import {
  OUTPUT_PARTS,
  type OutputOrder,
  type OutputPart,
  type OutputRepository,
  type OutputResult,
} from './repository';

/** The largest file that is stored. A film of one minute at 1080p takes about 20 MB. */
const FILE_LIMIT = 256 * 1024 * 1024;

const anything = { type: 'object', required: [], additionalProperties: true } as const;
const text = (maxLength: number) => ({ type: 'string', maxLength }) as const;

const orderBody = bodyCheck<{ order: OutputOrder; piece: Record<string, unknown> }>({
  type: 'object',
  additionalProperties: false,
  required: ['order', 'piece'],
  properties: {
    piece: anything,
    order: {
      type: 'object',
      additionalProperties: false,
      required: ['id', 'pieceId', 'pieceName', 'label', 'choices', 'asked'],
      properties: {
        id: { type: 'string', pattern: '^[A-Za-z0-9_-]{1,64}$' },
        pieceId: { type: 'string', pattern: '^[A-Za-z0-9_-]{1,64}$' },
        pieceName: text(200),
        label: text(200),
        asked: { type: 'number' },
        choices: {
          type: 'array',
          minItems: 1,
          maxItems: 40,
          items: {
            type: 'object',
            additionalProperties: false,
            required: ['form', 'name', 'options'],
            properties: { form: text(40), name: text(200), options: anything },
          },
        },
      },
    },
  },
});
const resultBody = bodyCheck<OutputResult>({
  type: 'object',
  additionalProperties: false,
  required: ['state', 'fileName', 'note', 'problem'],
  properties: {
    state: { type: 'string', enum: ['made', 'failed'] },
    fileName: text(300),
    note: text(2_000),
    problem: text(2_000),
    proof: { ...anything, nullable: true },
  },
});

/** Routes under /api/outputs: files that were asked for and made. An order is made by a page, which brings what it has made here. */
export function outputRoutes(repository: OutputRepository): Router {
  const router = Router();
  router.param('id', idOnly);
  router.get('/', async (_request, response) => {
    response.json({ outputs: await repository.list() });
  });
  router.put(
    '/:id/:part',
    bodyLimit(FILE_LIMIT),
    express.raw({ type: () => true, limit: FILE_LIMIT }),
    async (request: Request<{ id: string; part: string }>, response, next) => {
      const { id, part } = request.params;
      if (!isPart(part)) {
        next();
        return;
      }
      const mediaType = (request.headers['content-type'] ?? '').toLowerCase();
      if (!/^[a-z]+\/[a-z0-9.+-]+$/.test(mediaType) || mediaType.length > 80)
        throw new ApiError('media-type', `Expected a media type; found “${mediaType.slice(0, 60) || 'none'}”.`);
      const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
      if (!(await repository.keepPart(id, part, bytes, mediaType))) throw unknown(id);
      response.status(204).end();
    },
  );
  router.get('/:id/piece', async (request: Request<{ id: string }>, response) => {
    const piece = await repository.piece(request.params.id);
    if (piece === undefined) throw unknown(request.params.id);
    response.json({ piece: checkPiece(JSON.parse(piece)) });
  });
  router.get('/:id/:part', async (request: Request<{ id: string; part: string }>, response, next) => {
    const { id, part } = request.params;
    if (!isPart(part)) {
      next();
      return;
    }
    const found = await repository.part(id, part);
    if (!found) throw unknown(id);
    response
      .set({
        'Content-Type': found.mediaType,
        // A file that is opened directly must not run scripts.
        'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
        'Content-Disposition': 'attachment',
        'X-Content-Type-Options': 'nosniff',
      })
      .send(found.bytes);
  });
  router.delete('/:id', async (request, response) => {
    if (!(await repository.remove(request.params.id))) throw unknown(request.params.id);
    response.status(204).end();
  });
  router.use(jsonOnly, bodyLimit(BODY_LIMIT), express.json({ limit: BODY_LIMIT, strict: true }));
  router.post('/', async (request, response) => {
    const { order, piece } = orderBody(request.body);
    await repository.keep(order, JSON.stringify(checkPiece(piece)));
    response.status(201).json({ id: order.id });
  });
  router.put('/:id', async (request, response) => {
    if (!(await repository.finish(request.params.id, resultBody(request.body)))) throw unknown(request.params.id);
    response.status(204).end();
  });
  return router;
}

const isPart = (part: string): part is OutputPart => (OUTPUT_PARTS as readonly string[]).includes(part);

const unknown = (id: string): ApiError =>
  new ApiError('not-found', `Expected the id of a file that is kept here; found “${id.slice(0, 64)}”.`, '/id');
