import type { ToolId } from '../../state';
import { createDrawTool } from './draw-tool';
import { createPointsTool } from './points-tool';
import { createSelectTool } from './select-tool';
import { createShapeTool } from './shape-tool';
import { createColourTool, createCutTool, createTextTool } from './small-tools';
import type { Tool, ToolBench } from './tool';

/** All tools of a bench, by id. */
export const createTools = (bench: ToolBench): Readonly<Record<ToolId, Tool>> => ({
  select: createSelectTool(bench),
  points: createPointsTool(bench),
  draw: createDrawTool(bench),
  shape: createShapeTool(bench),
  text: createTextTool(bench),
  cut: createCutTool(bench),
  colour: createColourTool(bench),
});

export type { PenColours } from './tool';
