import { useMemo } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate, useParams } from 'react-router';
import type { OpenPiece } from '../../context';
import { COMMANDS, type Command, type CommandContext } from '../../editor';

const ALL_KEYS = COMMANDS.flatMap((command) => [...command.keys]);

/** Feeds the keyboard from the command table, except where somebody types. */
export function useShortcuts({ editor, autosave }: OpenPiece): CommandContext {
  const navigate = useNavigate();
  const { id = '' } = useParams();
  const context = useMemo<CommandContext>(() => ({ editor, openRoom: (room) => void navigate(`/piece/${id}/${room}`), saveNow: () => autosave.now() }), [editor, autosave, navigate, id]);
  useHotkeys(
    ALL_KEYS,
    (event, hotkey) => {
      const command = COMMANDS.find((candidate) => (candidate.keys as readonly string[]).includes(hotkey.hotkey)) as Command | undefined;
      if (!command || event.defaultPrevented) return;
      const focused = document.activeElement;
      // Space and Enter belong to the button that has the focus.
      if (command.id === 'play' && focused instanceof Element && focused.closest('button, [role="button"], summary, label, a')) return;
      event.preventDefault();
      if (command.isEnabled(editor.store.getState())) command.run(context);
    },
    { enableOnFormTags: ['radio'] as never, useKey: false },
    [context, editor],
  );
  return context;
}
