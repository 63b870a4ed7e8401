import type { EditTarget } from '../editor';
import { selectPiece, selectSelection, useAppSelector } from '../state';
import { useEditor } from './editor';

/** What is worked on; renders again when the piece, the selection or the finer choice changes. */
export function useTargets(): readonly EditTarget[] {
  const editor = useEditor();
  useAppSelector(selectPiece);
  useAppSelector(selectSelection);
  useAppSelector((state) => state.drawing.also);
  useAppSelector((state) => state.drawing.parts);
  return editor.drawing.look().targets;
}
