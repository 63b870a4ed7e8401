// The longest tasks of the page while the Timing room is opened on 30 figures of 6 poses each, with a lane a figure: tsx bench/timing-room.ts after a build.
import {
  addFigure,
  emptyPiece,
  insertPoses,
  newPose,
  type PieceDraft,
  readPathData,
  recordOfContour,
  setLaneAtStop,
} from '../core/src/index';
import { ServerProcess } from '../e2e/support/server';
import { WatchedPage } from './long-tasks';

let n = 0;
const newId = (prefix: string): string => `${prefix}${++n}`;
const draft = structuredClone(emptyPiece('bench-timing', 'Bench')) as PieceDraft;
for (let f = 0; f < 30; f++) {
  const figure = `f${f}`;
  addFigure(draft, figure, `Figure ${f + 1}`);
  const poses = Array.from({ length: 6 }, (_, k) => {
    const id = newId('p');
    const d = k % 2 ? `M0 0H${20 + f}V${10 + k}H0Z` : `M${10 + k} 0L${20 + f} 20L0 ${18 + k}Z`;
    const contours = readPathData(d).contours.map((contour) => recordOfContour(contour, newId));
    return {
      pose: newPose(newId('q'), `Pose ${k + 1}`, [id]),
      parts: [{ id, name: 'Part', contours, fillRule: 'nonzero' as const, fill: '#204060', stroke: null }],
    };
  });
  insertPoses(draft, figure, poses, newId);
  setLaneAtStop(draft, figure, 'turn', 2, [90], newId);
}

const server = new ServerProcess();
await server.start();
const watched = await WatchedPage.open();
const { page } = watched;
try {
  const made = await page.request.post(`${server.url}/api/pieces`, { data: { piece: draft } });
  if (!made.ok()) throw new Error(await made.text());
  await page.goto(`${server.url}/piece/bench-timing/shapes`);
  await page.waitForTimeout(12_000);
  await watched.forget();
  await page.keyboard.press('3');
  await page.getByRole('region', { name: 'Lanes' }).waitFor();
  await page.waitForTimeout(2_000);
  const tasks = await watched.longTasks();
  const sum = tasks.reduce((all, each) => all + each, 0);
  console.log(
    `30 figures of 6 poses: tasks over 50 ms while Timing opens: ${tasks.join(', ') || 'none'}; ${sum} ms in all`,
  );
} finally {
  await watched.close();
  await server.dispose();
}
