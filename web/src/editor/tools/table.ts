import type { ToolId } from '../../state';
import type { EditTarget } from '../scene/scene';
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
  /** What it does with what is there, in a sentence for the status line. */
  readonly help: (look: ToolLook) => string;
  readonly create: (context: ToolContext) => Tool;
}

/** What there is for a tool to work on. */
export interface ToolLook {
  readonly figures: number;
  readonly targets: readonly EditTarget[];
}

const EMPTY = 'The piece is empty: drop SVG files, or take Shape, Draw or Text.';
const locked = ({ targets }: ToolLook): boolean => targets.some(({ figure }) => figure.locked);

function selectHelp(look: ToolLook): string {
  const { figures, targets } = look;
  if (figures === 0) return EMPTY;
  if (targets.length === 0) return 'Click to choose, drag round several.';
  if (locked(look)) return 'It is locked: it can be chosen, but not moved.';
  if (targets.length > 1) return 'Drag to move them together, ⇧ click to add or take off.';
  const [{ parts, targets: chosen }] = targets;
  const further = parts.length > 1 && chosen.length === parts.length ? ' Click again for a part.' : '';
  const [part] = chosen;
  const onto =
    part?.source?.kind === 'glyph'
      ? 'Its letters are under Outline.'
      : `Double-click for its ${part?.source ? 'handles' : 'points'}.`;
  return `Drag to move, or by its handles to scale and rotate.${further} ${onto}`;
}

function pointsHelp(look: ToolLook): string {
  const { figures, targets } = look;
  if (figures === 0) return EMPTY;
  if (targets.length === 0) return 'Click what is to show its points.';
  if (locked(look)) return 'It is locked: its points cannot be moved.';
  const parts = targets.flatMap(({ targets: chosen }) => chosen);
  if (parts.every(({ source }) => source?.kind === 'glyph'))
    return 'Letters have no points while they are text: “Make points of it” is under Outline.';
  if (parts.every(({ source }) => source)) return 'Drag its handles; “Make points of it” under Outline makes it free.';
  return 'Drag points. Double-click the outline for another point.';
}

/** All tools: buttons, shortcuts, help and the tools themselves come from here. */
export const TOOL_TABLE: Readonly<Record<ToolId, ToolRow>> = {
  select: {
    label: 'Select',
    word: 'Select',
    key: 's',
    help: selectHelp,
    create: createSelectTool,
  },
  points: {
    label: 'Points',
    word: 'Points',
    key: 'p',
    help: pointsHelp,
    create: createPointsTool,
  },
  draw: {
    label: 'Draw',
    word: 'Draw',
    key: 'd',
    help: () => 'Click for corners, drag for curves. The first point closes, Enter ends.',
    create: createDrawTool,
  },
  shape: {
    label: 'Adjustable shape',
    word: 'Shape',
    key: 'a',
    help: () => 'Press, or drag it out: ⇧ keeps sides equal, Alt draws from the middle.',
    create: createShapeTool,
  },
  text: { label: 'Text', word: 'Text', key: 't', help: () => 'Click where the text begins.', create: createTextTool },
  cut: {
    label: 'Split',
    word: 'Split',
    key: 'c',
    help: (look) =>
      look.targets.length === 0
        ? look.figures === 0
          ? EMPTY
          : 'First choose what to split, with Select.'
        : locked(look)
          ? 'It is locked and cannot be split.'
          : 'Drag a line across what is chosen.',
    create: createCutTool,
  },
  colour: {
    label: 'Pick colour',
    word: 'Pick colour',
    key: 'e',
    help: ({ figures, targets }) =>
      figures === 0
        ? EMPTY
        : targets.length === 0
          ? 'Click a colour of the picture: it becomes the next one used.'
          : 'Click a colour of the picture for what is chosen.',
    create: createColourTool,
  },
};

/** All tools of a drawing, by id. */
export const createTools = (context: ToolContext): Readonly<Record<ToolId, Tool>> =>
  Object.fromEntries(Object.entries(TOOL_TABLE).map(([id, { create }]) => [id, create(context)])) as Record<
    ToolId,
    Tool
  >;
