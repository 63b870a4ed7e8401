import { type CompiledPiece, type Piece, planAndCompile, Stage, writeAnimatedSvg } from '@core';

/** Runs in the browser: one piece painted by the program's own stage, and written as an animated SVG, side by side. */
const stage = new Stage((width, height) => new OffscreenCanvas(width, height).getContext('2d') ?? undefined);
let compiled: CompiledPiece | null = null;

Object.assign(window, {
  loadPiece(piece: Piece): void {
    compiled = planAndCompile(piece);
    stage.show(compiled);
    const { width, height } = compiled;
    document.body.innerHTML = `<canvas width="${width}" height="${height}"></canvas>${writeAnimatedSvg(compiled, { digits: 3 })}`;
    document.querySelector('svg')?.pauseAnimations();
  },
  showAt(seconds: number): void {
    const canvas = document.querySelector('canvas');
    const context = canvas?.getContext('2d');
    if (context) stage.paint(context, seconds, { x: 0, y: 0, zoom: 1 }, 1);
    document.querySelector('svg')?.setCurrentTime(seconds);
  },
});
