import type { ToolId } from '../../state';
import { createDrawTool } from './draw-tool';
import { createPointsTool } from './points-tool';
import { createSelectTool } from './select-tool';
import { createShapeTool } from './shape-tool';
import { createColourTool, createCutTool, createTextTool } from './small-tools';
import type { Tool, ToolContext } from './tool';

/** What the program knows of a tool. */
interface ToolRow {
  /** In menus and on the shortcut sheet; its letter is the first of it. */
  readonly label: string;
  /** Over the canvas, where there is little room. */
  readonly word: string;
  readonly key: string;
  /** What it does, in a sentence for the status line. */
  readonly help: string;
  readonly create: (context: ToolContext) => Tool;
}

/** All tools: buttons, shortcuts, help and the tools themselves come from here. */
export const TOOL_TABLE: Readonly<Record<ToolId, ToolRow>> = {
  select: {
    label: 'Select',
    word: 'Select',
    key: 's',
    help: 'Click to choose, again for a part. Drag to move. Double-click for points.',
    create: createSelectTool,
  },
  points: {
    label: 'Points',
    word: 'Points',
    key: 'p',
    help: 'Drag points. Double-click the outline for another point.',
    create: createPointsTool,
  },
  draw: {
    label: 'Draw',
    word: 'Draw',
    key: 'd',
    help: 'Click for corners, drag for curves. The first point closes, Enter ends.',
    create: createDrawTool,
  },
  shape: {
    label: 'Adjustable shape',
    word: 'Shape',
    key: 'a',
    help: 'Drag it out. ⇧ keeps sides equal, Alt draws from the middle.',
    create: createShapeTool,
  },
  text: { label: 'Text', word: 'Text', key: 't', help: 'Click where the text begins.', create: createTextTool },
  cut: { label: 'Cut', word: 'Cut', key: 'c', help: 'Drag a line across what is chosen.', create: createCutTool },
  colour: {
    label: 'Eyedropper',
    word: 'Colour',
    key: 'e',
    help: 'Click a colour of the picture.',
    create: createColourTool,
  },
};

/** All tools of a drawing, by id. */
export const createTools = (context: ToolContext): Readonly<Record<ToolId, Tool>> =>
  Object.fromEntries(Object.entries(TOOL_TABLE).map(([id, { create }]) => [id, create(context)])) as Record<
    ToolId,
    Tool
  >;
