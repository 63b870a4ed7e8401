export type {
  DrawerShape,
  KeptAsset,
  KeptEasing,
  LoadedPiece,
  PieceSummary,
  Problem,
  SavedPiece,
} from './answers';
export { SITE_KINDS, SITE_SLOTS, type SiteKind, type SiteSlot } from './site';
