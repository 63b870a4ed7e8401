import { expect, test } from '@jest/globals';
import { TimeView } from './time-view';

test('who listens is told of another scale and of scrolling, each by itself, and nothing that is as it was', () => {
  const view = new TimeView();
  const told: string[] = [];
  const stop = view.onScale(() => told.push(`scale ${view.scaleNow()}`));
  view.onScroll(() => told.push(`scroll ${view.scroll}`));
  view.show(100, 800);
  view.show(100, 800);
  view.scrolled(20);
  view.scrolled(20);
  stop();
  view.show(200, 1600);
  expect(told).toEqual(['scale 100', 'scroll 20']);
});

test('zooming and scrolling are asked of whoever owns the view, until it is given up', () => {
  const view = new TimeView();
  const asked: string[] = [];
  const giveUp = view.own({
    zoomBy: (factor, at) => void asked.push(`zoom ${factor} at ${at}`),
    scrollBy: (px) => void asked.push(`scroll ${px}`),
  });
  view.zoomBy(1.5, 30);
  view.scrollBy(-8);
  giveUp();
  view.zoomBy(2);
  expect(asked).toEqual(['zoom 1.5 at 30', 'scroll -8']);
});
