import { describe, expect, test } from '@jest/globals';
import express from 'express';
import request from 'supertest';
import { problemHandler } from '../../http/problems';
import { PlacedFiles } from './placed-files';
import { sitePlacementRoutes, siteRoutes } from './routes';

function site() {
  const placements = new PlacedFiles();
  const app = express();
  app.use('/api/site', sitePlacementRoutes(placements));
  app.use('/site', siteRoutes(placements));
  app.use(problemHandler);
  return request(app);
}
const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg"><style>@media (prefers-reduced-motion:reduce){g{display:none}}</style></svg>';
const put = (agent: ReturnType<typeof site>, slot: string, query = '', type = 'image/svg+xml', body = SVG) =>
  agent.put(`/api/site/${slot}${query}`).set('Content-Type', type).send(Buffer.from(body));

describe('the page of the ferry line', () => {
  test('a file is put into a place, seen there, and taken off again', async () => {
    const agent = site();
    expect((await put(agent, 'hero', '?name=Quay%20%3Cb%3E')).status).toBe(201);
    expect((await agent.get('/api/site')).body).toEqual([
      { slot: 'hero', kind: 'image', name: 'Quay <b>', mediaType: 'image/svg+xml', size: SVG.length },
    ]);
    const page = await agent.get('/site');
    expect(page.text).toContain('<img src="/site/file/hero" alt="Quay &lt;b&gt;">');
    expect(page.headers['content-security-policy']).toContain("frame-ancestors 'self'");
    const file = await agent.get('/site/file/hero');
    expect(file.body.toString()).toBe(SVG);
    expect(file.headers['content-security-policy']).toContain('sandbox');
    expect((await agent.delete('/api/site/hero')).status).toBe(204);
    expect((await agent.get('/site/file/hero')).status).toBe(404);
    expect((await agent.delete('/api/site/hero')).status).toBe(404);
  });

  test('a second file takes the place of the first; places are apart', async () => {
    const agent = site();
    await put(agent, 'hero');
    await put(agent, 'hero', '', 'image/gif', 'GIF89a');
    await put(agent, 'button', '?as=element');
    const { text } = await agent.get('/site?theme=dark');
    expect(text).toContain('class="dark"');
    expect(text).toContain('<moving-piece src="/site/file/button" autoplay');
    expect(
      (await agent.get('/api/site')).body.map(({ slot, kind }: { slot: string; kind: string }) => [slot, kind]),
    ).toEqual([
      ['hero', 'image'],
      ['button', 'element'],
    ]);
    expect((await agent.get('/site/moving-piece.js')).text).toMatch(/customElements\.define\(["'`]moving-piece/);
    expect((await agent.get('/site/site.css')).type).toBe('text/css');
  });

  test('a visitor who wants less motion sees what such visitors see', async () => {
    const agent = site();
    await put(agent, 'hero');
    await put(agent, 'mail', '', 'video/mp4', 'x');
    const { text } = await agent.get('/site?motion=less');
    expect(text).toContain('/site/file/hero?motion=less');
    expect(text).not.toContain('autoplay');
    expect((await agent.get('/site/file/hero?motion=less')).body.toString()).toContain('@media all{g{display:none}}');
  });

  test.each([
    ['roof', '', 'image/gif', 'x', 404],
    ['hero', '', 'text/html', '<p>', 415],
    ['hero', '?as=video', 'image/gif', 'x', 422],
    ['hero', '', 'image/gif', '', 422],
  ])('%s%s with %s is refused', async (slot, query, type, body, status) => {
    const agent = site();
    const answer = await put(agent, slot, query, type, body);
    expect(answer.status).toBe(status);
    expect(answer.body.detail).toMatch(/^Expected/);
    expect((await agent.get('/api/site')).body).toEqual([]);
  });
});
