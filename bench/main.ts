// npm run bench: speed as ratios within one run, so that the figures mean the same on every machine.
import { interpolateString } from 'd3-interpolate';
import {
  evaluate,
  inBetweenPathData,
  measureHealth,
  rankAlternatives,
  readPathData,
  type ShiftPlan,
  scaling,
  transformOutline,
} from '../core/src/index';
import { realIcons } from '../core/src/testing/icons';
import { dragStep } from './drag-step';
import { firstAnswers } from './first-answer';
import { printHands } from './hands';
import { printInvariance } from './invariance';
import { printQuality } from './quality';
import { printSvgSizes } from './svg-sizes';

const PAIRS = 100;
const ROUNDS = 60;

/** Median time of `work` over several rounds, ms. */
function median(work: () => void, rounds = ROUNDS): number {
  for (let i = 0; i < 5; i++) work();
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const start = performance.now();
    work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[rounds >> 1];
}

/** Median of how much longer `work` takes than `other`, both in turns: what else the machine does meets both alike. */
function medianRatio(work: () => void, other: () => void): number {
  const timed = (run: () => void): number => {
    const start = performance.now();
    run();
    return performance.now() - start;
  };
  for (let i = 0; i < 5; i++) {
    work();
    other();
  }
  const ratios = Array.from({ length: ROUNDS }, () => timed(work) / timed(other));
  return ratios.sort((a, b) => a - b)[ROUNDS >> 1];
}

const icons = realIcons(PAIRS + 1).map(({ d }) => transformOutline(readPathData(d), scaling(1000 / 24)));
const setup: number[] = [];
const health: number[] = [];
const plans: ShiftPlan[] = [];
for (let i = 0; i < PAIRS; i++) {
  let start = performance.now();
  const [{ plan }] = rankAlternatives(icons[i], icons[i + 1]);
  setup.push(performance.now() - start);
  start = performance.now();
  measureHealth(plan);
  health.push(performance.now() - start);
  plans.push(plan);
}

const buffers = plans.map((plan) => new Float64Array(plan.from.length));
const evaluateEach = (list: readonly ShiftPlan[], outs: readonly Float64Array[]) => (): void => {
  for (let k = 0; k <= 20; k++) for (let i = 0; i < list.length; i++) evaluate(list[i], k / 20, outs[i]);
};
const evaluateAll = median(evaluateEach(plans, buffers));
// Ways that are no straight lines: all the pairs blended, against a lerp of as many numbers.
const blendedPlans = icons
  .slice(0, PAIRS)
  .map((icon, i) => rankAlternatives(icon, icons[i + 1], { method: 'blended' })[0].plan);
const blendedBuffers = blendedPlans.map((plan) => new Float64Array(plan.from.length));
const lerpOf = (list: readonly ShiftPlan[], outs: readonly Float64Array[]) => (): void => {
  for (let k = 0; k <= 20; k++) {
    const p = k / 20;
    for (let n = 0; n < list.length; n++) {
      const { from, to } = list[n];
      const out = outs[n];
      for (let i = 0; i < from.length; i++) out[i] = from[i] + (to[i] - from[i]) * p;
    }
  }
};
const straightRatio = medianRatio(evaluateEach(plans, buffers), lerpOf(plans, buffers));
const blendedRatio = medianRatio(evaluateEach(blendedPlans, blendedBuffers), lerpOf(blendedPlans, blendedBuffers));
const strings = plans.map((plan) =>
  interpolateString(inBetweenPathData(plan, plan.from, 3), inBetweenPathData(plan, plan.to, 3)),
);
const writeAll = median(() => {
  for (let k = 0; k <= 20; k++)
    plans.forEach((plan, i) => inBetweenPathData(plan, evaluate(plan, k / 20, buffers[i]), 3));
}, 7);
const stringAll = median(() => {
  for (let k = 0; k <= 20; k++) for (const interpolate of strings) interpolate(k / 20);
}, 7);

const numbers = plans.reduce((sum, plan) => sum + plan.from.length, 0);
const quantile = (values: number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.floor(q * (values.length - 1))];
const segments = plans.map(
  (plan, i) =>
    plan.contours.reduce((sum, contour) => sum + contour.segments, 0) /
    icons[i].contours.concat(icons[i + 1].contours).reduce((sum, { points }) => sum + (points.length / 2 - 1) / 3, 0),
);

console.log(`${PAIRS} pairs of real icons, ${numbers} numbers a frame in all, 21 frames`);
console.log(`evaluate / plain lerp of as many numbers            ${straightRatio.toFixed(2)}   (wanted: at most 2.5)`);
console.log(`the same where all travel blended                   ${blendedRatio.toFixed(2)}   (wanted: at most 4)`);
console.log(`evaluate / general string interpolation of the paths ${(evaluateAll / stringAll).toFixed(4)}`);
console.log(`evaluate and write path data / string interpolation  ${(writeAll / stringAll).toFixed(2)}`);
console.log(
  `set-up of a pair / evaluating its 21 frames          ${((quantile(setup, 0.5) * PAIRS) / evaluateAll).toFixed(0)}   (median ${quantile(setup, 0.5).toFixed(1)} ms, 95th percentile ${quantile(setup, 0.95).toFixed(1)} ms here)`,
);
console.log(
  `measuring health / set-up                            ${(quantile(health, 0.5) / quantile(setup, 0.5)).toFixed(2)}`,
);
console.log(
  `segments of a plan / anchors of both outlines          ${quantile(segments, 0.5).toFixed(2)}   (wanted: at most 1.6)`,
);

const single = realIcons(400, 5)
  .map(({ d }) => transformOutline(readPathData(d), scaling(1000 / 24)))
  .filter(({ contours }) => contours.length === 1);
const { first, full } = firstAnswers(single);
console.log(
  `first answer while a start point is dragged / full plan ${(quantile(first, 0.5) / quantile(full, 0.5)).toFixed(2)}   (median ${quantile(first, 0.5).toFixed(1)} ms, 95th percentile ${quantile(first, 0.95).toFixed(1)} ms against 16.7 ms of a frame here)`,
);

const small = dragStep(500, median);
const large = dragStep(5_000, median);
console.log(
  `\nDragging a point: script time of a step at 5,000 points / at 500 ${(large.step / small.step).toFixed(1)}   (${large.step.toFixed(2)} ms against 16.7 ms of a frame here; ten times the points)`,
);
console.log(
  `the gesture alone, without painting, 5,000 / 500                 ${(large.gesture / small.gesture).toFixed(1)}   (${(large.gesture * 1000).toFixed(0)} µs here)`,
);
console.log(
  `a drag step / building the pose anew, 5,000 points               ${(large.step / large.rebuilt).toFixed(2)}`,
);

await printHands();
printSvgSizes();

// Lists that were used while constants were chosen, and lists that were not.
for (const seed of [1, 2]) printQuality(seed, 300);
printInvariance(2, 500);
