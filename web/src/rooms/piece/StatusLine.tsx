import { frameOfSeconds } from '@core';
import { Maximize, PanelLeft, PanelRight, Pause, Play, SkipBack, SkipForward, ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';
import { useEditor, useOpenPiece, usePlanStatuses, usePlaying, useTargets } from '../../context';
import { type CommandId, commandById, TOOL_TABLE } from '../../editor';
import { useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import { useColumns } from '../use-columns';
import { keysText } from './keys-text';

/** Where the bead is, playing, zoom, and what is at work. Numbers are written by the clock, not by React. */
export function StatusLine() {
  const editor = useEditor();
  const { arrivals } = useOpenPiece();
  const playing = usePlaying();
  const statuses = usePlanStatuses();
  const busy = useAppSelector((state) => state.session.busy);
  const tool = useAppSelector((state) => state.drawing.tool);
  const targets = useTargets();
  const figures = useAppSelector((state) => state.document.piece?.figureOrder.length ?? 0);
  const hasFigure = figures > 0;
  // The output plays by itself: its picture is the file, not the canvas.
  const { pathname } = useLocation();
  const onCanvas = !pathname.endsWith('/output');
  const inShapes = pathname.endsWith('/shapes');
  const { columns, toggle } = useColumns(inShapes);
  const timeRef = useRef<HTMLSpanElement>(null);
  const zoomRef = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const write = (seconds: number): void => {
      const { piece } = editor.store.getState().document;
      if (timeRef.current && piece)
        timeRef.current.textContent = `${seconds.toFixed(3)} s   frame ${frameOfSeconds(piece, seconds)}`;
    };
    write(editor.clock.seconds);
    return editor.clock.onMove(write);
  }, [editor]);
  useEffect(() => {
    const write = (): void => {
      if (zoomRef.current) zoomRef.current.textContent = `${Math.round(editor.viewport.view.zoom * 100)} %`;
    };
    write();
    return editor.viewport.onChange(write);
  }, [editor]);
  const context = { editor, openRoom: () => {}, saveNow: () => {} };
  const button = (id: CommandId, Icon: typeof Play, disabled = false, label?: string) => {
    const command = commandById(id);
    return (
      <button
        type="button"
        className="status-button"
        disabled={disabled}
        title={`${label ?? command.label} (${keysText(command.keys[0])})`}
        aria-label={label ?? command.label}
        onClick={() => command.run(context)}
      >
        <Icon size={15} aria-hidden="true" />
      </button>
    );
  };
  const pending = [...statuses.values()].filter((status) => status.pending).length;
  return (
    <footer className="status-line">
      <span className="status-play">
        {button('previous-pose', SkipBack, !hasFigure)}
        <button
          type="button"
          className="status-button play"
          disabled={!hasFigure}
          title={`${playing ? 'Pause' : 'Play'} (Space)`}
          aria-label={playing ? 'Pause' : 'Play'}
          onClick={() => editor.clock.toggle()}
        >
          {playing ? <Pause size={15} aria-hidden="true" /> : <Play size={15} aria-hidden="true" />}
          {playing ? 'Pause' : 'Play'}
        </button>
        {button('next-pose', SkipForward, !hasFigure)}
      </span>
      <span ref={timeRef} className="numbers status-time" data-testid="time" />
      <span className="status-busy" role="status">
        {busy?.text ??
          (!onCanvas
            ? 'Drag the bead: the file follows where its form allows it.'
            : pending > 0
              ? `Matching ${pending} ${pending === 1 ? 'shift' : 'shifts'} …`
              : inShapes
                ? TOOL_TABLE[tool].help({ figures, targets })
                : 'All shifts are matched.')}
        {busy && busy.share !== null && (
          <progress className="status-progress" max={1} value={busy.share} aria-label={busy.text} />
        )}
        {busy?.stoppable && (
          <button type="button" className="status-button" onClick={() => arrivals.stop()}>
            Stop
          </button>
        )}
      </span>
      <span className="status-zoom" hidden={!onCanvas}>
        <span className="status-view" hidden={!inShapes}>
          {button('zoom-out', ZoomOut)}
          <span ref={zoomRef} className="numbers" />
          {button('zoom-in', ZoomIn)}
          {button('fit', Maximize)}
          <IconButton
            icon={PanelLeft}
            label={columns.left !== null ? 'Fold the figures away' : 'Show the figures'}
            pressed={columns.left !== null}
            onClick={() => toggle('left')}
          />
        </span>
        <IconButton
          icon={PanelRight}
          label={columns.right !== null ? 'Fold the details away' : 'Show the details'}
          pressed={columns.right !== null}
          onClick={() => toggle('right')}
        />
      </span>
    </footer>
  );
}
