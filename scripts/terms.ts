// Makes the list of the interface's terms, one line each, out of the tables of the code: tsx scripts/terms.ts [--check]
import fs from 'node:fs';
import { EASING_PRESETS, TEXT_FORMS } from '../core/src/index';
import { LANE_KIND_IDS, laneKind } from '../core/src/lane';
import { DECISIONS } from '../core/src/piece';
import { METHOD_CHOICES } from '../web/src/panels/methods';

type Term = readonly [label: string, about: string];
const ended = (text: string): string => (/[.!?]$/.test(text) ? text : `${text}.`);
const section = (title: string, terms: readonly Term[]): string =>
  `## ${title}\n\n| term | what it means |\n| --- | --- |\n${terms.map(([label, about]) => `| ${label} | ${ended(about)} |`).join('\n')}\n`;

const text = [
  '# Terms of the interface\n\nMade from the tables of the code by `scripts/terms.ts`. Do not edit.\n',
  section(
    'Lanes',
    LANE_KIND_IDS.map((id): Term => [laneKind(id).words.label, laneKind(id).words.about]),
  ),
  section(
    'Easings',
    EASING_PRESETS.map(({ label, hint }): Term => [label, hint]),
  ),
  section(
    'Methods of a shift',
    METHOD_CHOICES.map(({ label, hint }): Term => [label, hint]),
  ),
  ...Object.values(DECISIONS).flatMap((row) =>
    'answers' in row && row.answers
      ? [
          section(
            `${row.question}`,
            row.answers.map(({ label, hint }): Term => [label, hint ?? '']),
          ),
        ]
      : [],
  ),
  section(
    'Files of text',
    TEXT_FORMS.map(({ label, about }): Term => [label, about]),
  ),
].join('\n');

const FILE = new URL('../docs/terms.md', import.meta.url);
if (!process.argv.includes('--check')) fs.writeFileSync(FILE, text);
else if (fs.readFileSync(FILE, 'utf8') !== text) {
  console.error('docs/terms.md is not what it is made from: run npx tsx scripts/terms.ts');
  process.exit(1);
}
