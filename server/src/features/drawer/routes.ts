import { Router } from 'express';
import type { UploadChecker } from '../../checks/upload-checker';
import { ApiError } from '../../errors';
import { bodyCheck, idOnly } from '../../http/validate';
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
export function drawerRoutes(repository: DrawerRepository, checker: UploadChecker, newId: () => string): Router {
  const router = Router();
  router.param('id', idOnly);
  const unknown = (id: string): ApiError =>
    new ApiError('not-found', `Expected the id of a shape in the drawer; found “${id.slice(0, 64)}”.`, '/id');
  router.get('/', async (_request, response) => {
    response.json({ shapes: await repository.list() });
  });
  router.post('/', async (request, response) => {
    const body = addBody(request.body);
    await checker.check('drawing', new TextEncoder().encode(body.svg));
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
