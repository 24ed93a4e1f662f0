/** Every colour of Heuristor. The style sheet has them as variables of the same names; canvases read them here. */
export const colours = {
  paper: '#eaf0ee',
  sheet: '#fbfdfc',
  side: '#f3f7f5',
  rule: '#c9d6d2',
  grid: '#d3e4dd',
  gridZero: '#a9c4bb',
  ink: '#0f2a33',
  inkLight: '#244b53',
  inkRule: '#4b6a72',
  text: '#16282f',
  quiet: '#566a6c',
  faint: '#9db0af',
  onInk: '#ffffff',
  onInkQuiet: '#c5d6d8',
  recording: '#be3a2b',
  act: '#0b6e69',
  actDark: '#084c49',
  actPale: '#dcebe7',
  warn: '#fbeccf',
  warnText: '#6f4708',
  gap: '#8f2b1f',
  regionYellow: '#f6dd85',
  regionYellowEdge: '#b38600',
  regionGreen: '#b9dfc7',
  regionGreenEdge: '#2e7d51',
  regionLilac: '#d9cbea',
  regionLilacEdge: '#6f4fa0',
  regionPeach: '#f6cdb3',
  regionPeachEdge: '#b25a22',
  lampOff: '#3d565d',
  // Okabe and Ito's colours (Color Universal Design, 2008), and one of their kind.
  runBlue: '#0072b2',
  runAmber: '#e69f00',
  runVermilion: '#d55e00',
  runGreen: '#009e73',
  runMauve: '#cc79a7',
  runSky: '#56b4e9',
  runBlack: '#1b1b1b',
  runOchre: '#b8a200',
} as const;

export type Colour = keyof typeof colours;

/** "inkLight" as the style sheet calls it: "--ink-light". */
const variableOf = (name: string) => `--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;

/** Hands the colours to the style sheet. */
export function applyColours({ style }: HTMLElement): void {
  for (const [name, value] of Object.entries(colours)) style.setProperty(variableOf(name), value);
}

/** A colour with less of it, for canvases: share from 0 to 1. */
export const faded = (colour: string, share: number): string =>
  `${colour}${Math.round(share * 255)
    .toString(16)
    .padStart(2, '0')}`;
