import {
  cubicPoint,
  ellipseContour,
  endOutline,
  evaluate,
  inBetweenPathData,
  measureArcLength,
  outlineOfContours,
  outlineOfPart,
  PlaceFinder,
  placeAtShare,
  placementMatrix,
  planPoseShift,
  rankAlternatives,
  readPathData,
  shiftInput,
  transformOutline,
  writePathData,
} from '../core/src/index';
import { outlineDistance } from '../core/src/testing/outline-distance';
import { expect, test } from './support/fixtures';
import { anchorsOf, matchOf, onlyShift, svg } from './support/match-pieces';

const PENTAGON = 'M50 0L98 35L79 90L21 90L2 35Z';
/** A ring sector, drawn the other way round. */
const SECTOR = 'M90 50A40 40 0 1 0 50 90L50 70A20 20 0 1 1 70 50Z';
const ARROW = 'M10 40L60 40L60 15L95 50L60 85L60 60L10 60Z';
const STAR = 'M50 2L61 38L98 38L68 59L79 95L50 73L21 95L32 59L2 38L39 38Z';
const TWO_BOXES = 'M5 5H40V40H5ZM60 60H95V95H60Z';
const TWO_DOTS = 'M95 22A18 18 0 1 1 59 22A18 18 0 1 1 95 22ZM41 78A18 18 0 1 1 5 78A18 18 0 1 1 41 78Z';

test('a bad match is cured by reversing, and the decision given back', async ({ shelf, piece, match, page }) => {
  await matchOf(shelf, piece, match, PENTAGON, SECTOR);
  await expect(match.health).toContainText('Healthy');
  await match.isOwn('Direction', false);
  await page.getByText('As drawn', { exact: true }).click();
  await match.matched();
  await expect(match.health).toContainText('Broken');
  await expect(match.health).toContainText('direction');
  await match.isOwn('Direction');
  // By keyboard: the arrow keys go from choice to choice.
  await page.getByLabel('As drawn').focus();
  await page.keyboard.press('ArrowRight');
  await match.matched();
  await expect(match.health).toContainText('Healthy');
  await expect(page.locator('.details-reasons')).toContainText('your choice');
  await page.getByRole('button', { name: 'Direction: reset' }).click();
  await match.isOwn('Direction', false);
  expect((await onlyShift(piece)).match.direction).toBe('auto');
});

test('a start point dragged the wrong way breaks the shift, dragged back it is healthy; the arrow keys do the same', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, STAR, STAR);
  await expect(match.health).toContainText('Healthy');
  const anchors = anchorsOf(await piece.stored(), 0);
  const home = await match.middleOf(match.start('Look 1'));
  // Four tips on: every point now travels across.
  const near = await Promise.all(anchors.map(({ x, y }) => match.at('a', x, y)));
  const at = near.findIndex((p) => Math.hypot(p.x - home.x, p.y - home.y) < 2);
  expect(at).toBeGreaterThanOrEqual(0);
  // The health is known while the hand rests, before it lets go.
  await match.drag(home, near[(at + 5) % near.length], () => expect(match.health).not.toContainText('Healthy'));
  await match.matched();
  await expect(match.health).not.toContainText('Healthy');
  await match.isOwn('Start point');
  await match.drag(await match.middleOf(match.start('Look 1')), home);
  await match.matched();
  await expect(match.health).toContainText('Healthy');

  await match.start('Look 2').focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await match.matched();
  await expect(match.health).not.toContainText('Healthy');
  await match.start('Look 2').focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft');
  await match.matched();
  await expect(match.health).toContainText('Healthy');
  await page.getByRole('button', { name: 'Start point: reset' }).click();
  await match.isOwn('Start point', false);
});

test('one tie cures what a wrong start broke: by pressing on each side, moved by its handle, removed by Delete', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, STAR, STAR);
  const anchors = anchorsOf(await piece.stored(), 0);
  const tip = anchors[2];
  const tail = anchors[7];
  // On straight ways half a turn cannot be made good.
  await page.getByText('Straight', { exact: true }).click();
  // A wrong tie first: a tip to the notch across.
  const [wrongA, wrongB] = [await match.at('a', tip.x, tip.y), await match.at('b', tail.x, tail.y)];
  await page.mouse.click(wrongA.x, wrongA.y);
  await expect(page.getByText('Now press its place on the second outline.')).toBeVisible();
  await page.mouse.click(wrongB.x, wrongB.y);
  await match.matched();
  await expect(match.health).not.toContainText('Healthy');
  await expect(page.locator('.details-reasons')).toContainText('passes through the tie');
  // The end on the second outline goes to the tip.
  await match.drag(await match.middleOf(match.tie('Look 2')), await match.at('b', tip.x, tip.y));
  await match.matched();
  await expect(match.health).toContainText('Healthy');
  expect((await onlyShift(piece)).match.ties).toHaveLength(1);
  await match.tie('Look 1').focus();
  await page.keyboard.press('Delete');
  await match.isOwn('Ties', false);
  // By keyboard alone: a tie is added and moved along its outline.
  await page.getByRole('button', { name: 'Add a tie' }).click();
  await match.matched();
  const before = (await onlyShift(piece)).match.ties[0];
  await match.tie('Look 1').focus();
  await page.keyboard.press('ArrowRight');
  await match.matched();
  const after = (await onlyShift(piece)).match.ties[0];
  expect(after.a).not.toEqual(before.a);
  expect(after.b).toEqual(before.b);
});

test('another alternative is taken from its half-way picture, and all given back', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, PENTAGON, SECTOR);
  await match.tab('Alternatives');
  const offered = page.getByRole('button', { name: /^Alternative \d/ });
  await expect.poll(() => offered.count()).toBeGreaterThan(1);
  const shown = await offered.nth(1).locator('svg').first().locator('path').getAttribute('d');
  await offered.nth(1).focus();
  await page.keyboard.press('Enter');
  // What it promised is what it does, and the list stays: another can be taken, and this one again.
  await match.matched();
  await expect(offered.nth(1)).toHaveAttribute('aria-pressed', 'true');
  const goes = async (): Promise<string> => {
    const { shifts, ...stored } = await piece.saved().then(piece.stored);
    const [own] = Object.values(shifts);
    const { plan } = planPoseShift(shiftInput({ ...stored, shifts }, own)).parts[0];
    return inBetweenPathData(plan, evaluate(plan, 0.5), 1);
  };
  expect(await goes()).toBe(shown);
  await offered.nth(0).click();
  await match.matched();
  await expect(offered.nth(0)).toHaveAttribute('aria-pressed', 'true');
  await expect(offered.nth(1)).toHaveAttribute('aria-pressed', 'false');
  await offered.nth(1).click();
  await match.matched();
  expect(await goes()).toBe(shown);
  await match.tab('Decisions');
  await match.matched();
  await match.isOwn('Method');
  await match.isOwn('Start point');
  const shift = await onlyShift(piece);
  expect(shift.match.starts).toHaveLength(1);
  expect(shift.method).not.toBe('auto');
  await page.getByRole('button', { name: 'Reset all' }).click();
  await match.isOwn('Method', false);
  await match.isOwn('Start point', false);
});

test('where all ways look the same half-way, the list says so', async ({ shelf, piece, match, page }) => {
  await matchOf(shelf, piece, match, 'M0 0H90V60H0Z', 'M0 0H90V60H0Z');
  await match.tab('Alternatives');
  await expect(page.getByText('All ways that were found look like this half-way.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Alternative \d/ })).toHaveCount(1);
});

test('the middle is nudged: by mouse and by keyboard, and the in-between passes there', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, ARROW, STAR);
  await match.setProgress(0.4);
  await match.tool('Touch up');
  const point = page.getByRole('button', { name: 'Point 3 of the in-between' });
  await point.waitFor();
  const box = await point.boundingBox();
  if (!box) throw new Error('The point is not on the page.');
  const from = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await match.drag(from, { x: from.x + 30, y: from.y - 12 });
  await match.matched();
  const touched = await onlyShift(piece);
  expect(touched.match.touchUps).toHaveLength(1);
  expect(touched.match.touchUps[0].progress).toBeCloseTo(0.4, 6);
  await expect(page.getByText('At 40 %, 1 point')).toBeVisible();
  const moved = page.getByRole('button', { name: 'Point 3 of the in-between' });
  await expect.poll(async () => Math.abs(((await moved.boundingBox())?.x ?? 0) - box.x - 30)).toBeLessThan(2);
  await moved.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await match.matched();
  const [before, after] = [
    touched.match.touchUps[0].points[0].by,
    (await onlyShift(piece)).match.touchUps[0].points[0].by,
  ];
  expect(after[0]).toBeCloseTo(before[0], 6);
  expect(after[1]).toBeGreaterThan(before[1]);
});

test('contours are paired by hand: dragged between the outlines, and chosen from a list', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, TWO_BOXES, TWO_DOTS);
  const stored = await piece.stored();
  const boxes = anchorsOf(stored, 0);
  const dots = anchorsOf(stored, 1);
  await match.isOwn('Contours', false);
  await match.tool('Pair contours');
  await match.drag(await match.at('a', boxes[0].x, boxes[0].y), await match.at('b', dots[2].x, dots[2].y));
  await match.matched();
  await match.isOwn('Contours');
  const [pair] = (await onlyShift(piece)).match.pairs;
  const part = Object.values(stored.parts).find(({ contours }) => contours.some(({ id }) => id === pair.a));
  expect(part?.contours[0].id).toBe(pair.a);
  expect(pair.b).not.toBeNull();
  await page.getByLabel('Contour 2 to').selectOption('alone');
  await match.matched();
  await expect(page.locator('.details-reasons')).toContainText('shrinks away');
  expect((await onlyShift(piece)).match.pairs).toContainEqual({ a: part?.contours[1].id, b: null });
});

test('start, tie and touch-up survive even points, added points, an exchange, a pose inserted before, undo, and reopening', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, ARROW, STAR);
  const [first, second] = [anchorsOf(await piece.stored(), 0), anchorsOf(await piece.stored(), 1)];
  // A start of our own, a tie, a touch-up.
  await match.start('Look 1').focus();
  await page.keyboard.press('ArrowRight');
  await match.matched();
  const [p, q] = [await match.at('a', first[6].x, first[6].y), await match.at('b', second[7].x, second[7].y)];
  await page.mouse.click(p.x, p.y);
  await page.mouse.click(q.x, q.y);
  await match.matched();
  await match.tool('Touch up');
  await page.getByRole('button', { name: 'Point 2 of the in-between' }).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await match.matched();
  const chosen = (await onlyShift(piece)).match;
  expect([chosen.starts.length, chosen.ties.length, chosen.touchUps.length]).toEqual([1, 1, 1]);
  const places = async (shiftIndex = 0): Promise<readonly (readonly [number, number])[]> => {
    const stored = await piece.stored();
    const shift = stored.shifts[stored.figures[stored.figureOrder[0]].rail[shiftIndex]];
    const at = (poseId: string, place: Parameters<PlaceFinder['find']>[0]): readonly [number, number] => {
      const pose = stored.poses[poseId];
      for (const id of pose.parts) {
        const outline = transformOutline(outlineOfPart(stored.parts[id]), placementMatrix(pose.placement));
        const found = new PlaceFinder(outline).find(place);
        if (!found) continue;
        const contour = outline.contours[found.contour];
        const curve = placeAtShare(measureArcLength(contour), found.share);
        const point = cubicPoint(contour.points, 6 * curve.segment, curve.t, new Float64Array(2));
        return [Math.round(point[0]), Math.round(point[1])];
      }
      throw new Error(`The place ${JSON.stringify(place)} is gone.`);
    };
    const { starts, ties, touchUps } = shift.match;
    return [...starts, ...ties]
      .flatMap(({ a, b }) => [at(shift.from, a), at(shift.to, b)])
      .concat(touchUps.flatMap(({ points }) => points.map(({ place }) => at(shift.from, place))));
  };
  const before = await places();
  expect(before).toHaveLength(5);

  // Points set evenly, and back.
  await page.getByRole('button', { name: 'Space points evenly' }).click();
  await match.matched();
  await expect(match.decision('Points')).toContainText('off the outline');
  expect(await places()).toEqual(before);
  await page.getByRole('button', { name: 'Points: reset' }).click();
  // More points on the first outline, two of them beside the chosen places.
  await page.getByRole('link', { name: 'Shapes', exact: true }).click();
  await piece.cards.first().click();
  await page.keyboard.press('p');
  for (let i = 0; i < 4; i++) {
    await page.getByRole('button', { name: 'Next point' }).click();
    await page.getByRole('button', { name: 'Add after' }).click();
  }
  expect(anchorsOf(await piece.saved().then(piece.stored), 0)).toHaveLength(first.length + 4);
  expect(await places()).toEqual(before);
  // The same arrow from another program: other points, another start, the other way round.
  await page.keyboard.press('s');
  await piece.cards.first().click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  await page.getByRole('button', { name: 'Exchange …' }).click();
  await page.getByTestId('exchange-chooser').setInputFiles({
    name: 'new.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(svg('M60 85L95 50L60 15L60 40L35 40L10 40L10 60L60 60Z')),
  });
  await page.getByRole('button', { name: 'Exchange', exact: true }).click();
  const exchanged = await places();
  exchanged.forEach(([x, y], i) => expect(Math.hypot(x - before[i][0], y - before[i][1])).toBeLessThan(4));
  await page.keyboard.press('ControlOrMeta+z');
  expect(await places()).toEqual(before);
  // A pose before the first: the shift keeps its choices.
  await piece.dropOnRail([{ name: 'Before.svg', text: svg(PENTAGON) }], 40);
  await expect(piece.cards).toHaveCount(3);
  await piece.matched();
  const shifted = await places(1);
  expect(shifted).toHaveLength(5);
  // Undone and done again.
  await page.keyboard.press('ControlOrMeta+z');
  await expect(piece.cards).toHaveCount(2);
  expect(await places()).toEqual(before);
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await expect(piece.cards).toHaveCount(3);
  expect(await places(1)).toEqual(shifted);
  // Reopened.
  await page.reload();
  await piece.rail.waitFor();
  expect(await places(1)).toEqual(shifted);
  await piece.matched();
});

test('a pose put between the two: the tie goes on through it, the touch-up is named as lost, undo brings both back', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, ARROW, STAR);
  await page.getByRole('button', { name: 'Add a tie' }).click();
  await match.matched();
  await match.tool('Touch up');
  await page.getByRole('button', { name: 'Point 2 of the in-between' }).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await match.matched();
  const before = (await onlyShift(piece)).match;
  expect([before.ties.length, before.touchUps.length]).toEqual([1, 1]);
  const rail = await piece.rail.boundingBox();
  if (!rail) throw new Error('There is no rail.');
  await piece.dropOnRail([{ name: 'Between.svg', text: svg(PENTAGON) }], rail.width / 2);
  await expect(piece.cards).toHaveCount(3);
  await expect(page.getByText(/A touch-up of Look 1 to Look 2 could not be kept/)).toBeVisible();
  const stored = await piece.stored();
  const [first, second] = stored.figures[stored.figureOrder[0]].rail.map((id) => stored.shifts[id].match);
  expect(first.ties[0].a).toEqual(before.ties[0].a);
  expect(second.ties[0].b).toEqual(before.ties[0].b);
  expect(second.ties[0].a).toEqual(first.ties[0].b);
  await page.keyboard.press('ControlOrMeta+z');
  await expect(piece.cards).toHaveCount(2);
  const after = (await onlyShift(piece)).match;
  expect([after.ties, after.touchUps]).toEqual([before.ties, before.touchUps]);
});

test('a round sign cut into two halves shows no seam: at 1000 px it is the uncut sign', async ({ page }) => {
  const sign = outlineOfContours([ellipseContour(50, 50, 45.3, 45.3)]);
  const bars = readPathData('M0 10H18V90H0ZM82 10H100V90H82Z');
  const [{ plan }] = rankAlternatives(sign, bars, { cuts: { a: [[44.37, 0, 52.11, 100]] } });
  expect(plan.contours).toHaveLength(2);
  // The uncut sign with the same points on its edge: Chromium flattens a quarter circle in one piece and in several a little differently, which
  // is no matter of the cut.
  const uncut = endOutline(plan, 'first');
  expect(uncut.contours).toHaveLength(1);
  expect(outlineDistance(uncut, sign)).toBeLessThan(0.01);
  const [cut, whole] = [inBetweenPathData(plan, evaluate(plan, 0), 4), writePathData(uncut, { digits: 4 })];
  const { most, pixels } = await page.evaluate(
    ([first, second]) => {
      const draw = (d: string): Uint8ClampedArray => {
        const canvas = document.createElement('canvas');
        canvas.width = 1000;
        canvas.height = 1000;
        const ctx = canvas.getContext('2d') as CanvasRenderingContext2D;
        ctx.scale(10, 10);
        // A far dot in the same path: lone convex shapes are smoothed another way than all others.
        ctx.fill(new Path2D(`${d}M1 1H2V2H1Z`));
        return ctx.getImageData(0, 0, 1000, 1000).data;
      };
      const [p, q] = [draw(first), draw(second)];
      let most = 0;
      let pixels = 0;
      for (let i = 3; i < p.length; i += 4) {
        const gap = Math.abs(p[i] - q[i]);
        most = Math.max(most, gap);
        if (gap > 0) pixels++;
      }
      return { most, pixels };
    },
    [cut, whole],
  );
  // Of a million pixels a handful differ, by less than the eye can tell.
  expect(most).toBeLessThan(8);
  expect(pixels).toBeLessThan(16);
});
