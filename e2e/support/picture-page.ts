import {
  type CompiledPiece,
  type FormId,
  featuresOf,
  type Piece,
  planAndCompile,
  refusalsOf,
  Stage,
  writeAnimatedSvg,
  writeCssSvg,
  writeLottie,
} from '@core';
import type { CanvasKit } from 'canvaskit-wasm';
import { optimize } from 'svgo/browser';

declare global {
  /** A general-purpose graphics library, where the test has loaded it. */
  var graphics: CanvasKit;
}

/** Runs in the browser: one piece painted by the program's own stage, and as a file of one of the forms, side by side. */
const stage = new Stage((width, height) => new OffscreenCanvas(width, height).getContext('2d') ?? undefined);
let compiled: CompiledPiece | null = null;
let seek: (seconds: number) => void = () => {};

const svgOf = (): SVGSVGElement => document.querySelector('svg') as SVGSVGElement;

const optimised = (text: string): string => optimize(text, { multipass: true }).data;

function playSvg(text: string, place: HTMLElement): (seconds: number) => void {
  place.innerHTML = text;
  svgOf().pauseAnimations();
  return (seconds) => svgOf().setCurrentTime(seconds);
}

function playCss(text: string, place: HTMLElement): (seconds: number) => void {
  place.innerHTML = text;
  svgOf().pauseAnimations();
  return (seconds) => {
    for (const animation of document.getAnimations()) {
      animation.pause();
      animation.currentTime = 1000 * seconds;
    }
    svgOf().setCurrentTime(seconds);
  };
}

/** Puts a file of a form into the page; tells how to come to a time of it. */
const FORMS: Readonly<Record<string, (compiled: CompiledPiece, place: HTMLElement) => (seconds: number) => void>> = {
  'animated-svg': (piece, place) => playSvg(writeAnimatedSvg(piece, { digits: 3 }), place),
  css: (piece, place) => playCss(writeCssSvg(piece, { digits: 3 }), place),
  // Made smaller by a program that knows nothing of animation.
  'animated-svg, optimised': (piece, place) => playSvg(optimised(writeAnimatedSvg(piece, { digits: 3 })), place),
  'css, optimised': (piece, place) => playCss(optimised(writeCssSvg(piece, { digits: 3 })), place),
  lottie(piece, place) {
    const { width, height } = piece;
    place.innerHTML = `<canvas width="${width}" height="${height}"></canvas>`;
    const surface = graphics.MakeSWCanvasSurface(place.firstElementChild as HTMLCanvasElement);
    const text = writeLottie(piece, { digits: 3 });
    const animation = graphics.MakeManagedAnimation(text);
    if (!surface || !animation) throw new Error('The file was not taken.');
    const length = animation.duration();
    const again = (JSON.parse(text).markers ?? []).find(({ cm }: { cm: string }) => cm === 'again');
    return (seconds) => {
      const canvas = surface.getCanvas();
      canvas.clear(graphics.WHITE);
      // What has ended shows its last frame; what plays again is begun again by its player, from its marker where it has one.
      const round = piece.playback === 'loop' || piece.playback === 'back';
      const [from, stretch] = again ? [again.tm / animation.fps(), again.dr / animation.fps()] : [0, length];
      const wrapped = from + ((seconds - from) % stretch);
      const time = round || (again && seconds >= length) ? wrapped : Math.min(seconds, length - 1e-6);
      animation.seekFrame(time * animation.fps());
      animation.render(canvas, graphics.LTRBRect(0, 0, width, height));
      surface.flush();
    };
  },
};

Object.assign(window, {
  /** Tells what of the piece the form refuses; where that is nothing, the file is there. */
  loadPiece(piece: Piece, form: string): readonly string[] {
    compiled = planAndCompile(piece);
    const refused = refusalsOf(form.replace(/,.*/, '') as FormId, featuresOf(piece, compiled)).map(
      ({ feature }) => feature,
    );
    stage.show(compiled);
    const { width, height } = compiled;
    document.body.innerHTML = `<canvas width="${width}" height="${height}"></canvas><div></div>`;
    if (refused.length === 0) seek = FORMS[form](compiled, document.querySelector('div') as HTMLElement);
    return refused;
  },
  showAt(seconds: number): void {
    const canvas = document.querySelector('canvas');
    const context = canvas?.getContext('2d');
    if (context) stage.paint(context, seconds, { x: 0, y: 0, zoom: 1 }, 1);
    seek(seconds);
  },
});
