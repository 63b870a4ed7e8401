import fs from 'node:fs';
import path from 'node:path';

/** A filled icon of an open icon package: path data in a 24 × 24 box. */
export interface Icon {
  readonly name: string;
  readonly d: string;
  readonly svg: string;
}

function* walk(folder: string): Generator<string> {
  for (const entry of fs.readdirSync(folder, { withFileTypes: true }).sort((p, q) => (p.name < q.name ? -1 : 1))) {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) yield* walk(at);
    else if (entry.name.endsWith('.svg')) yield at;
  }
}

/** Every n-th single-path icon of remixicon (Apache 2.0), in the order of their names, at most `count`. */
export function realIcons(count: number, every = 7): Icon[] {
  const folder = path.join(process.cwd(), 'node_modules/remixicon/icons');
  const icons: Icon[] = [];
  let seen = 0;
  for (const file of walk(folder)) {
    const svg = fs.readFileSync(file, 'utf8');
    const paths = [...svg.matchAll(/<path[^>]*?\sd="([^"]+)"/g)].map((match) => match[1]);
    if (paths.length !== 1 || seen++ % every !== 0) continue;
    icons.push({ name: path.basename(file, '.svg'), d: paths[0], svg });
    if (icons.length === count) break;
  }
  return icons;
}
