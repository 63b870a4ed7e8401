import {
  addFreeKey,
  changeKey,
  compileLane,
  type Figure,
  isColourLane,
  type LaneRecord,
  neutralOf,
  type Piece,
  pieceDuration,
  toMillionths,
} from '@core';
import { type KeyboardEvent, useLayoutEffect, useMemo, useRef } from 'react';
import { useEditor } from '../../context';
import { nudgeKeys, removeChosenKeys, withoutDrives } from '../../editor';
import { changePiece, type KeyRef, useAppDispatch } from '../../state';
import { freshId } from '../../workers';
import { applyLane, chooseKey, dragKey } from './lane-gestures';
import { isEven, type KeyBlock, LANE, laneGraph } from './lane-graph';
import { canBe, laneWords, shownNumber, valueText } from './lane-words';

const dragHint = (colour: boolean, free: boolean): string => {
  if (colour) return free ? 'Drag it along in time' : 'Press it to change it';
  return `Drag it up and down${free ? ', and along in time' : ''}`;
};

/** A lane as its graph: level blocks where it rests, ramps whose edge is the easing. */
export function LaneRow({
  piece,
  figure,
  lane,
  width,
  scale,
  x,
  chosen,
}: {
  readonly piece: Piece;
  /** null: the canvas. */
  readonly figure: Figure | null;
  readonly lane: LaneRecord;
  readonly width: number;
  readonly scale: number;
  readonly x: (seconds: number) => number;
  readonly chosen: readonly KeyRef[];
}) {
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const svgRef = useRef<SVGSVGElement>(null);
  const end = pieceDuration(piece);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `x` is another function for another scale only
  const curves = useMemo(() => laneGraph(piece, lane, x, end), [piece, lane, scale, width, end]);
  useLayoutEffect(() => {
    if (svgRef.current) applyLane(svgRef.current, piece, lane, x);
  });
  const { property } = lane;
  const words = laneWords(property);
  const owner = figure ? figure.name : 'the canvas';
  const colour = isColourLane(property);
  const name = (block: KeyBlock): string => {
    const part = words.parts.length > 1 && !isEven(lane) ? ` ${words.parts[block.part]}` : '';
    const { stop, after, value } = block.key;
    const when =
      stop && after === null
        ? `${piece.poses[stop.pose]?.name} (pose ${block.stop + 1})`
        : `at ${+block.from.toFixed(3)} s`;
    const said = isColourLane(property)
      ? valueText(property, value)
      : `${shownNumber(property, value[block.part])} ${words.unit}`;
    return `${words.label}${part} of ${owner}, ${when}: ${said}`;
  };
  const isChosen = ({ key }: KeyBlock): boolean => chosen.some((ref) => ref.lane === lane.id && ref.key === key.id);
  const change = (what: string, made: Parameters<typeof changeKey>[3], keyId: string): void =>
    void dispatch(changePiece(what, (draft) => changeKey(draft, lane.id, keyId, made)));
  const keyed = (block: KeyBlock) => (event: KeyboardEvent) => {
    const { key } = block;
    const more = event.shiftKey ? 10 : 1;
    const up = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    const along = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const removes = event.key === 'Delete' || event.key === 'Backspace';
    // What is done to one of several chosen keys is done to all.
    if (!isChosen(block) && (along !== 0 || removes)) chooseKey(editor, { lane: lane.id, key: key.id }, false);
    if (up !== 0 && !colour) {
      const by = (up * more * words.step) / words.factor;
      const value = key.value.map((v, i) => (isEven(lane) || i === block.part ? toMillionths(v + by) : v));
      if (!value.every((v, i) => canBe(property, i, v))) return;
      change(`Key of ${words.label}`, { value }, key.id);
    } else if (along !== 0) {
      if (!nudgeKeys(editor.store, along * more)) return;
    } else if (removes) {
      removeChosenKeys(editor.store);
    } else if (event.key === 'Enter' || event.key === ' ')
      chooseKey(editor, { lane: lane.id, key: key.id }, event.shiftKey);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const addAt = (clientX: number): void => {
    if (colour && lane.follow) return;
    const left = svgRef.current?.getBoundingClientRect().left ?? 0;
    const frame = piece.canvas.rate.den / piece.canvas.rate.num;
    const seconds = Math.max(0, Math.round((clientX - left - x(0)) / (x(1) - x(0)) / frame) * frame);
    // What else is added to the keys is no part of a key.
    const compiled = compileLane(withoutDrives(piece, lane), lane.figure, property);
    const value = Float64Array.from(neutralOf(property));
    compiled?.sample(seconds, value);
    const rounded = [...value].map((v) => Math.round(v * 1e4) / 1e4);
    dispatch(
      changePiece(`Add a key of ${words.label}`, (draft) => addFreeKey(draft, lane.id, seconds, rounded, freshId)),
    );
  };
  return (
    <svg
      ref={svgRef}
      className="lane-graph"
      width={width}
      height={LANE.height * Math.max(1, curves.length)}
      role="group"
      aria-label={`${words.label} of ${owner}`}
      onDoubleClick={(event) => addAt(event.clientX)}
    >
      {curves.map(({ blocks, colours }, part) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the numbers of a lane have no identity beyond their order
        <g key={part} className={`lane-curve lane-part-${part}`}>
          {colour && (
            <linearGradient
              id={`colours-${lane.id}`}
              gradientUnits="userSpaceOnUse"
              x1={x(0)}
              x2={x(Math.max(end, 1e-3))}
            >
              {colours.map((_, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: moments of a strip have no identity beyond their order
                <stop key={i} data-key={`colour-${i}`} />
              ))}
            </linearGradient>
          )}
          <path
            data-key={`area-${part}`}
            className={colour ? 'lane-strip' : 'lane-area'}
            {...(colour && { fill: `url(#colours-${lane.id})` })}
          />
          <path data-key={`edge-${part}`} className="lane-edge" />
          {blocks.map((block) => {
            const id = `${block.key.id}-${part}${block.again ? '-again' : ''}`;
            const free = block.key.after !== null;
            return (
              <g key={id}>
                <text data-key={`text-${id}`} className="lane-value">
                  {curves.length === 1
                    ? valueText(property, block.key.value)
                    : `${words.parts[part].toLowerCase()} ${shownNumber(property, block.key.value[part])}`}
                </text>
                {!block.again && (
                  <rect
                    data-key={`block-${id}`}
                    data-lane={lane.id}
                    data-lane-key={block.key.id}
                    className={`lane-block ${free ? 'free' : ''} ${isChosen(block) ? 'chosen' : ''}`}
                    height="8"
                    rx={free ? 4.5 : 3}
                    role="button"
                    tabIndex={0}
                    aria-label={name(block)}
                    aria-pressed={isChosen(block)}
                    onKeyDown={keyed(block)}
                    onPointerDown={(event) => {
                      if (event.button !== 0 || !svgRef.current) return;
                      event.stopPropagation();
                      chooseKey(editor, { lane: lane.id, key: block.key.id }, event.shiftKey);
                      dragKey({ editor, svg: svgRef.current, lane, x }, event, block);
                    }}
                    onDoubleClick={(event) => event.stopPropagation()}
                  >
                    <title>
                      {name(block)}. {dragHint(colour, free)}.
                    </title>
                  </rect>
                )}
              </g>
            );
          })}
        </g>
      ))}
    </svg>
  );
}
