import { useEffect, useMemo, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate, useParams } from 'react-router';
import type { OpenPiece } from '../../context';
import { COMMANDS, type Command, type CommandContext } from '../../editor';

const HANDLED: readonly Command[] = COMMANDS.filter((command: Command) => !command.native);
const DRAWING_TOOLS: readonly string[] = ['tool-draw', 'tool-shape', 'tool-text', 'shape-before'];
const ALL_KEYS = HANDLED.flatMap((command) => [...command.keys]);

/** Feeds the keyboard from the command table, except where somebody types. */
export function useShortcuts({ editor, autosave }: OpenPiece): CommandContext {
  const navigate = useNavigate();
  const { id = '' } = useParams();
  const context = useMemo<CommandContext>(
    () => ({ editor, openRoom: (room) => void navigate(`/piece/${id}/${room}`), saveNow: () => autosave.now() }),
    [editor, autosave, navigate, id],
  );
  const pressed = useRef<Node | null>(null);
  useEffect(() => {
    const controller = new AbortController();
    const options = { capture: true, signal: controller.signal };
    window.addEventListener('pointerdown', ({ target }) => void (pressed.current = target as Node | null), options);
    window.addEventListener('keydown', ({ key }) => key === 'Tab' && void (pressed.current = null), options);
    return () => controller.abort();
  }, []);
  useHotkeys(
    ALL_KEYS,
    (event, hotkey) => {
      const command = HANDLED.find((candidate) => candidate.keys.includes(hotkey.hotkey));
      if (!command || event.defaultPrevented) return;
      const { sheetOpen } = editor.store.getState().session;
      // The key that opened the sheet closes it.
      if ((inFront() && !(sheetOpen && command.id === 'sheet')) || belongsToFocus(event, pressed.current)) return;
      event.preventDefault();
      if (!command.isEnabled(editor.store.getState())) return;
      command.run(context);
      // Who takes a drawing tool by its key goes on by keys.
      const canvas = document.querySelector<HTMLElement>('.canvas-pane.drawing');
      if (!canvas || !DRAWING_TOOLS.includes(command.id)) return;
      canvas.focus();
      editor.drawing.keyPointer.show();
    },
    { enableOnFormTags: true },
    [context, editor],
  );
  return context;
}

/** Is something open over the room that has the keyboard to itself: a dialog, a list or a picker? */
const inFront = (): boolean =>
  document.querySelector('.modal.show, .dropdown-menu.show, [role="dialog"], [role="alertdialog"]') !== null;

const TYPED =
  'input:not([type="radio"]):not([type="checkbox"]):not([type="color"]):not([type="file"]):not([type="range"]), textarea, [contenteditable="true"]';
const PRESSED = 'button, [role="button"], summary, label, a, input:not([type="range"])';
const CHOSEN_BY_TYPING = 'select, [role="listbox"], [role="combobox"], [role="menu"], [role="tree"]';
const STEPPED = 'input, select, [role="slider"], [role="menu"], [role="listbox"]';

/** A row that was taken and is being moved has all keys to itself. */
const CARRIED = '[aria-roledescription="sortable"][aria-pressed="true"]';

/** Does the key mean something to the element that has the focus? Then it is not a shortcut. `pressed` is what the pointer pressed last. */
function belongsToFocus(event: KeyboardEvent, pressed: Node | null): boolean {
  const focused = event.target;
  if (!(focused instanceof Element)) return false;
  if (focused.closest(TYPED) || focused.closest(CARRIED)) return true;
  // A list is chosen from by typing: letters and digits are its own.
  const plain = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey;
  if (plain && focused.closest(CHOSEN_BY_TYPING)) return true;
  // What was pressed with the pointer has the focus by the way: Space plays. Who came by Tab presses it.
  if (event.key === ' ' && pressed && focused.contains(pressed)) return focused.closest('select') !== null;
  if (event.key === ' ' || event.key === 'Enter') return focused.closest(`${PRESSED}, select`) !== null;
  if (event.key.startsWith('Arrow')) return focused.closest(STEPPED) !== null;
  return false;
}
