import { type ArrivalForm, type ArrivingFile, emptyPiece, type PathEngine, posesOfArrival, readSvg } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { changePiece } from '../../state';
import { Driver } from '../../testing/driver';
import { pathEngine } from '../../testing/engine';
import type { EngineClient } from '../../workers';
import { type Arrangement, Arrivals, mendGapsOf } from './arrivals';
import { previewExchange, readExchange, takeExchange } from './exchange';

let paths: PathEngine;
beforeAll(async () => {
  paths = await pathEngine();
});
let ids = 0;
const engine = (): EngineClient =>
  ({
    readSvg: async (text: string) => readSvg(text),
    arrive: async (files: readonly ArrivingFile[], form: ArrivalForm) =>
      posesOfArrival(files, form, paths, (prefix) => `${prefix}-${++ids}`),
  }) as Partial<EngineClient> as EngineClient;
const svg = (body: string, size = 100): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}">${body}</svg>`;
const BOAT = svg(
  '<g id="rig"><path id="sail" fill="#eeb03a" d="M48 4L90 78H48Z"/><path id="jib" fill="#e58a2f" d="M42 22V78H10Z"/></g><path id="hull" fill="#17324d" d="M6 70H94L72 96H28Z"/>',
);
const source = (text = BOAT, name = 'boat.svg') => ({ name, size: text.length, text: async () => text });

async function arrived(
  text = BOAT,
): Promise<{ driver: Driver; arrivals: Arrivals; again: (change: Partial<Arrangement>) => Promise<void> }> {
  const driver = new Driver(emptyPiece('p', 'P'));
  const arrivals = new Arrivals(driver.store, engine());
  await arrivals.take([source(text)]);
  return {
    driver,
    arrivals,
    again: async (change) =>
      arrivals.rearrange({ ...(arrivals.last as { arrangement: Arrangement }).arrangement, ...change }),
  };
}

describe('what arrived can become something else, as the same one step', () => {
  test('figures that stand to each other as they were drawn', async () => {
    const { driver, again } = await arrived();
    await again({ form: 'figures' });
    expect(driver.piece.figureOrder.map((id) => driver.piece.figures[id].name)).toEqual(['rig', 'hull']);
    expect(driver.history).toEqual(['Add 2 poses']);
    const [rig, hull] = driver.piece.figureOrder;
    const apart = driver.points(hull)[0][1] - driver.points(rig)[0][1];
    const scale = driver.pose(rig).placement.scaleX;
    expect(apart / scale).toBeCloseTo(66, 3);
  });

  test('poses, one after another; one united outline; without what is not wanted', async () => {
    const { driver, again } = await arrived();
    await again({ form: 'poses' });
    expect(driver.piece.figures[driver.piece.figureOrder[0]].poses).toHaveLength(2);
    await again({ form: 'united' });
    expect(driver.parts()).toHaveLength(1);
    expect(driver.parts()[0].contours).toHaveLength(1);
    await again({ form: 'parts', left: [[0, 1]] });
    expect(driver.parts().map(({ name }) => name)).toEqual(['hull']);
    await again({ left: [[0, 1, 2]] });
    expect(driver.messages).toContain('At least one shape');
    expect(driver.history).toHaveLength(1);
    driver.run('undo');
    expect(driver.piece.figureOrder).toEqual([]);
  });

  test('the canvas takes the drawing’s size, or the drawing the canvas’s', async () => {
    const { driver, again } = await arrived();
    await again({ fits: ['set'] });
    expect(driver.piece.canvas).toMatchObject({ width: 100, height: 100 });
    expect(driver.points()[0]).toEqual([48, 4]);
    await again({ fits: ['scale'] });
    expect(driver.piece.canvas.width).toBe(640);
    expect(driver.points()[0].map((v) => +v.toFixed(3))).toEqual([307.2, 25.6]);
    await again({ fits: ['keep'] });
    expect(driver.pose().placement.rule).not.toBeNull();
  });

  test('drawings of several sizes each have an offer of their own', async () => {
    const driver = new Driver(emptyPiece('p', 'P'));
    const arrivals = new Arrivals(driver.store, engine());
    const corner = '<path fill="#123456" d="M10 10h20v20h-20z"/>';
    await arrivals.take([
      source(svg(corner), 'a.svg'),
      source(svg(corner, 50), 'b.svg'),
      source(svg(corner, 200), 'c.svg'),
    ]);
    const again = async (...fits: Arrangement['fits']): Promise<void> =>
      arrivals.rearrange({ ...(arrivals.last as { arrangement: Arrangement }).arrangement, fits });
    const corners = (): number[] => [0, 1, 2].map((stop) => +driver.points(undefined, stop)[0][0].toFixed(3));
    const rules = (): boolean[] => [0, 1, 2].map((stop) => driver.pose(undefined, stop).placement.rule !== null);
    await again('scale', 'scale', 'keep');
    expect([corners().slice(0, 2), rules()]).toEqual([
      [64, 128],
      [false, false, true],
    ]);
    await again('keep', 'set', 'scale');
    expect(driver.piece.canvas).toMatchObject({ width: 50, height: 50 });
    expect([driver.points(undefined, 1)[0], rules()]).toEqual([
      [10, 10],
      [true, false, false],
    ]);
    expect(driver.history).toEqual(['Add 3 poses']);
  });

  test('outlines that are open by a little are counted, and closed by one press', async () => {
    const { driver } = await arrived(
      svg(
        '<g fill="none" stroke="#000"><path d="M10 10L90 10L90 90L10 90L10 11"/><path d="M0 50H48M49 50H99"/><path d="M0 5h9"/></g>',
      ),
    );
    expect(driver.state.session.arrival?.gaps).toBe(2);
    mendGapsOf(driver.store, [driver.pose().id]);
    const lines = () => driver.parts()[0].contours.map(({ closed, anchors }) => [closed, anchors.length]);
    expect(lines()).toEqual([
      [true, 4],
      [false, 3],
      [false, 2],
    ]);
    expect(driver.history.at(-1)).toBe('Close small gaps');
    driver.run('undo');
    expect(lines()).toHaveLength(4);
    const whole = await arrived();
    expect(whole.driver.state.session.arrival?.gaps).toBe(0);
  });

  test('not any more once something else was changed', async () => {
    const { driver, arrivals, again } = await arrived();
    driver.store.dispatch(changePiece('Rename', (draft) => void (draft.name = 'Else')));
    expect(arrivals.canRearrange()).toBe(false);
    await again({ form: 'figures' });
    expect(driver.piece.figureOrder).toHaveLength(1);
    driver.run('undo');
    expect(arrivals.canRearrange()).toBe(true);
  });

  test('several files in one go, the bad ones told, the progress cleared', async () => {
    const driver = new Driver(emptyPiece('p', 'P'));
    const arrivals = new Arrivals(driver.store, engine());
    expect(
      await arrivals.take([source(), source('nonsense', 'bad.svg'), source(svg('<circle r="9"/>'), 'disc.svg')]),
    ).toBe(2);
    expect(driver.messages).toContain('bad.svg');
    expect(driver.state.session.busy).toBeNull();
    expect(driver.state.session.arrival?.form).toBe('poses');
  });
});

describe('a new version in the place of the old', () => {
  test('is read, shown with its difference, and taken as one step', async () => {
    const { driver } = await arrived();
    const poseId = driver.pose().id;
    const newer = new File(
      [BOAT.replace('M48 4L90 78H48Z', 'M48 10L84 78H48Z').replace('#17324d', '#000000')],
      'boat-2.svg',
    );
    const offer = await readExchange(engine(), poseId, newer);
    const preview = previewExchange(driver.piece, offer, true);
    expect(preview?.summary).toMatchObject({ partsKept: 3, partsNew: 0, partsGone: 0, anchorsKept: 10, anchorsNew: 0 });
    // Looking changes nothing.
    expect(driver.history).toHaveLength(1);
    const before = driver.parts().map(({ id, fill }) => [id, fill]);
    takeExchange(driver.store, offer, true);
    expect(driver.parts().map(({ id, fill }) => [id, fill])).toEqual(before);
    driver.run('undo');
    takeExchange(driver.store, offer, false);
    expect(driver.parts().map(({ fill }) => fill)).toContain('#000000');
    expect(driver.history[1]).toBe('Exchange for boat-2.svg');
  });

  test('what cannot be read is refused before anything is shown', async () => {
    const { driver } = await arrived();
    await expect(readExchange(engine(), driver.pose().id, new File(['no drawing'], 'x.svg'))).rejects.toThrow(
      'Expected an SVG',
    );
  });
});
