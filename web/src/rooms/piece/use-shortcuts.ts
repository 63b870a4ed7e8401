import { useMemo } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate, useParams } from 'react-router';
import type { OpenPiece } from '../../context';
import { COMMANDS, type Command, type CommandContext } from '../../editor';

const HANDLED: readonly Command[] = COMMANDS.filter((command: Command) => !command.native);
const ALL_KEYS = HANDLED.flatMap((command) => [...command.keys]);

/** Feeds the keyboard from the command table, except where somebody types. */
export function useShortcuts({ editor, autosave }: OpenPiece): CommandContext {
  const navigate = useNavigate();
  const { id = '' } = useParams();
  const context = useMemo<CommandContext>(
    () => ({ editor, openRoom: (room) => void navigate(`/piece/${id}/${room}`), saveNow: () => autosave.now() }),
    [editor, autosave, navigate, id],
  );
  useHotkeys(
    ALL_KEYS,
    (event, hotkey) => {
      const command = HANDLED.find((candidate) => candidate.keys.includes(hotkey.hotkey));
      if (!command || event.defaultPrevented) return;
      const { sheetOpen } = editor.store.getState().session;
      // An open dialog has the keyboard to itself.
      if ((sheetOpen && command.id !== 'sheet') || belongsToFocus(event)) return;
      event.preventDefault();
      if (command.isEnabled(editor.store.getState())) command.run(context);
    },
    { enableOnFormTags: true },
    [context, editor],
  );
  return context;
}

const TYPED =
  'input:not([type="radio"]):not([type="checkbox"]):not([type="color"]):not([type="file"]):not([type="range"]), textarea, [contenteditable="true"]';
const PRESSED = 'button, [role="button"], summary, label, a, input:not([type="range"])';
const STEPPED = 'input, select, [role="slider"], [role="menu"], [role="listbox"]';

/** A row that was taken and is being moved has all keys to itself. */
const CARRIED = '[aria-roledescription="sortable"][aria-pressed="true"]';

/** Does the key mean something to the element that has the focus? Then it is not a shortcut. */
function belongsToFocus(event: KeyboardEvent): boolean {
  const focused = event.target;
  if (!(focused instanceof Element)) return false;
  if (focused.closest(TYPED) || focused.closest(CARRIED)) return true;
  if (event.key === ' ' || event.key === 'Enter') return focused.closest(`${PRESSED}, select`) !== null;
  if (event.key.startsWith('Arrow')) return focused.closest(STEPPED) !== null;
  return false;
}
