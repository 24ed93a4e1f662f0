import { type KeptDocument, type KeptKind, type ToScreen, storedKeptSchema } from '@heuristor/contracts';
import { getJson } from '../../api/client';
import { tell } from '../../ui/noticeStore';
import { type History } from '../history';
import { Saver } from '../saver';
import { type StepMemory, tabSteps } from '../stepMemory';
import { documentStep } from './documentStep';
import { sendDocument, sendLast } from './sending';
import { keptHere } from '.';

/** Where a document stands on the page, and what stands beside it. */
interface Place<K extends KeptKind> {
  /** Of the investigation. */
  id: string;
  history: History;
  present(): KeptDocument<K>;
  /** Puts another one there. */
  lay(document: KeptDocument<K>): void;
  /** Whether a hand moves something. */
  isMoving(): boolean;
}

/**
 * A document of an investigation as a page keeps it: changed by steps that can be taken back, stored by itself, laid out anew where
 * another screen of its owner has stored a newer one, and asked about where both have changed it.
 */
export class KeptOnPage<K extends KeptKind> {
  readonly saver: Saver<KeptDocument<K>>;
  private readonly steps: StepMemory<KeptDocument<K>>;

  constructor(
    private readonly kind: K,
    version: number,
    /** Whose it is; others have one of their own over the same runs. Null where there is only one, whoever reads it. */
    private readonly owner: string | null,
    private readonly place: Place<K>,
  ) {
    this.saver = new Saver(
      place.present(),
      version,
      (from, document) => sendDocument(this.path, kind, from, document),
      (document, isChosen) => this.takeOver(document, isChosen),
    );
    this.steps = tabSteps(place.id, kind);
    this.takeUpSteps();
  }

  /** Changes it; every call is one step of undo, but for those of one drag. @returns whether it was changed */
  change(before: KeptDocument<K>, after: KeptDocument<K>): boolean {
    const fault = keptHere[this.kind].faultOf(before, after, this.place.isMoving());
    if (fault !== null) {
      tell({ kind: 'fault', text: fault });
      return false;
    }
    this.put(after);
    this.place.history.push(this.step(before, after));
    return true;
  }

  /** Another screen may have stored it; it is fetched unless it was this one. */
  async hear(message: ToScreen): Promise<void> {
    if (message.type !== 'document' || message.kind !== this.kind) return;
    if (this.owner !== null && message.owner !== this.owner) return;
    const state = this.saver.state.getState();
    if (message.version <= state.version || state.phase === 'sending') return;
    const { version, document } = await getJson(this.path, storedKeptSchema(this.kind));
    this.newer(document, version);
  }

  /** The server has this one. */
  newer(theirs: KeptDocument<K>, theirVersion: number): void {
    this.saver.tell({ kind: 'newer', theirs, theirVersion });
  }

  /** The page may go away in this very moment: what is not stored is sent, and the steps are kept. */
  keep(): void {
    this.keepSteps();
    sendLast(this.path, this.kind, this.saver.unsaved());
  }

  /** Stores what is not stored yet, and goes on trying until it is. */
  leave(): void {
    this.keepSteps();
    this.saver.leave();
  }

  private get path(): string {
    return `/investigations/${this.place.id}/${this.kind}`;
  }

  private put(document: KeptDocument<K>): void {
    this.place.lay(document);
    this.saver.tell({ kind: 'edited', document });
  }

  private step(before: KeptDocument<K>, after: KeptDocument<K>) {
    const { present } = this.place;
    return documentStep(keptHere[this.kind], present, (document) => this.put(document), { before, after });
  }

  /** Another screen’s takes its place. */
  private takeOver(after: KeptDocument<K>, isChosen: boolean): void {
    const before = this.place.present();
    this.place.lay(after);
    // What another person has done is no step of this one, to be taken back here; a choice is.
    if (isChosen)
      this.place.history.push({
        name: keptHere[this.kind].takenOver,
        undo: () => this.put(before),
        redo: () => this.put(after),
      });
  }

  /** Steps that were done before the page was loaded can be taken back still, as long as nobody else has changed it. */
  private takeUpSteps(): void {
    const present = this.place.present();
    const steps = this.steps.load(present);
    if (steps === null) return;
    const states = steps.states.map((state, i) => (i === steps.at ? present : state));
    this.place.history.takeUp(
      { ...steps, states },
      (before, after) => this.step(before, after),
      keptHere[this.kind].page,
    );
  }

  private keepSteps(): void {
    const { page } = keptHere[this.kind];
    this.steps.save(this.place.history.stepsOf(this.kind, this.place.present(), page));
  }
}
