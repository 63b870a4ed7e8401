export type {
  DrawerShape,
  KeptAsset,
  KeptEasing,
  LoadedPiece,
  PieceSummary,
  Problem,
  SavedPiece,
} from './answers';
