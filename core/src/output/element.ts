import type { CompiledPiece } from '../frame';
import { type AnimatedSvgOptions, writeAnimatedSvg } from './animated-svg';
import type { OutputFile } from './output-file';
import { PLAYER } from './runtime/runtime.generated';
import { escapeText } from './tree/svg-text';

export interface ElementOptions extends Pick<AnimatedSvgOptions, 'digits' | 'title'> {
  /** Base name of the files. Default: piece. */
  readonly fileName?: string;
}

/** The name of the custom element, and of its file. */
export const ELEMENT_NAME = 'moving-piece';

/**
 * A piece for a custom element. It consists of the animated SVG as data, the player (one module for any number of pieces), and a page that shows how
 * it is played, paused, sought by a slider and sped up.
 *
 * @returns the player first
 */
export function writeElement(compiled: CompiledPiece, options: ElementOptions = {}): OutputFile[] {
  const { fileName = 'piece', digits, title } = options;
  const svg = writeAnimatedSvg(compiled, { digits, title, timed: true });
  return [
    { name: `${ELEMENT_NAME}.js`, text: PLAYER },
    { name: `${fileName}.svg`, text: svg },
    { name: 'example.html', text: example(fileName, title ?? fileName, svg) },
  ];
}

/** Opened as a file a page may not fetch its neighbours: the example carries the picture in a template; a served page would name it in `src`. */
const example = (fileName: string, title: string, svg: string): string => `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>${escapeText(title)}</title>
<!-- On a served page: <${ELEMENT_NAME} src="${fileName}.svg" autoplay></${ELEMENT_NAME}> and <script type="module" src="${ELEMENT_NAME}.js"></script> -->
<${ELEMENT_NAME} autoplay label="${escapeText(title)}"><template>${svg}</template></${ELEMENT_NAME}>
<p><button id="play">Play</button> <button id="pause">Pause</button> <input id="progress" type="range" min="0" max="1" step="0.001" value="0" aria-label="Progress"></p>
<script type="module">
${PLAYER}
const piece = document.querySelector('${ELEMENT_NAME}');
document.getElementById('play').addEventListener('click', () => piece.play());
document.getElementById('pause').addEventListener('click', () => piece.pause());
document.getElementById('progress').addEventListener('input', (event) => {
  piece.pause();
  piece.progress = Number(event.target.value);
});
</script>
</html>
`;
