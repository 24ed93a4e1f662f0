import { type StoreApi, createStore } from 'zustand/vanilla';
import { type Sight } from '../../workers/protocol';
import { type Look } from './look';
import { type LookMemory } from './lookMemory';
import { type View } from '../../investigation/state';

export const usualLook: Look = { sight: null, scales: {}, reach: 'shown', withZero: null, enlarged: null };

/** How a bench is looked at when it opens. */
export const usualView: View = {
  ...usualLook,
  page: null,
  plotWidth: 600,
  frontRunId: null,
  selectedRegion: null,
  isOffering: false,
  isLive: false,
  selectedSeries: null,
  openEntry: null,
  setUp: null,
  hasDigits: false,
  isNewSeries: false,
  handMode: 'usual',
  moving: false,
};

const mostSteps = 100;

const lookOf = ({ sight, scales, reach, withZero, enlarged }: View): Look => ({
  sight,
  scales,
  reach,
  withZero,
  enlarged,
});

/**
 * Where a bench is looked at: what every page showed last, and the way back through what was seen. It is no part of the work,
 * which undo speaks of.
 */
export class Looking {
  readonly state: StoreApi<{ canGoBack: boolean }> = createStore(() => ({ canGoBack: false }));
  private before: Look[] = [];
  /** Of pages that are not looked at now. */
  private readonly pages = new Map<string | null, { look: Look; before: Look[] }>();
  /** What a hand has moved so far is one step. */
  private isOneStep = false;
  /** What was seen before only a region was. */
  private aside: { look: Look; shown: Sight } | null = null;

  /** @param memory of how pages were looked at before this bench was opened */
  constructor(
    private readonly view: StoreApi<View>,
    private readonly memory: LookMemory | null = null,
  ) {
    for (const [page, look] of Object.entries(memory?.load() ?? {}))
      this.pages.set(page, { look, before: [] });
    const known = this.pages.get(view.getState().page);
    if (known !== undefined) view.setState(known.look);
  }

  /** Keeps how the pages are looked at for the next time. */
  keep(): void {
    const now = this.view.getState();
    const looks = new Map([...this.pages].map(([page, { look }]) => [page, look]));
    looks.set(now.page, lookOf(now));
    this.memory?.save(
      Object.fromEntries([...looks].flatMap(([page, look]) => (page === null ? [] : [[page, look]]))),
    );
  }

  /** Looks in another way; while a hand moves something, all of it is one step of the way back. */
  change(patch: Partial<Look>): void {
    const now = this.view.getState();
    if (!(now.moving && this.isOneStep)) {
      this.before = [...this.before.slice(1 - mostSteps), lookOf(now)];
      this.isOneStep = now.moving;
    }
    this.view.setState(patch);
    this.tell();
  }

  /** The hand has let go. */
  settle(): void {
    this.isOneStep = false;
  }

  /** As it was looked at before. */
  back(): void {
    const look = this.before.pop();
    if (look === undefined) return;
    this.isOneStep = false;
    this.aside = null;
    this.view.setState(look);
    this.tell();
  }

  /** Another page, as it was left. */
  open(page: string | null): void {
    const now = this.view.getState();
    if (now.page === page) return;
    this.pages.set(now.page, { look: lookOf(now), before: this.before });
    const known = this.pages.get(page);
    this.before = known?.before ?? [];
    this.isOneStep = false;
    this.aside = null;
    this.view.setState({ ...(known?.look ?? usualLook), page, selectedRegion: null });
    this.tell();
  }

  /** Only this interval, and from there back to what was seen before. */
  only(wanted: Sight): void {
    const { sight } = this.view.getState();
    const { aside } = this;
    if (aside !== null && sight !== null && sight.from === aside.shown.from && sight.to === aside.shown.to) {
      this.change(aside.look);
      this.aside = null;
      return;
    }
    this.aside = { look: lookOf(this.view.getState()), shown: wanted };
    this.change({ sight: wanted });
  }

  private tell(): void {
    this.state.setState({ canGoBack: this.before.length > 0 });
  }
}
