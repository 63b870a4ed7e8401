export * from './arc';
export * from './document/read-svg';
export { StyleRules } from './document/style';
export { cssTransform, readTransform } from './document/transform';
export type { SvgNode } from './document/tree';
export { looksLikeSvg, pastedSvg } from './pasted-svg';
export * from './path-data-reader';
export * from './path-data-writer';
