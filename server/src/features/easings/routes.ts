import { checkEasing } from '@core';
import { Router } from 'express';
import { ApiError } from '../../errors';
import { bodyCheck, idOnly } from '../../http/validate';
import type { EasingRepository } from './repository';

const addBody = bodyCheck<{ name: string; easing: Record<string, unknown> }>({
  type: 'object',
  additionalProperties: false,
  required: ['name', 'easing'],
  properties: {
    name: { type: 'string', minLength: 1, maxLength: 200 },
    easing: { type: 'object', required: [], additionalProperties: true },
  },
});

/** Routes under /api/easings. What is kept is an easing that a piece could have; anything else is refused with the core's reason. */
export function easingRoutes(repository: EasingRepository, newId: () => string): Router {
  const router = Router();
  router.param('id', idOnly);
  router.get('/', async (_request, response) => {
    response.json({ easings: await repository.list() });
  });
  router.post('/', async (request, response) => {
    const { name, easing } = addBody(request.body);
    response.status(201).json(await repository.add(newId(), name, checkEasing(easing)));
  });
  router.delete('/:id', async (request, response) => {
    const { id } = request.params;
    if (!(await repository.remove(id)))
      throw new ApiError('not-found', `Expected the id of a kept easing; found “${id.slice(0, 64)}”.`, '/id');
    response.status(204).end();
  });
  return router;
}
