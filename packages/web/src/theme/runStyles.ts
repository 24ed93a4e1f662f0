import { type PointStyle } from 'chart.js';

export interface RunStyle {
  name: string;
  color: string;
  dash: number[];
  marker: PointStyle;
}

/** Okabe and Ito's colours (Color Universal Design, 2008) in an order of ours, each with a dash and a marker of its own. */
export const runStyles: readonly RunStyle[] = [
  { name: 'blue', color: '#0072B2', dash: [], marker: 'circle' },
  { name: 'amber', color: '#E69F00', dash: [9, 4], marker: 'rect' },
  { name: 'vermilion', color: '#D55E00', dash: [2, 3], marker: 'triangle' },
  { name: 'green', color: '#009E73', dash: [12, 3, 2, 3], marker: 'rectRot' },
  { name: 'mauve', color: '#CC79A7', dash: [5, 3], marker: 'cross' },
  { name: 'sky', color: '#56B4E9', dash: [14, 5], marker: 'star' },
  { name: 'black', color: '#1B1B1B', dash: [3, 2, 8, 2], marker: 'crossRot' },
  { name: 'ochre', color: '#B8A200', dash: [6, 2, 2, 2, 2, 2], marker: 'rectRounded' },
];

export const runStyle = (index: number): RunStyle => runStyles[index % runStyles.length];

/** Highlighters of the regions: fill, and the darker tone of their edges. */
const highlighters = [
  { fill: '#F6DD85', edge: '#B38600' },
  { fill: '#B9DFC7', edge: '#2E7D51' },
  { fill: '#D9CBEA', edge: '#6F4FA0' },
  { fill: '#F6CDB3', edge: '#B25A22' },
];

export const highlighter = (letter: string) =>
  highlighters[(letter.charCodeAt(0) - 65) % highlighters.length];
