import { type PointStyle } from 'chart.js';
import { type Colour, colours, paint } from '../ui/colours';

export interface RunStyle {
  name: string;
  /** For canvases, as it is now. */
  readonly color: string;
  /** For the page. */
  paint: string;
  dash: number[];
  marker: PointStyle;
}

const style = (name: string, colour: Colour, dash: number[], marker: PointStyle): RunStyle => ({
  name,
  get color() {
    return colours[colour];
  },
  paint: paint(colour),
  dash,
  marker,
});

/** Colours in an order of ours, each with a dash and a marker of its own. */
export const runStyles: readonly RunStyle[] = [
  style('blue', 'runBlue', [], 'circle'),
  style('amber', 'runAmber', [9, 4], 'rect'),
  style('vermilion', 'runVermilion', [2, 3], 'triangle'),
  style('green', 'runGreen', [12, 3, 2, 3], 'rectRot'),
  style('mauve', 'runMauve', [5, 3], 'cross'),
  style('sky', 'runSky', [14, 5], 'star'),
  // The one that stands off most: white on a dark screen.
  style('black', 'runBlack', [3, 2, 8, 2], 'crossRot'),
  style('ochre', 'runOchre', [6, 2, 2, 2, 2, 2], 'rectRounded'),
];

export const runStyle = (index: number): RunStyle => runStyles[index % runStyles.length];

/** Highlighters of the regions: fill, and the stronger tone of their edges. */
const highlighters = [
  ['regionYellow', 'regionYellowEdge'],
  ['regionGreen', 'regionGreenEdge'],
  ['regionLilac', 'regionLilacEdge'],
  ['regionPeach', 'regionPeachEdge'],
] as const;

const highlighterOf = (letter: string) => highlighters[(letter.charCodeAt(0) - 65) % highlighters.length];

/** For canvases, as it is now. */
export function highlighter(letter: string): { fill: string; edge: string } {
  const [fill, edge] = highlighterOf(letter);
  return { fill: colours[fill], edge: colours[edge] };
}

/** The same for the page. */
export function highlighterPaint(letter: string): { fill: string; edge: string } {
  const [fill, edge] = highlighterOf(letter);
  return { fill: paint(fill), edge: paint(edge) };
}
