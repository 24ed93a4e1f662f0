import { create } from 'zustand';
import { type Scheme, colourRules, showColours } from './colours';

const asked = {
  isDark: matchMedia('(prefers-color-scheme: dark)'),
  isStrong: matchMedia('(prefers-contrast: more)'),
};

/** What the system asks for; paper is light. */
const schemeNow = (isPrinted: boolean): Scheme => ({
  isDark: asked.isDark.matches && !isPrinted,
  isStrong: asked.isStrong.matches,
});

export const useScheme = create<Scheme>(() => schemeNow(false));

const apply = (scheme: Scheme): void => {
  showColours(scheme);
  // What comes with Bootstrap follows.
  document.documentElement.dataset.bsTheme = scheme.isDark ? 'dark' : 'light';
};

/** The page and its canvases follow the system's wish from now on, also where it changes. */
export function followSystemColours(): void {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(colourRules());
  document.adoptedStyleSheets.push(sheet);
  apply(useScheme.getState());
  useScheme.subscribe(apply);
  const follow = (isPrinted: boolean) => useScheme.setState(schemeNow(isPrinted));
  for (const query of Object.values(asked)) query.addEventListener('change', () => follow(false));
  addEventListener('beforeprint', () => follow(true));
  addEventListener('afterprint', () => follow(false));
}
