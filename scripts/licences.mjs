// Writes docs/licences.md: the packages and fonts that ship with the program, with their licences. node scripts/licences.mjs [--check]
import fs from 'node:fs';
import { ROOT } from './install.mjs';

const FILE = `${ROOT}docs/licences.md`;
const { packages } = JSON.parse(fs.readFileSync(`${ROOT}package-lock.json`, 'utf8'));

/** A licence as a package says it: one name, or the older ways of saying it. */
function licenceOf({ license, licenses }) {
  if (typeof license === 'string') return license;
  if (license?.type) return license.type;
  return Array.isArray(licenses) ? licenses.map(({ type }) => type).join(' or ') : 'not said';
}

// What is installed for development only, or only on some machines, does not ship.
const shipped = Object.entries(packages)
  .filter(([path, { dev, optional, devOptional }]) => path !== '' && !dev && !optional && !devOptional)
  .map(([path]) => JSON.parse(fs.readFileSync(`${ROOT}${path}/package.json`, 'utf8')));
const rows = new Map();
for (const each of shipped)
  rows.set(`${each.name} ${each.version}`, `| ${each.name} | ${each.version} | ${licenceOf(each)} |`);
const isFont = (name) => name.startsWith('@fontsource');
const list = (fonts) =>
  [...rows]
    .filter(([name]) => isFont(name) === fonts)
    .sort(([p], [q]) => (p < q ? -1 : 1))
    .map(([, row]) => row)
    .join('\n');
const text = `# Licences of what ships

Made by \`node scripts/licences.mjs\` from the packages that are installed. Packages for development are left out.

## Fonts

| package | version | licence |
| --- | --- | --- |
${list(true)}

## Packages

| package | version | licence |
| --- | --- | --- |
${list(false)}
`;
if (process.argv.includes('--check')) {
  if (fs.existsSync(FILE) && fs.readFileSync(FILE, 'utf8') === text) process.exit(0);
  console.error('docs/licences.md does not fit the packages: run node scripts/licences.mjs');
  process.exit(1);
}
fs.writeFileSync(FILE, text);
