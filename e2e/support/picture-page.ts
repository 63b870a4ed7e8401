import {
  type CompiledPiece,
  type FormId,
  featuresOf,
  type Piece,
  planAndCompile,
  proveText,
  readMovingFile,
  refusalsOf,
  Stage,
  writeAnimatedSvg,
  writeCssSvg,
  writeLottie,
} from '@core';
import type { CanvasKit } from 'canvaskit-wasm';
import { optimize } from 'svgo/browser';

/** What of the usual open player of Lottie files is used here. */
interface LottiePlayer {
  loadAnimation(settings: {
    container: Element;
    renderer: 'svg' | 'canvas';
    loop: boolean;
    autoplay: boolean;
    animationData: unknown;
  }): { goToAndStop(frame: number, isFrame: boolean): void; totalFrames: number; frameRate: number };
  destroy(): void;
}

declare global {
  /** The usual open player of Lottie files, where the test has loaded it. */
  var lottie: LottiePlayer;
  /** A general-purpose graphics library, where the test has loaded it. */
  var graphics: CanvasKit;
}

/** Runs in the browser: one piece painted by the program's own stage, and as a file of one of the forms, side by side. */
const stage = new Stage((width, height) => new OffscreenCanvas(width, height).getContext('2d') ?? undefined);
let compiled: CompiledPiece | null = null;
let seek: (seconds: number) => void = () => {};

const svgOf = (): SVGSVGElement => document.querySelector('svg') as SVGSVGElement;

const optimised = (text: string): string => optimize(text, { multipass: true }).data;

type Seek = (seconds: number) => void;

function playSvg(text: string, place: HTMLElement): Seek {
  place.innerHTML = text;
  svgOf().pauseAnimations();
  return (seconds) => svgOf().setCurrentTime(seconds);
}

function playCss(text: string, place: HTMLElement): Seek {
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

/**
 * Where a player that goes through a Lottie file is at a time of the piece: what has ended shows its last frame; what plays again is begun again by its player, from
 * its marker where it has one.
 */
function lottieTime({ playback }: CompiledPiece, text: string): (seconds: number) => number {
  const { op, fr, markers = [] } = JSON.parse(text);
  const length = op / fr;
  const again = markers.find(({ cm }: { cm: string }) => cm === 'again');
  const [from, stretch] = again ? [again.tm / fr, again.dr / fr] : [0, length];
  const round = playback === 'loop' || playback === 'back';
  return (seconds) =>
    round || (again && seconds >= length) ? from + ((seconds - from) % stretch) : Math.min(seconds, length - 1e-6);
}

const playLottieWeb =
  (renderer: 'svg' | 'canvas') =>
  (text: string, place: HTMLElement, piece: CompiledPiece): Seek => {
    lottie.destroy();
    place.style.cssText = `width:${piece.width}px;height:${piece.height}px`;
    const timeOf = lottieTime(piece, text);
    const animation = lottie.loadAnimation({
      container: place,
      renderer,
      loop: false,
      autoplay: false,
      animationData: JSON.parse(text),
    });
    return (seconds) => animation.goToAndStop(timeOf(seconds) * animation.frameRate, true);
  };

function playInCanvasKit(text: string, place: HTMLElement, piece: CompiledPiece): Seek {
  const { width, height } = piece;
  place.innerHTML = `<canvas width="${width}" height="${height}"></canvas>`;
  const surface = graphics.MakeSWCanvasSurface(place.firstElementChild as HTMLCanvasElement);
  const animation = graphics.MakeManagedAnimation(text);
  if (!surface || !animation) throw new Error('The file was not taken.');
  const timeOf = lottieTime(piece, text);
  return (seconds) => {
    const canvas = surface.getCanvas();
    canvas.clear(graphics.WHITE);
    animation.seekFrame(timeOf(seconds) * animation.fps());
    animation.render(canvas, graphics.LTRBRect(0, 0, width, height));
    surface.flush();
  };
}

/** How a form is written, by its id. */
const FILES: Readonly<Record<string, (piece: CompiledPiece) => string>> = {
  'animated-svg': (piece) => writeAnimatedSvg(piece, { digits: 3 }),
  css: (piece) => writeCssSvg(piece, { digits: 3 }),
  lottie: (piece) => writeLottie(piece, { digits: 3 }),
};

/** What plays a file: puts it into the page, and tells how to come to a time of it. */
const PLAYERS: Readonly<Record<string, (text: string, place: HTMLElement, piece: CompiledPiece) => Seek>> = {
  'animated-svg': playSvg,
  css: playCss,
  // Made smaller by a program that knows nothing of animation.
  'animated-svg, optimised': (text, place) => playSvg(optimised(text), place),
  'css, optimised': (text, place) => playCss(optimised(text), place),
  lottie: playInCanvasKit,
  'lottie, in lottie-web': playLottieWeb('svg'),
  'lottie, in lottie-web on canvas': playLottieWeb('canvas'),
};

/** What became of a piece in a form. */
export interface Loaded {
  /** What of the piece the form refuses; where that is nothing, the file is there. */
  readonly refused: readonly string[];
  /** What the program's own proof says of the file. */
  readonly proof: string;
}

Object.assign(window, {
  loadPiece(piece: Piece, player: string): Loaded {
    compiled = planAndCompile(piece);
    const form = player.replace(/,.*/, '') as FormId;
    const refused = refusalsOf(form, featuresOf(piece, compiled)).map(({ feature }) => feature);
    stage.show(compiled);
    const { width, height } = compiled;
    document.body.innerHTML = `<canvas width="${width}" height="${height}"></canvas><div></div>`;
    if (refused.length > 0) return { refused, proof: 'refused' };
    const text = FILES[form](compiled);
    seek = PLAYERS[player](text, document.querySelector('div') as HTMLElement, compiled);
    const { holds, lines } = proveText(form, [{ name: '', text }], compiled, { digits: '3' });
    const off = lines.find(({ what }) => what === 'Largest deviation')?.found ?? 'none';
    return { refused, proof: holds ? off : `${off}, fails` };
  },
  /** A Lottie file by somebody else: as it was read, beside the usual player of such files. Its length in s, and what was left out. */
  loadFile(
    text: string,
  ): { readonly length: number; readonly notes: readonly string[] } | { readonly refused: string } {
    let ids = 0;
    try {
      const { piece, notes } = readMovingFile(text, { id: 'f', name: 'File', newId: (prefix) => `${prefix}${++ids}` });
      const { w, h, ip, op, fr } = JSON.parse(text);
      // The player shows the file's own canvas, whatever the program made of it.
      compiled = planAndCompile(piece);
      stage.show(compiled);
      document.body.innerHTML = `<canvas width="${piece.canvas.width}" height="${piece.canvas.height}"></canvas><div></div>`;
      const place = document.querySelector('div') as HTMLElement;
      place.style.cssText = `width:${w}px;height:${h}px`;
      lottie.destroy();
      const animation = lottie.loadAnimation({
        container: place,
        renderer: 'svg',
        loop: false,
        autoplay: false,
        animationData: JSON.parse(text),
      });
      seek = (seconds) => animation.goToAndStop(seconds * fr, true);
      return { length: (op - ip) / fr, notes };
    } catch (error) {
      return { refused: (error as Error).message };
    }
  },
  showAt(seconds: number): void {
    const canvas = document.querySelector('canvas');
    const context = canvas?.getContext('2d');
    if (context) stage.paint(context, seconds, { x: 0, y: 0, zoom: 1 }, 1);
    seek(seconds);
  },
});
