import type { ToolId } from '../../state';
import { createDrawTool } from './draw-tool';
import { createPointsTool } from './points-tool';
import { createSelectTool } from './select-tool';
import { createShapeTool } from './shape-tool';
import { createColourTool, createCutTool, createTextTool } from './small-tools';
import type { Tool, ToolContext } from './tool';

/** All tools of a drawing, by id. */
export const createTools = (drawing: ToolContext): Readonly<Record<ToolId, Tool>> => ({
  select: createSelectTool(drawing),
  points: createPointsTool(drawing),
  draw: createDrawTool(drawing),
  shape: createShapeTool(drawing),
  text: createTextTool(drawing),
  cut: createCutTool(drawing),
  colour: createColourTool(drawing),
});

export type { PenColours } from './tool';
