/** On paper, and on a light screen. */
const light = {
  paper: '#eaf0ee',
  sheet: '#fbfdfc',
  side: '#f3f7f5',
  rule: '#c9d6d2',
  grid: '#d3e4dd',
  gridZero: '#a9c4bb',
  ink: '#0f2a33',
  inkLight: '#244b53',
  inkRule: '#4b6a72',
  /** Bodies of apparatus. */
  solid: '#0f2a33',
  text: '#16282f',
  quiet: '#566a6c',
  faint: '#9db0af',
  onInk: '#ffffff',
  onInkQuiet: '#c5d6d8',
  recording: '#be3a2b',
  act: '#0b6e69',
  actDark: '#084c49',
  actPale: '#dcebe7',
  onAct: '#ffffff',
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
  // Quantities that stand in one trace.
  ofFirst: '#0b6e69',
  ofSecond: '#8a3fa0',
  ofThird: '#b25a22',
  ofFourth: '#4a5f6b',
};

export type Colour = keyof typeof light;
type Colours = Record<Colour, string>;

/** On a dark screen. The runs keep their hues; what is too dark to be seen is lighter. */
const dark: Colours = {
  paper: '#0c1416',
  sheet: '#142023',
  side: '#101a1d',
  rule: '#33474d',
  grid: '#25383d',
  gridZero: '#4a666d',
  ink: '#1a3038',
  inkLight: '#2c4f58',
  inkRule: '#587780',
  solid: '#6d8790',
  text: '#e4edec',
  quiet: '#a3b6b7',
  faint: '#6b8183',
  onInk: '#ffffff',
  onInkQuiet: '#c5d6d8',
  recording: '#d84f3f',
  act: '#52c3b7',
  actDark: '#86dcd2',
  actPale: '#1d3c3c',
  onAct: '#04211f',
  warn: '#3f3215',
  warnText: '#f1cf8a',
  gap: '#f3907f',
  regionYellow: '#57491a',
  regionYellowEdge: '#d8b03c',
  regionGreen: '#234a35',
  regionGreenEdge: '#63bd89',
  regionLilac: '#433459',
  regionLilacEdge: '#b197dc',
  regionPeach: '#5a3a25',
  regionPeachEdge: '#e0935f',
  lampOff: '#3d565d',
  runBlue: '#3f9fdc',
  runAmber: '#f0b02a',
  runVermilion: '#f0813a',
  runGreen: '#2fc198',
  runMauve: '#dc95bb',
  runSky: '#8bd0f7',
  runBlack: '#f2f2f2',
  runOchre: '#d3bd2c',
  ofFirst: '#52c3b7',
  ofSecond: '#cf9be8',
  ofThird: '#e9a06c',
  ofFourth: '#b9c9d1',
};

/** What differs where more contrast is asked for: what is quiet is text, and lines are seen. */
const strong: Record<'light' | 'dark', Partial<Colours>> = {
  light: { quiet: light.text, faint: light.text, rule: light.inkRule, grid: '#b5c8c1', gridZero: '#5d7a70' },
  dark: { quiet: dark.text, faint: dark.text, rule: '#8ba3a9', grid: '#3c555b', gridZero: '#86a1a8' },
};

export interface Scheme {
  isDark: boolean;
  /** More contrast than usual. */
  isStrong: boolean;
}

const coloursOf = ({ isDark, isStrong }: Scheme): Colours => ({
  ...(isDark ? dark : light),
  ...(isStrong ? strong[isDark ? 'dark' : 'light'] : {}),
});

/** Every colour as it is seen now. Canvases read them here as they are drawn; the page has them as variables of the same names. */
export const colours: Colours = { ...light };

/** From now on canvases are drawn so. */
export function showColours(scheme: Scheme): void {
  Object.assign(colours, coloursOf(scheme));
}

/** Draws in the colours of paper, whatever the screen has: pictures that are kept, sent and printed. */
export function onPaper<T>(draw: () => T): T {
  const before = { ...colours };
  Object.assign(colours, light);
  try {
    return draw();
  } finally {
    Object.assign(colours, before);
  }
}

/** "inkLight" as the style sheet calls it: "--ink-light". */
const variableOf = (name: string) => `--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;

/** A colour for what stands on the page, which follows the screen by itself. */
export const paint = (colour: Colour): string => `var(${variableOf(colour)})`;

/** All colours as a style sheet. Print is always on light paper. */
export function colourRules(): string {
  const rules = (scheme: Scheme) =>
    `:root{${Object.entries(coloursOf(scheme))
      .map(([name, value]) => `${variableOf(name)}:${value}`)
      .join(';')}}`;
  const [isDark, isStrong] = ['(prefers-color-scheme: dark)', '(prefers-contrast: more)'];
  return [
    rules({ isDark: false, isStrong: false }),
    `@media ${isStrong}{${rules({ isDark: false, isStrong: true })}}`,
    `@media screen and ${isDark}{${rules({ isDark: true, isStrong: false })}}`,
    `@media screen and ${isDark} and ${isStrong}{${rules({ isDark: true, isStrong: true })}}`,
  ].join('\n');
}

/** A colour with less of it, for canvases: share from 0 to 1. */
export const faded = (colour: string, share: number): string =>
  `${colour}${Math.round(share * 255)
    .toString(16)
    .padStart(2, '0')}`;
