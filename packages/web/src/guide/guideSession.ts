import {
  type GuideAnswer,
  type GuideDocument,
  type GuideItem,
  type GuideStanding,
  type KeptDocument,
  type ToScreen,
  checkedSchema,
  guideStandingSchema,
  storedKeptSchema,
} from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { getJson, request } from '../api/client';
import { type History } from '../investigation/history';
import { KeptOnPage } from '../investigation/kept/keptOnPage';
import { type Part } from '../investigation/openedLater';
import { withItem } from './guideDocument';

/** What a guide needs of the investigation that it belongs to. */
export interface GuideHost {
  readonly id: string;
  readonly history: History;
  /** Resolves when the workings are stored as they stand. */
  stored(): Promise<void>;
}

interface GuideState {
  guide: GuideDocument;
  /** The last check of each question that was checked, by the id of the question. */
  checked: ReadonlyMap<string, GuideStanding['checked'][number]>;
  /** Whether the teacher writes it just now. */
  isWriting: boolean;
  /** The item that was made last, whose first field takes the focus. */
  fresh: string | null;
}

/** The guide of an investigation: read by everybody, changed by the teacher, with what was found of one's own answers. */
export class GuideSession implements Part {
  readonly state: StoreApi<GuideState>;
  private readonly kept: KeptOnPage<'guide'>;

  static async open(host: GuideHost): Promise<GuideSession> {
    const [{ version, document }, standing] = await Promise.all([
      getJson(pathOf(host), storedKeptSchema('guide')),
      getJson(`${pathOf(host)}/standing`, guideStandingSchema),
    ]);
    return new GuideSession(host, document, version, standing);
  }

  private constructor(
    private readonly host: GuideHost,
    guide: KeptDocument<'guide'>,
    version: number,
    { mayWrite, checked }: GuideStanding,
  ) {
    this.mayWrite = mayWrite;
    this.state = createStore<GuideState>(() => ({
      guide,
      checked: new Map(checked.map((one) => [one.item, one])),
      isWriting: false,
      fresh: null,
    }));
    this.kept = new KeptOnPage('guide', version, null, {
      id: host.id,
      history: host.history,
      present: () => this.state.getState().guide,
      lay: (document) => this.state.setState({ guide: document }),
      isMoving: () => false,
    });
  }

  /** Whether it is one’s own. */
  readonly mayWrite: boolean;

  get saver() {
    return this.kept.saver;
  }

  get guide(): GuideDocument {
    return this.state.getState().guide;
  }

  /** One step, which can be taken back. */
  change(change: (guide: GuideDocument) => GuideDocument): void {
    const before = this.guide;
    const after = change(before);
    if (after !== before) this.kept.change(before, after);
  }

  /** Writes the guide from now on, or reads it as others do. */
  write(isWriting: boolean): void {
    this.state.setState({ isWriting });
  }

  /** Adds an item at the end, whose first field takes the focus. */
  add(item: GuideItem): void {
    this.state.setState({ fresh: item.id });
    this.change((guide) => withItem(guide, item));
  }

  /** The hand is in the item that was made last. */
  taken(): void {
    this.state.setState({ fresh: null });
  }

  /** Asks whether an answer is right. @throws ApiError that says why it is not checked */
  async check(item: string, answer: GuideAnswer): Promise<void> {
    // A result is worked out with the sheet that the server has, and a question asked with its guide.
    await this.host.stored();
    await this.kept.saver.settled();
    const found = checkedSchema.parse(await request('POST', `${pathOf(this.host)}/checks`, { item, answer }));
    this.state.setState(({ checked }) => ({
      checked: new Map(checked).set(item, { item, answer, ...found }),
    }));
  }

  hear(message: ToScreen): void {
    if (message.type === 'document' && message.investigation === this.host.id) void this.kept.hear(message);
  }

  catchUp(): void {
    void this.fetch();
  }

  keep(): void {
    this.kept.keep();
  }

  dispose(): void {
    this.kept.leave();
  }

  private async fetch(): Promise<void> {
    const { version, document } = await getJson(pathOf(this.host), storedKeptSchema('guide'));
    this.kept.newer(document, version);
  }
}

const pathOf = ({ id }: Pick<GuideHost, 'id'>) => `/investigations/${id}/guide`;
