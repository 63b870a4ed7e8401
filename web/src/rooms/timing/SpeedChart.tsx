import type { LaneRecord, Piece } from '@core';
import { LineChart } from '../../ui/charts/LineChart';
import { laneSpeed } from './lane-speed';
import { laneWords } from './lane-words';

/** Value and speed of a lane over the whole piece. */
export default function SpeedChart({ piece, lane }: { readonly piece: Piece; readonly lane: LaneRecord }) {
  const found = laneSpeed(piece, lane);
  if (!found) return null;
  const { unit, factor, parts, digits } = laneWords(lane.property);
  const { places, values, ranges, speeds, fastest, at } = found;
  const fastestText = `${+(fastest * factor).toFixed(1)} ${unit}/s`;
  return (
    <LineChart
      title="Speed"
      says={fastest > 0 ? `- - at most ${fastestText}, at ${+at.toFixed(2)} s` : 'the same value all the time'}
      places={places}
      placeText={(place) => `at ${+place.toFixed(2)} s`}
      lines={[
        ...values.map((own, i) => ({
          name: parts[i],
          values: own,
          text: (share: number) => {
            const [low, high] = ranges[i];
            return `${(factor * (low + share * (high - low))).toFixed(digits)} ${unit}`;
          },
        })),
        {
          name: 'Speed',
          values: speeds,
          text: (share: number) => `${(share * fastest * factor).toFixed(1)} ${unit}/s`,
          dashed: true,
        },
      ]}
    />
  );
}
