import { Router } from 'express';
import { bodyCheck, idOnly } from '../../http/validate';
import type { PieceService } from './service';

// The piece itself is checked by the core, whose schema serves import and export too.
const createBody = bodyCheck<{ piece: Record<string, unknown> }>({
  type: 'object',
  additionalProperties: false,
  required: ['piece'],
  properties: { piece: { type: 'object', required: [], additionalProperties: true } },
});
const replaceBody = bodyCheck<{ piece: Record<string, unknown>; revision: number }>({
  type: 'object',
  additionalProperties: false,
  required: ['piece', 'revision'],
  properties: {
    piece: { type: 'object', required: [], additionalProperties: true },
    revision: { type: 'integer', minimum: 1 },
  },
});

/** Routes under /api/pieces. */
export function pieceRoutes(service: PieceService): Router {
  const router = Router();
  router.param('id', idOnly);
  router.get('/', async (_request, response) => {
    response.json({ pieces: await service.list() });
  });
  router.post('/', async (request, response) => {
    const created = await service.create(createBody(request.body).piece);
    response.status(201).location(`/api/pieces/${created.id}`).json(created);
  });
  router.get('/:id', async (request, response) => {
    response.json(await service.load(request.params.id));
  });
  // The way out for a piece that cannot be read any more.
  router.get('/:id/text', async (request, response) => {
    response
      .attachment('piece.json')
      .type('text/plain')
      .send(await service.text(request.params.id));
  });
  router.put('/:id', async (request, response) => {
    const { piece, revision } = replaceBody(request.body);
    response.json(await service.replace(request.params.id, revision, piece));
  });
  router.delete('/:id', async (request, response) => {
    await service.remove(request.params.id);
    response.status(204).end();
  });
  router.post('/:id/restore', async (request, response) => {
    await service.restore(request.params.id);
    response.status(204).end();
  });
  router.post('/:id/duplicate', async (request, response) => {
    const created = await service.duplicate(request.params.id);
    response.status(201).location(`/api/pieces/${created.id}`).json(created);
  });
  return router;
}
