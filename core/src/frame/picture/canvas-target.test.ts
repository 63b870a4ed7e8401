import { describe, expect, test } from '@jest/globals';
import { CanvasTarget, type Context2D } from './canvas-target';

/** Contexts by name that say what happens on them. */
function studio(canMake = true) {
  const calls: string[] = [];
  const made: Context2D[] = [];
  const context = (name: string, width: number, height: number): Context2D => {
    const state = { globalAlpha: 1, globalCompositeOperation: 'source-over', map: [1, 0, 0, 1, 0, 0] };
    const saved: (typeof state)[] = [];
    const canvas = { name, width, height };
    return Object.assign(state, {
      canvas,
      save: () => void saved.push({ ...state }),
      restore: () => void Object.assign(state, saved.pop()),
      setTransform(...m: number[]) {
        state.map = m;
        calls.push(`${name} map ${m.join(' ')}`);
      },
      getTransform: () => Object.fromEntries([...'abcdef'].map((key, i) => [key, state.map[i]])),
      translate(x: number, y: number) {
        const [a, b, c, d, e, f] = state.map;
        state.map = [a, b, c, d, e + a * x + c * y, f + b * x + d * y];
      },
      clearRect: () => void calls.push(`${name} clear`),
      fill: () => void calls.push(`${name} fill at ${state.globalAlpha}`),
      drawImage: (image: { name: string }) =>
        void calls.push(`${name} < ${image.name} ${state.globalCompositeOperation} ${state.globalAlpha}`),
    }) as unknown as Context2D;
  };
  const base = context('base', 100, 50);
  const target = new CanvasTarget(base, (width, height) => {
    if (!canMake) return undefined;
    const layer = context(`layer${made.length + 1}`, width, height);
    made.push(layer);
    return layer;
  });
  const pictures = () => calls.filter((call) => /fill|</.test(call));
  return { calls, pictures, made, base, target };
}
const over = (opacity: number) => ({ opacity, mode: 'over' }) as const;

describe('layers on a canvas', () => {
  test('what is drawn in a layer is put together on a canvas of its own and laid over as one', () => {
    const { target, pictures, base } = studio();
    target.beginLayer(over(0.5));
    target.fill();
    target.fill();
    target.endLayer();
    target.fill();
    expect(pictures()).toEqual([
      'layer1 fill at 1',
      'layer1 fill at 1',
      'base < layer1 source-over 0.5',
      'base fill at 1',
    ]);
    expect(target.surface).toBe(base);
  });

  test('layers nest, an inner one may leave only what it covers', () => {
    const { target, pictures } = studio();
    target.beginLayer(over(0.25));
    target.fill();
    target.beginLayer({ opacity: 1, mode: 'inside' });
    target.fill();
    target.endLayer();
    target.endLayer();
    expect(pictures()).toEqual([
      'layer1 fill at 1',
      'layer2 fill at 1',
      'layer1 < layer2 destination-in 1',
      'base < layer1 source-over 0.25',
    ]);
  });

  test('canvases are used again, cleared, under the same map, and follow the size of the base', () => {
    const { target, calls, made, base } = studio();
    target.setView(2, 10, 20);
    for (let i = 0; i < 3; i++) {
      target.beginLayer(over(1));
      target.endLayer();
    }
    expect(made).toHaveLength(1);
    expect(calls.filter((call) => call === 'layer1 clear')).toHaveLength(3);
    expect(calls.filter((call) => call === 'layer1 map 2 0 0 2 10 20')).toHaveLength(3);
    base.canvas.width = 300;
    target.beginLayer(over(1));
    expect(target.surface.canvas.width).toBe(300);
  });

  test('where no canvas can be made, what belongs in a layer is still drawn', () => {
    const { target, pictures } = studio(false);
    target.beginLayer(over(0.5));
    target.fill();
    target.endLayer();
    expect(pictures()).toEqual(['base fill at 1']);
  });

  test('a layer that was not begun cannot be ended', () => {
    expect(() => studio().target.endLayer()).toThrow('Invariant broken');
  });

  test('a layer that is begun where something has moved is drawn on moved as well', () => {
    const { target, calls } = studio();
    target.setView(2, 10, 20);
    target.save();
    target.translate(5, 1);
    target.beginLayer(over(0.5));
    expect(calls.filter((call) => call.startsWith('layer1 map')).at(-1)).toBe('layer1 map 2 0 0 2 20 22');
  });
});
