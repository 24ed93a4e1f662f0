/** How far the saving of a document is; `version` is the one that the server has. */
export type SavingState<T> =
  | { phase: 'clean'; version: number; stored: T }
  /** Changed, and about to be sent. */
  | { phase: 'dirty'; version: number; stored: T; document: T }
  /** On its way; `document` may have changed since. */
  | { phase: 'sending'; version: number; stored: T; sent: T; document: T }
  /** Somebody else has stored another one meanwhile; a person decides. */
  | { phase: 'conflict'; version: number; stored: T; document: T; theirs: T; theirVersion: number }
  /** The server does not answer; it is tried again. */
  | { phase: 'offline'; version: number; stored: T; document: T; sentence: string }
  /** The server does not take it as it is: it stays here, and is sent again once it is another one, or a person wants it. */
  | { phase: 'refused'; version: number; stored: T; document: T; sentence: string };

export type SavingEvent<T> =
  | { kind: 'edited'; document: T }
  | { kind: 'time' }
  | { kind: 'stored'; version: number }
  | { kind: 'stale'; theirs: T; theirVersion: number }
  | { kind: 'failed'; sentence: string }
  | { kind: 'refused'; sentence: string }
  | { kind: 'try-again' }
  /** Another screen has stored a version; the live stream says so. */
  | { kind: 'newer'; theirs: T; theirVersion: number }
  | { kind: 'take-theirs' }
  | { kind: 'keep-mine' };

export type SavingEffect<T> =
  | { kind: 'send'; version: number; document: T }
  | { kind: 'wait'; why: 'pause' | 'retry' }
  /** Lay this document out: it is another one's, which came by itself or was chosen here. */
  | { kind: 'lay-out'; document: T; isChosen?: true };

/** What is in the hand: the document as it stands on the screen. */
export const documentIn = <T>(state: SavingState<T>): T =>
  state.phase === 'clean' ? state.stored : state.document;

/**
 * One step of saving a document under optimistic versions. Pure, so that every course of edits, answers and failures can be
 * tried without a server. What a person has typed is never overwritten: where two have changed a document, a person decides.
 */
export function savingStep<T>(
  state: SavingState<T>,
  event: SavingEvent<T>,
): [SavingState<T>, SavingEffect<T>[]] {
  const { version, stored } = state;
  switch (event.kind) {
    case 'edited':
      switch (state.phase) {
        case 'clean':
        case 'dirty':
        case 'refused':
          // A change that was undone before it was stored needs no storing.
          return event.document === stored
            ? [{ phase: 'clean', version, stored }, []]
            : [
                { phase: 'dirty', version, stored, document: event.document },
                [{ kind: 'wait', why: 'pause' }],
              ];
        default:
          return [{ ...state, document: event.document }, []];
      }
    case 'time':
      if (state.phase !== 'dirty' && state.phase !== 'offline') return [state, []];
      return [
        { phase: 'sending', version, stored, sent: state.document, document: state.document },
        [{ kind: 'send', version, document: state.document }],
      ];
    case 'stored': {
      if (state.phase !== 'sending') return [state, []];
      const { sent, document } = state;
      return document === sent
        ? [{ phase: 'clean', version: event.version, stored: sent }, []]
        : [
            { phase: 'dirty', version: event.version, stored: sent, document },
            [{ kind: 'wait', why: 'pause' }],
          ];
    }
    case 'failed':
      if (state.phase !== 'sending') return [state, []];
      return [
        { phase: 'offline', version, stored, document: state.document, sentence: event.sentence },
        [{ kind: 'wait', why: 'retry' }],
      ];
    case 'refused':
      if (state.phase !== 'sending') return [state, []];
      // What was changed meanwhile may be taken.
      return state.document === state.sent
        ? [{ phase: 'refused', version, stored, document: state.document, sentence: event.sentence }, []]
        : [{ phase: 'dirty', version, stored, document: state.document }, [{ kind: 'wait', why: 'pause' }]];
    case 'try-again':
      if (state.phase !== 'refused' && state.phase !== 'offline') return [state, []];
      return [
        { phase: 'sending', version, stored, sent: state.document, document: state.document },
        [{ kind: 'send', version, document: state.document }],
      ];
    case 'stale':
    case 'newer': {
      const { theirs, theirVersion } = event;
      if (theirVersion <= version) return [state, []];
      if (state.phase === 'clean')
        return [
          { phase: 'clean', version: theirVersion, stored: theirs },
          [{ kind: 'lay-out', document: theirs }],
        ];
      // An answer that got lost: what they have is what was sent from here.
      const mine = state.phase === 'sending' ? state.sent : state.document;
      if (sameDocument(theirs, mine)) {
        return sameDocument(theirs, state.document)
          ? [{ phase: 'clean', version: theirVersion, stored: state.document }, []]
          : [
              { phase: 'dirty', version: theirVersion, stored: mine, document: state.document },
              [{ kind: 'wait', why: 'pause' }],
            ];
      }
      // While a document is on its way its own answer decides.
      if (state.phase === 'sending' && event.kind === 'newer') return [state, []];
      return [{ phase: 'conflict', version, stored, document: state.document, theirs, theirVersion }, []];
    }
    case 'take-theirs':
      if (state.phase !== 'conflict') return [state, []];
      return [
        { phase: 'clean', version: state.theirVersion, stored: state.theirs },
        [{ kind: 'lay-out', document: state.theirs, isChosen: true }],
      ];
    case 'keep-mine':
      if (state.phase !== 'conflict') return [state, []];
      return [
        { phase: 'dirty', version: state.theirVersion, stored: state.theirs, document: state.document },
        [{ kind: 'wait', why: 'pause' }],
      ];
  }
}

const sameDocument = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
