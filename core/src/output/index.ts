export { type AnimatedSvgOptions, writeAnimatedSvg } from './animated-svg';
export { CLIP_UNITS, type ClipPathOptions, writeClipPath } from './clip-path';
export { type CodeModuleOptions, MODULE_INPUTS, writeCodeModule } from './code-module';
export { type CssOptions, writeCssSvg } from './css-svg';
export {
  type AnimatedDocument,
  type DrawnElement,
  readAnimatedDocument,
  type Track,
} from './document/animated-document';
export { readFrameCsv, readFrameJson } from './document/frames-document';
export { readLottieDocument } from './document/lottie-document';
export { ELEMENT_NAME, type ElementOptions, writeElement } from './element';
export { figureNames } from './figure-names';
export { baseNameOf } from './forms/base-name';
export * from './forms/form-options';
export * from './forms/text-forms';
export { type FrameDataOptions, frameTimes, writeFrameCsv, writeFrameJson } from './frame-data';
export { type LottieOptions, writeLottie } from './lottie/write-lottie';
export * from './matrix';
export type { OutputFile } from './output-file';
export { type Comparison, comparePainted } from './proof/compare';
export { type Painted, paintedOfFrame, proofTimes } from './proof/painted';
export { type Proof, type ProofLine, proveText } from './proof/prove-text';
export { MOST_FILE_BYTES, MOVING_FILES, type MovingFile, movingFileOf, readMovingFile } from './reading/moving-file';
export type { ReadPiece, ReadPieceOptions } from './reading/piece-of-drawing';
export { PLAYER } from './runtime/runtime.generated';
export * from './still-svg';
