import type { ToolId } from '../../state';

/** What a tool does, in a sentence for the status line. */
export const TOOL_HELP: Record<ToolId, string> = {
  select: 'Click to choose, again for a part. Drag to move. Double-click for points.',
  points: 'Drag points. Double-click the outline for another point.',
  draw: 'Click for corners, drag for curves. The first point closes, Enter ends.',
  shape: 'Drag it out. ⇧ keeps sides equal, Alt draws from the middle.',
  text: 'Click where the text begins.',
  cut: 'Drag a line across what is chosen.',
  colour: 'Click a colour of the picture.',
};
