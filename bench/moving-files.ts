// How long files that move take to be read, and how much larger what comes back is: tsx bench/moving-files.ts examples.
import { checkPiece, makeTextFiles, movingFileOf, planAndCompile, readMovingFile, TEXT_FORMS } from '../core/src/index';
import { DEMO_PIECES } from '../server/src/demo/pieces';

const only = process.argv[2] ?? '';
for (const make of DEMO_PIECES) {
  const piece = checkPiece(make());
  const source = { piece, compiled: planAndCompile(piece) };
  for (const form of TEXT_FORMS) {
    if (!`${piece.name} ${form.id}`.includes(only)) continue;
    let text = '';
    try {
      [{ text }] = makeTextFiles(form, source, {});
    } catch (error) {
      console.log(piece.name, form.id, 'not made', (error as Error).message);
      continue;
    }
    if (!movingFileOf(text)) continue;
    let n = 0;
    const cpu = process.cpuUsage();
    let outcome = '';
    try {
      const read = readMovingFile(text, { id: 'r', name: 'r', newId: (p) => `${p}${++n}` });
      const back = read.piece;
      outcome = `${Object.keys(back.figures).length} figures, ${Object.keys(back.poses).length} poses (of ${Object.keys(piece.figures).length}, ${Object.keys(piece.poses).length}), ${(JSON.stringify(back).length / JSON.stringify(piece).length).toFixed(1)} times the piece`;
    } catch (error) {
      outcome = (error as Error).message;
    }
    const { user, system } = process.cpuUsage(cpu);
    console.log(
      `${piece.name.padEnd(16)} ${form.id.padEnd(14)} ${(text.length / 1000).toFixed(0).padStart(6)} kB ${((user + system) / 1e6).toFixed(2).padStart(7)} s: ${outcome}`,
    );
  }
}
