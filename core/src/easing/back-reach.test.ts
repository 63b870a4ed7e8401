import { describe, expect, test } from '@jest/globals';
import { LIMITS } from '../num';
import { backReach, overshootOf } from './back-reach';
import { ease } from './easing';
import { physicsOf, springBounce } from './spring';

describe('how far a back easing goes beyond its end', () => {
  test('is 10 % with the constant 1.70158', () => {
    // Robert Penner, "Programming Macromedia Flash MX" (2002), chapter 7: the value "produces an overshoot of ten percent".
    expect(backReach(1.70158)).toBeCloseTo(0.1, 4);
    expect(overshootOf(0.1)).toBeCloseTo(1.70158, 4);
  });

  test('is the most that the easing itself gives', () => {
    for (const overshoot of [0.5, 1.7, 3]) {
      const most = Math.max(
        ...Array.from({ length: 2001 }, (_, i) => ease({ kind: 'back', side: 'out', overshoot }, i / 2000) - 1),
      );
      expect(most).toBeCloseTo(backReach(overshoot), 4);
    }
  });

  test('and the overshoot for it are each other’s inverse, within the limit', () => {
    for (const reach of [0.001, 0.05, 0.2, 0.5]) expect(backReach(overshootOf(reach))).toBeCloseTo(reach, 4);
    expect(overshootOf(1e6)).toBeCloseTo(LIMITS.backOvershoot.max, 4);
    expect(overshootOf(0)).toBeCloseTo(LIMITS.backOvershoot.min, 4);
  });
});

test('a body of 1 kg gets the damping that bounces as much as the easing did', () => {
  for (const bounce of [0, 0.3, 0.8]) {
    const physics = physicsOf(bounce);
    expect(physics).toMatchObject({ mass: 1, stiffness: 200, speed: 0 });
    expect(springBounce(physics)).toBeCloseTo(bounce, 2);
  }
  // Undamped it would never rest.
  expect(physicsOf(1).damping).toBeGreaterThan(0);
});
