import { runStyle } from './runStyles';

/** A marker of reach one about its middle, downwards: a disc, a shape that is filled, or strokes through the middle. */
export type MarkerShape =
  | { kind: 'circle' }
  | { kind: 'filled'; points: readonly (readonly [number, number])[] }
  | { kind: 'strokes'; ends: readonly (readonly [number, number])[] };

const square: MarkerShape = {
  kind: 'filled',
  points: [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ],
};
const straight = [
  [1, 0],
  [0, 1],
] as const;
const slanted = [
  [0.75, 0.75],
  [0.75, -0.75],
] as const;

const shapes: Readonly<Partial<Record<string, MarkerShape>>> = {
  rect: square,
  rectRounded: square,
  rectRot: {
    kind: 'filled',
    points: [
      [0, -1.2],
      [1.2, 0],
      [0, 1.2],
      [-1.2, 0],
    ],
  },
  triangle: {
    kind: 'filled',
    points: [
      [0, -1.1],
      [1.1, 0.9],
      [-1.1, 0.9],
    ],
  },
  cross: { kind: 'strokes', ends: straight },
  crossRot: { kind: 'strokes', ends: slanted },
  star: { kind: 'strokes', ends: [...straight, ...slanted] },
};

/** The marker of runs of a style. */
export function markerShape(style: number): MarkerShape {
  const { marker } = runStyle(style);
  return (typeof marker === 'string' ? shapes[marker] : undefined) ?? { kind: 'circle' };
}
