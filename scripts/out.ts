import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import {
  CoreError,
  makeTextFiles,
  type OutputField,
  type OutputFile,
  planAndCompile,
  readPieceFile,
  TEXT_FORMS,
  type TextForm,
} from '../core/src/index';

/** 0: made; 1: refused, with the reason on the standard error; 2: not called as it wants to be. */
const [MADE, REFUSED, MISCALLED] = [0, 1, 2];

const ALIASES: Readonly<Record<string, string>> = { svg: 'animated-svg', still: 'still-svg', json: 'path-data' };
const formOf = (id: string): TextForm | undefined => TEXT_FORMS.find((form) => form.id === (ALIASES[id] ?? id));

const answersOf = (field: OutputField): string => {
  switch (field.kind) {
    case 'choice':
      return field.answers.map(({ value }) => value).join(' | ');
    case 'switch':
      return 'yes | no';
    case 'number':
      return `${field.least} to ${field.most} ${field.unit}`.trim();
    case 'figure':
      return 'id of a figure';
    case 'colour':
      return '#rrggbb';
  }
};

const HELP = `Takes a piece out in a form of text.

  npm run -s out -- FILE --form FORM [--set KEY=VALUE …] [--to FOLDER | --stdout] [--force]

  FILE       a piece file (.arcshift.json), or - for the standard input
  --form     what is made (default: svg); with an option of it:
${TEXT_FORMS.map(
  ({ id, label, fields }) =>
    `               ${id}: ${label}\n${fields
      .map((field) => `                 ${field.key} = ${answersOf(field)} (${field.otherwise || 'left out'})`)
      .join('\n')}`,
).join('\n')}
             svg, still and json stand for animated-svg, still-svg and path-data
  --set      sets an option of the form
  --to       folder for the files (default: here); it must exist
  --force    writes over files that this command did not write itself
  --stdout   writes the main file to the standard output instead
  --help     this text

Exit codes: 0 made, 1 refused, 2 not called as described.
Pictures, GIF and video are painted by a browser: take them out in the program's room Output.
`;

function miscalled(message: string): never {
  process.stderr.write(`${message}\nSee --help.\n`);
  process.exit(MISCALLED);
}

function readArguments(): {
  file: string;
  form: TextForm;
  options: Record<string, string>;
  to: string;
  stdout: boolean;
  force: boolean;
} {
  let parsed: ReturnType<typeof parse>;
  try {
    parsed = parse();
  } catch (error) {
    miscalled((error as Error).message);
  }
  const { values, positionals } = parsed;
  if (values.help) {
    process.stdout.write(HELP);
    process.exit(MADE);
  }
  if (positionals.length !== 1) miscalled(`Expected one piece file; found ${positionals.length}.`);
  const form = formOf(values.form ?? 'svg');
  if (!form)
    miscalled(`Expected a form of text (${TEXT_FORMS.map(({ id }) => id).join(', ')}); found “${values.form}”.`);
  const options = Object.fromEntries(
    (values.set ?? []).map((each) => {
      const at = each.indexOf('=');
      if (at < 1) miscalled(`Expected --set KEY=VALUE; found “${each}”.`);
      return [each.slice(0, at), each.slice(at + 1)];
    }),
  );
  return {
    file: positionals[0],
    form,
    options,
    to: values.to ?? '.',
    stdout: values.stdout ?? false,
    force: values.force ?? false,
  };
}

const parse = () =>
  parseArgs({
    allowPositionals: true,
    options: {
      form: { type: 'string' },
      set: { type: 'string', multiple: true },
      to: { type: 'string' },
      stdout: { type: 'boolean' },
      force: { type: 'boolean' },
      help: { type: 'boolean', short: 'h' },
    },
  });

/** Paths are meant from where the command was called; npm runs it in the project's folder. */
const here = (name: string): string => path.resolve(process.env.INIT_CWD ?? '.', name);

/** What this command has written: the hash of each file by its path. Only such a file, as it was written, is written over unasked. */
const RECORD = path.join(process.env.ARC_SHIFT_DATA ?? path.join(import.meta.dirname, '../../data'), 'out-files.json');
const hashOf = (content: string | Buffer): string => createHash('sha256').update(content).digest('hex');

function written(): Record<string, string> {
  try {
    return Object.fromEntries(
      Object.entries(JSON.parse(fs.readFileSync(RECORD, 'utf8'))).filter(
        (entry): entry is [string, string] => typeof entry[1] === 'string',
      ),
    );
  } catch {
    return {};
  }
}

function remember(files: readonly OutputFile[], folder: string): void {
  try {
    fs.mkdirSync(path.dirname(RECORD), { recursive: true });
    const all = {
      ...written(),
      ...Object.fromEntries(files.map(({ name, text }) => [path.join(folder, name), hashOf(text)])),
    };
    fs.writeFileSync(RECORD, JSON.stringify(all));
  } catch {
    // Without it the next call asks for --force.
  }
}

/** @throws CoreError where a file is there that this command did not write, or that was changed since */
function checkFree(files: readonly OutputFile[], folder: string): void {
  if (!fs.existsSync(folder) || !fs.statSync(folder).isDirectory())
    throw new CoreError('output-refused', `Expected a folder that is there; “${folder}” is none.`);
  const own = written();
  for (const { name, text } of files) {
    const file = path.join(folder, name);
    if (!fs.existsSync(file)) continue;
    const hash = hashOf(fs.readFileSync(file));
    if (hash !== own[file] && hash !== hashOf(text))
      throw new CoreError(
        'output-refused',
        `“${file}” is there already, and this command did not write it as it is. Nothing was written; --force writes over it.`,
      );
  }
}

/** The text of a piece file. @throws CoreError for a file that cannot be read */
function textOf(file: string): string {
  try {
    return fs.readFileSync(file === '-' ? 0 : here(file), 'utf8');
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const why = code === 'ENOENT' ? 'there is none' : code === 'EISDIR' ? 'that is a folder' : 'it cannot be read here';
    throw new CoreError('output-refused', `Expected a piece file at “${here(file)}”; ${why}.`);
  }
}

/** All files or none: each is written beside its name first. */
function write(files: readonly OutputFile[], folder: string): void {
  const begun: string[] = [];
  try {
    for (const { name, text } of files) {
      const part = path.join(folder, `${name}.part`);
      begun.push(part);
      fs.writeFileSync(part, text);
    }
    for (const { name } of files) fs.renameSync(path.join(folder, `${name}.part`), path.join(folder, name));
  } catch (error) {
    for (const part of begun) fs.rmSync(part, { force: true });
    throw error;
  }
  for (const { name, text } of files)
    process.stderr.write(`${path.join(folder, name)} (${Buffer.byteLength(text)} bytes)\n`);
}

const { file, form, options, to, stdout, force } = readArguments();
try {
  const piece = readPieceFile(textOf(file));
  const files = makeTextFiles(form, { piece, compiled: planAndCompile(piece) }, options);
  if (stdout) process.stdout.write(files[0].text);
  else {
    if (!force) checkFree(files, here(to));
    write(files, here(to));
    remember(files, here(to));
  }
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(error instanceof CoreError && error.code === 'option' ? MISCALLED : REFUSED);
}
