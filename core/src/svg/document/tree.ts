import { SaxesParser } from 'saxes';
import { CoreError } from '../../errors';

/** One element of a read SVG, with what the reader may use of it. */
export interface SvgNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: SvgNode[];
  /** Text inside, kept for style sheets only. */
  text: string;
  readonly line: number;
  /** Characters of its attributes: what it costs to read it. */
  readonly size: number;
}

/** A file longer than this is refused before reading. */
export const SVG_BYTE_LIMIT = 8 * 1024 * 1024;
const ELEMENT_LIMIT = 50_000;
const DEPTH_LIMIT = 200;
/** Elements that are never read, with all that is inside them. Scripts and foreign content among them: they cannot get in. */
const DROPPED = new Set([
  'script',
  'foreignObject',
  'iframe',
  'object',
  'embed',
  'audio',
  'video',
  'handler',
  'metadata',
]);
/** Characters between two reports of progress. */
const CHUNK = 64 * 1024;
const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';

export interface SvgTree {
  readonly root: SvgNode;
  /** Names of dropped elements and handler attributes, with how often they came. */
  readonly dropped: ReadonlyMap<string, number>;
}

/**
 * Parses SVG text into a plain tree. The parser expands no entities but the five of XML, fetches nothing and runs nothing; a document
 * type with an internal subset (where entities are declared) is refused.
 *
 * @throws CoreError 'file-too-large', 'svg-unsafe', 'svg-syntax', 'svg-not-svg'
 */
export function parseSvgTree(text: string, onProgress?: (share: number) => void): SvgTree {
  if (text.length > SVG_BYTE_LIMIT) {
    throw new CoreError(
      'file-too-large',
      `Expected an SVG of at most ${SVG_BYTE_LIMIT / 1024 / 1024} MB; this one has ${(text.length / 1024 / 1024).toFixed(1)} MB.`,
    );
  }
  if (!/<\s*(?:[\w.-]+:)?svg[\s>/]/i.test(text.slice(0, 65_536)) && !text.includes('<svg')) {
    const start = text.trim().slice(0, 24).replace(/\s+/g, ' ');
    throw new CoreError(
      'svg-not-svg',
      `Expected an SVG with an <svg> element; found ${start ? `text that begins “${start}”` : 'nothing'}.`,
    );
  }
  const parser = new SaxesParser({ xmlns: true, position: true });
  const stack: SvgNode[] = [];
  const dropped = new Map<string, number>();
  let root: SvgNode | undefined;
  let skipping = 0;
  let elements = 0;
  const drop = (what: string): void => void dropped.set(what, (dropped.get(what) ?? 0) + 1);

  parser.on('doctype', (doctype) => {
    if (doctype.includes('[') && /<!ENTITY/i.test(doctype)) {
      throw new CoreError(
        'svg-unsafe',
        `Expected an SVG without declared entities; this one declares some in its document type (line ${parser.line}). They can hide files or explode in size, so the file was not read.`,
        `line ${parser.line}`,
      );
    }
  });
  parser.on('opentag', (tag) => {
    if (++elements > ELEMENT_LIMIT) {
      throw new CoreError(
        'file-too-large',
        `Expected at most ${ELEMENT_LIMIT.toLocaleString('en')} elements; this SVG has more (line ${parser.line}).`,
        `line ${parser.line}`,
      );
    }
    // What is skipped counts too: names are looked up through all elements around.
    if (stack.length + skipping >= DEPTH_LIMIT) {
      throw new CoreError(
        'svg-syntax',
        `Expected elements nested at most ${DEPTH_LIMIT} deep; this SVG goes deeper (line ${parser.line}).`,
        `line ${parser.line}`,
      );
    }
    if (skipping > 0) {
      skipping++;
      return;
    }
    const foreign = tag.uri !== SVG_NAMESPACE && tag.uri !== '';
    if (foreign || DROPPED.has(tag.local)) {
      // Editors leave data of their own in other namespaces; only what could have acted is worth telling.
      if (!foreign && tag.local !== 'metadata') drop(`<${tag.local}>`);
      skipping = 1;
      return;
    }
    const attributes: Record<string, string> = Object.create(null);
    let size = 0;
    for (const attribute of Object.values(tag.attributes)) {
      if (/^on/i.test(attribute.local)) drop(`${attribute.local}=…`);
      else if (attribute.uri === '' || attribute.local === 'href') {
        attributes[attribute.local] = attribute.value;
        size += attribute.value.length;
      }
    }
    const node: SvgNode = { name: tag.local, attributes, children: [], text: '', line: parser.line, size };
    if (stack.length > 0) stack[stack.length - 1].children.push(node);
    else root ??= node;
    if (!tag.isSelfClosing) stack.push(node);
  });
  parser.on('closetag', (tag) => {
    if (skipping > 0) skipping--;
    else if (!tag.isSelfClosing) stack.pop();
  });
  const onText = (part: string): void => {
    const top = stack[stack.length - 1];
    if (skipping === 0 && top?.name === 'style') top.text += part;
  };
  parser.on('text', onText);
  parser.on('cdata', onText);
  parser.on('error', (error) => {
    throw new CoreError(
      'svg-syntax',
      `The SVG is not well-formed: ${error.message.replace(/^\d+:\d+:\s*/, '')} (line ${parser.line}, column ${parser.column}).`,
      `line ${parser.line}`,
    );
  });
  const plain = text.replace(/^\uFEFF/, '');
  for (let at = 0; at < plain.length; at += CHUNK) {
    parser.write(plain.slice(at, at + CHUNK));
    onProgress?.(Math.min(1, (at + CHUNK) / plain.length));
  }
  parser.close();
  if (root?.name !== 'svg') {
    throw new CoreError(
      'svg-not-svg',
      `Expected <svg> as the outermost element; found ${root ? `<${root.name}>` : 'none'}.`,
    );
  }
  return { root, dropped };
}
