import { CoreError, readSvg } from '@core';
import { Router } from 'express';
import { ApiError } from '../../errors';
import { bodyCheck } from '../../http/validate';
import type { DrawerRepository } from './repository';

const SVG_LIMIT = 2_000_000;
const name = { type: 'string', minLength: 1, maxLength: 200 } as const;
const addBody = bodyCheck<{ name: string; svg: string }>({
  type: 'object',
  additionalProperties: false,
  required: ['name', 'svg'],
  properties: { name, svg: { type: 'string', maxLength: SVG_LIMIT } },
});
const renameBody = bodyCheck<{ name: string }>({
  type: 'object',
  additionalProperties: false,
  required: ['name'],
  properties: { name },
});

/** Routes under /api/drawer. A shape is stored as SVG that the core can read; anything else is refused with the core's reason. */
export function drawerRoutes(repository: DrawerRepository, newId: () => string): Router {
  const router = Router();
  const unknown = (id: string): ApiError =>
    new ApiError('not-found', `Expected the id of a shape in the drawer; found “${id.slice(0, 64)}”.`, '/id');
  router.get('/', async (_request, response) => {
    response.json({ shapes: await repository.list() });
  });
  router.post('/', async (request, response) => {
    const body = addBody(request.body);
    try {
      readSvg(body.svg);
    } catch (error) {
      if (error instanceof CoreError) throw new ApiError('asset-invalid', error.message, '/svg');
      throw error;
    }
    response.status(201).json(await repository.add(newId(), body.name, body.svg));
  });
  router.patch('/:id', async (request, response) => {
    if (!(await repository.rename(request.params.id, renameBody(request.body).name))) throw unknown(request.params.id);
    response.status(204).end();
  });
  router.delete('/:id', async (request, response) => {
    if (!(await repository.remove(request.params.id))) throw unknown(request.params.id);
    response.status(204).end();
  });
  return router;
}
