import { type GuideDocument, type GuideItem, guideSchema, mostInGuide } from '@heuristor/contracts';
import isEqual from 'fast-deep-equal';
import { partsBack } from '../investigation/stepBack';

// What a teacher does to a guide: each takes a document and gives another one.

/** @param at the place that it takes; at the end where none is given */
export const withItem = (guide: GuideDocument, item: GuideItem, at = guide.items.length): GuideDocument => ({
  ...guide,
  items: [...guide.items.slice(0, at), item, ...guide.items.slice(at)],
});

export const withItemChanged = (guide: GuideDocument, item: GuideItem): GuideDocument => ({
  ...guide,
  items: guide.items.map((one) => (one.id === item.id ? item : one)),
});

export const withoutItem = (guide: GuideDocument, id: string): GuideDocument => ({
  ...guide,
  items: guide.items.filter((one) => one.id !== id),
});

/** An item where another one is, which makes room for it. */
export function withItemMoved(guide: GuideDocument, id: string, target: string): GuideDocument {
  const [from, to] = [id, target].map((one) => guide.items.findIndex((item) => item.id === one));
  if (from < 0 || to < 0 || from === to) return guide;
  const items = guide.items.filter((_, i) => i !== from);
  items.splice(to, 0, guide.items[from]);
  return { ...guide, items };
}

/** What a step has done to a guide, as an order in lower case. */
export function guideStepName(before: GuideDocument, after: GuideDocument): string {
  if (after.isReleased !== before.isReleased)
    return after.isReleased ? 'release the answers' : 'hold the answers back';
  if (after.items.length > before.items.length) return 'add to the guide';
  if (after.items.length < before.items.length) return 'remove from the guide';
  const at = after.items.findIndex((item, i) => !isEqual(item, before.items[i]));
  const [is, was] = [after.items.at(at), before.items.at(at)];
  if (at < 0 || is === undefined || was === undefined) return 'change the guide';
  if (is.id !== was.id) return 'move in the guide';
  return is.kind === 'step' ? `change step ${at + 1}` : `change question ${at + 1}`;
}

/** A guide with one step taken back, or taken again, beside what another screen has changed since. */
export function guideSteppedBack(
  present: GuideDocument,
  after: GuideDocument,
  before: GuideDocument,
): { document: GuideDocument; isWhole: boolean } {
  if (isEqual(present, after)) return { document: before, isWhole: true };
  const { parts, isWhole } = partsBack(present.items, after.items, before.items, ({ id }) => id);
  const isReleased = after.isReleased === before.isReleased ? present.isReleased : before.isReleased;
  return { document: { ...present, isReleased, items: parts }, isWhole };
}

/** Why a guide cannot be as it was changed; null where it can. */
export function faultOfGuide(_: GuideDocument, after: GuideDocument): string | null {
  if (after.items.length > mostInGuide.items)
    return `A guide has ${mostInGuide.items} steps and questions at most.`;
  const checked = guideSchema.safeParse(after);
  return checked.success ? null : `That cannot be: ${checked.error.issues[0].message}.`;
}
