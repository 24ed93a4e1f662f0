import { type PointStyle } from 'chart.js';
import { colours } from '../ui/colours';

export interface RunStyle {
  name: string;
  color: string;
  dash: number[];
  marker: PointStyle;
}

/** Colours in an order of ours, each with a dash and a marker of its own. */
export const runStyles: readonly RunStyle[] = [
  { name: 'blue', color: colours.runBlue, dash: [], marker: 'circle' },
  { name: 'amber', color: colours.runAmber, dash: [9, 4], marker: 'rect' },
  { name: 'vermilion', color: colours.runVermilion, dash: [2, 3], marker: 'triangle' },
  { name: 'green', color: colours.runGreen, dash: [12, 3, 2, 3], marker: 'rectRot' },
  { name: 'mauve', color: colours.runMauve, dash: [5, 3], marker: 'cross' },
  { name: 'sky', color: colours.runSky, dash: [14, 5], marker: 'star' },
  { name: 'black', color: colours.runBlack, dash: [3, 2, 8, 2], marker: 'crossRot' },
  { name: 'ochre', color: colours.runOchre, dash: [6, 2, 2, 2, 2, 2], marker: 'rectRounded' },
];

export const runStyle = (index: number): RunStyle => runStyles[index % runStyles.length];

/** Highlighters of the regions: fill, and the darker tone of their edges. */
const highlighters = [
  { fill: colours.regionYellow, edge: colours.regionYellowEdge },
  { fill: colours.regionGreen, edge: colours.regionGreenEdge },
  { fill: colours.regionLilac, edge: colours.regionLilacEdge },
  { fill: colours.regionPeach, edge: colours.regionPeachEdge },
];

export const highlighter = (letter: string) =>
  highlighters[(letter.charCodeAt(0) - 65) % highlighters.length];
