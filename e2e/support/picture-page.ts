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

/** Runs in the browser: one piece painted by the program's own stage, and as files played by several players, side by side. */
const stage = new Stage((width, height) => new OffscreenCanvas(width, height).getContext('2d') ?? undefined);
let compiled: CompiledPiece | null = null;
let seeks: readonly Seek[] = [];

/** What stands in a place is a block, so that no line of text has room below it. */
const PLAIN = '<style>:host{display:block}svg,canvas{display:block}</style>';

/** A box as large as the piece, for a player that fills what it is given. */
function boxIn(place: Place, { width, height }: CompiledPiece): HTMLElement {
  place.innerHTML = `${PLAIN}<div style="width:${width}px;height:${height}px"></div>`;
  return place.querySelector('div') as HTMLElement;
}

const optimised = (text: string): string => optimize(text, { multipass: true }).data;

type Seek = (seconds: number) => void;

/** Each player has a place of its own: a shadow tree, so that neither names nor styles of two files meet. */
type Place = ShadowRoot;
const svgIn = (place: Place): SVGSVGElement => place.querySelector('svg') as SVGSVGElement;

function playSvg(text: string, place: Place): Seek {
  place.innerHTML = `${PLAIN}${text}`;
  svgIn(place).pauseAnimations();
  return (seconds) => svgIn(place).setCurrentTime(seconds);
}

function playCss(text: string, place: Place): Seek {
  place.innerHTML = `${PLAIN}${text}`;
  svgIn(place).pauseAnimations();
  return (seconds) => {
    for (const animation of place.getAnimations()) {
      animation.pause();
      animation.currentTime = 1000 * seconds;
    }
    svgIn(place).setCurrentTime(seconds);
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
  (text: string, place: Place, piece: CompiledPiece): Seek => {
    const timeOf = lottieTime(piece, text);
    const animation = lottie.loadAnimation({
      container: boxIn(place, piece),
      renderer,
      loop: false,
      autoplay: false,
      animationData: JSON.parse(text),
    });
    return (seconds) => animation.goToAndStop(timeOf(seconds) * animation.frameRate, true);
  };

function playInCanvasKit(text: string, place: Place, piece: CompiledPiece): Seek {
  const { width, height } = piece;
  place.innerHTML = `${PLAIN}<canvas width="${width}" height="${height}"></canvas>`;
  const surface = graphics.MakeSWCanvasSurface(place.querySelector('canvas') as HTMLCanvasElement);
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
const PLAYERS: Readonly<Record<string, (text: string, place: Place, piece: CompiledPiece) => Seek>> = {
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

/** How far a file is off, by the program's own proof. */
function proofOf(form: FormId, text: string, piece: CompiledPiece): string {
  const { holds, lines } = proveText(form, [{ name: '', text }], piece, { digits: '3' });
  const off = lines.find(({ what }) => what === 'Largest deviation')?.found ?? 'none';
  return holds ? off : `${off}, fails`;
}

Object.assign(window, {
  /** Puts the painted piece first, and after it each player's picture, in the order of `players`. */
  loadPiece(piece: Piece, players: readonly string[]): readonly Loaded[] {
    const now = planAndCompile(piece);
    compiled = now;
    stage.show(now);
    if ('lottie' in globalThis) lottie.destroy();
    const { width, height } = now;
    document.body.innerHTML = `<canvas width="${width}" height="${height}"></canvas>`;
    const files = new Map<FormId, { text: string; loaded: Loaded }>();
    const fileOf = (form: FormId): { text: string; loaded: Loaded } => {
      let file = files.get(form);
      if (!file) {
        const refused = refusalsOf(form, featuresOf(piece, now)).map(({ feature }) => feature);
        const text = refused.length > 0 ? '' : FILES[form](now);
        file = { text, loaded: { refused, proof: text ? proofOf(form, text, now) : 'refused' } };
        files.set(form, file);
      }
      return file;
    };
    const made: Seek[] = [];
    const loaded = players.map((player) => {
      const file = fileOf(player.replace(/,.*/, '') as FormId);
      const host = document.createElement('div');
      host.style.cssText = `width:${width}px;height:${height}px;overflow:hidden`;
      document.body.append(host);
      if (file.text) made.push(PLAYERS[player](file.text, host.attachShadow({ mode: 'open' }), now));
      return file.loaded;
    });
    seeks = made;
    return loaded;
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
      seeks = [(seconds) => animation.goToAndStop(seconds * fr, true)];
      return { length: (op - ip) / fr, notes };
    } catch (error) {
      return { refused: (error as Error).message };
    }
  },
  showAt(seconds: number): void {
    const canvas = document.querySelector('canvas');
    const context = canvas?.getContext('2d');
    if (context) stage.paint(context, seconds, { x: 0, y: 0, zoom: 1 }, 1);
    for (const seek of seeks) seek(seconds);
  },
});
