import { type Label, type Page, type WorkingsDocument } from '@heuristor/contracts';
import { newId } from '../../investigation/ids';

export const mostLabels = 100;
/** Where a new label stands from what it speaks of, in pixels. */
const above = { x: 40, y: -34 };

const place = /\{([^{}]+)\}/g;

/** The page with one more label. */
export function withLabel(
  page: Page,
  label: Omit<Label, 'id' | 'offset'>,
): { page: Page; id: string } | null {
  if (page.labels.length >= mostLabels) return null;
  const id = newId();
  const offset = label.at.kind === 'point' ? above : { x: 0, y: label.at.kind === 'region' ? 24 : 0 };
  return { id, page: { ...page, labels: [...page.labels, { ...label, id, offset }] } };
}

export const withLabelChanged = (page: Page, id: string, changes: Partial<Omit<Label, 'id'>>): Page => ({
  ...page,
  labels: page.labels.map((label) => (label.id === id ? { ...label, ...changes } : label)),
});

export const withoutLabel = (page: Page, id: string): Page => ({
  ...page,
  labels: page.labels.filter((label) => label.id !== id),
});

/** A sheet without the labels of a region that is gone. */
export const withoutLabelsOf = (workings: WorkingsDocument, region: string): WorkingsDocument => ({
  ...workings,
  pages: workings.pages.map((page) =>
    page.labels.some(({ at }) => at.kind === 'region' && at.region === region)
      ? { ...page, labels: page.labels.filter(({ at }) => at.kind !== 'region' || at.region !== region) }
      : page,
  ),
});

/** Labels follow a name that was changed: "{v}" becomes "{w}", "{period of swing}" becomes "{period of bob}". */
export function withRenamed(workings: WorkingsDocument, from: string, to: string): WorkingsDocument {
  if (from === '' || from === to) return workings;
  const renamed = (name: string) =>
    name === from ? to : name.endsWith(` of ${from}`) ? name.slice(0, -from.length) + to : name;
  return {
    ...workings,
    pages: workings.pages.map((page) =>
      page.labels.length === 0
        ? page
        : {
            ...page,
            labels: page.labels.map((label) => ({
              ...label,
              text: label.text.replace(place, (_, name: string) => `{${renamed(name.trim())}}`),
            })),
          },
    ),
  };
}

/** A text with its values in it; what is not known stays as it was written. */
export const filled = (text: string, valueOf: (name: string) => string | null): string =>
  text.replace(place, (whole, name: string) => valueOf(name.trim()) ?? whole);
