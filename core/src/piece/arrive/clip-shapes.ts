import { combineOutlines, outlineOfStroke, type PathEngine } from '../../ops';
import { type Outline, outlineBox } from '../../outline';
import type { SvgReading, SvgShape } from '../../svg';
import { isEmptyBox } from '../../vec';

/**
 * A reading whose clip paths are applied: shapes become what is seen of them. A clipped stroke becomes an area first. What the engine cannot
 * do is named and stays whole; without an engine, all of it.
 */
export function applyClips(reading: SvgReading, engine: PathEngine | null): SvgReading {
  if (reading.shapes.every(({ clips }) => clips.length === 0)) return reading;
  const notes = [...reading.notes];
  const shapes = reading.shapes.flatMap((shape): SvgShape[] => {
    if (shape.clips.length === 0) return [shape];
    try {
      if (!engine) throw new Error('no engine');
      return clipped(shape, engine);
    } catch {
      notes.push(`The clip-path of “${shape.name}” could not be applied: it is shown whole`);
      return [{ ...shape, clips: [] }];
    }
  });
  return { ...reading, shapes, notes };
}

function clipped(shape: SvgShape, engine: PathEngine): SvgShape[] {
  const areas: { outline: Outline; fill: SvgShape['fill'] }[] = [];
  if (shape.fill) areas.push({ outline: shape.outline, fill: shape.fill });
  if (shape.stroke)
    areas.push({ outline: outlineOfStroke(engine, shape.outline, shape.stroke), fill: shape.stroke.paint });
  return areas.flatMap(({ outline, fill }): SvgShape[] => {
    let left: Outline = outline;
    for (const clip of shape.clips) {
      if (clip.length === 0 || isEmptyBox(outlineBox(left))) return [];
      const region = clip.length === 1 ? clip[0] : combineOutlines(engine, 'unite', clip).outline;
      left = combineOutlines(engine, 'intersect', [left, region]).outline;
    }
    return left.contours.length === 0 ? [] : [{ ...shape, outline: left, fill, stroke: null, clips: [] }];
  });
}
