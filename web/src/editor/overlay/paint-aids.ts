import type { Piece } from '@core';
import { RULER_PX } from '../drawing/tool-host';
import type { Pen } from '../tools/tool';

const LEAST_GRID_PX = 5;
/** Titles and actions stay inside these shares of the picture (SMPTE ST 2046-1: 93 % for action, 90 % for titles). */
const SAFE_ACTION = 0.93;
const SAFE_TITLE = 0.9;

/** Grid, thirds, safe area and guides, under everything that belongs to a tool. */
export function paintAids(pen: Pen, piece: Piece): void {
  const { context: c, colours, zoom } = pen;
  const { width, height } = piece.canvas;
  const { grid, thirds, safeArea, guides } = piece.aids;
  const line = (x0: number, y0: number, x1: number, y1: number): void => {
    const [ax, ay] = pen.toScreen(x0, y0);
    const [bx, by] = pen.toScreen(x1, y1);
    c.moveTo(Math.round(ax) + 0.5, Math.round(ay) + 0.5);
    c.lineTo(Math.round(bx) + 0.5, Math.round(by) + 0.5);
  };
  c.lineWidth = 1;
  if (grid.shown) {
    let step = grid.size;
    while (step * zoom < LEAST_GRID_PX) step *= 2;
    c.strokeStyle = colours.line;
    c.globalAlpha = 0.55;
    c.beginPath();
    for (let i = 1; i * step < width; i++) line(i * step, 0, i * step, height);
    for (let i = 1; i * step < height; i++) line(0, i * step, width, i * step);
    c.stroke();
    c.globalAlpha = 1;
  }
  if (thirds) {
    c.strokeStyle = colours.cobalt;
    c.globalAlpha = 0.5;
    c.beginPath();
    for (const k of [1 / 3, 2 / 3]) {
      line(width * k, 0, width * k, height);
      line(0, height * k, width, height * k);
    }
    c.stroke();
    c.globalAlpha = 1;
  }
  if (safeArea) {
    c.strokeStyle = colours.cobalt;
    for (const share of [SAFE_ACTION, SAFE_TITLE]) {
      c.setLineDash(share === SAFE_TITLE ? [4, 3] : []);
      const [x0, y0] = pen.toScreen((width * (1 - share)) / 2, (height * (1 - share)) / 2);
      c.strokeRect(Math.round(x0) + 0.5, Math.round(y0) + 0.5, width * share * zoom, height * share * zoom);
    }
    c.setLineDash([]);
  }
  if (guides.length > 0) {
    c.strokeStyle = colours.cobalt;
    c.beginPath();
    for (const { axis, at } of guides) {
      const [x, y] = pen.toScreen(at, at);
      if (axis === 'x') {
        c.moveTo(Math.round(x) + 0.5, 0);
        c.lineTo(Math.round(x) + 0.5, c.canvas.height);
      } else {
        c.moveTo(0, Math.round(y) + 0.5);
        c.lineTo(c.canvas.width, Math.round(y) + 0.5);
      }
    }
    c.stroke();
  }
}

/** Rulers in px of the canvas along the top and the left. */
export function paintRulers(pen: Pen, paneWidth: number, paneHeight: number): void {
  const { context: c, colours, zoom } = pen;
  const [ox, oy] = pen.toScreen(0, 0);
  c.fillStyle = colours.paper;
  c.fillRect(0, 0, paneWidth, RULER_PX);
  c.fillRect(0, 0, RULER_PX, paneHeight);
  c.strokeStyle = colours.line;
  c.fillStyle = colours.ink;
  c.lineWidth = 1;
  c.font = '10px "DM Mono", monospace';
  const step = niceStep(60 / zoom);
  c.beginPath();
  c.moveTo(0, RULER_PX - 0.5);
  c.lineTo(paneWidth, RULER_PX - 0.5);
  c.moveTo(RULER_PX - 0.5, 0);
  c.lineTo(RULER_PX - 0.5, paneHeight);
  for (let v = Math.ceil((RULER_PX - ox) / zoom / step) * step; ox + v * zoom < paneWidth; v += step) {
    const x = Math.round(ox + v * zoom) + 0.5;
    c.moveTo(x, RULER_PX - 6);
    c.lineTo(x, RULER_PX);
    c.fillText(String(+v.toFixed(4)), x + 2, 9);
  }
  for (let v = Math.ceil((RULER_PX - oy) / zoom / step) * step; oy + v * zoom < paneHeight; v += step) {
    const y = Math.round(oy + v * zoom) + 0.5;
    c.moveTo(RULER_PX - 6, y);
    c.lineTo(RULER_PX, y);
    c.save();
    c.translate(9, y - 2);
    c.rotate(-Math.PI / 2);
    c.fillText(String(+v.toFixed(4)), 0, 0);
    c.restore();
  }
  c.stroke();
}

/** The least of 1, 2, 5, 10, … that is not below `least`. */
export function niceStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((k) => k * power).find((step) => step >= least - 1e-12) ?? 10 * power;
}
