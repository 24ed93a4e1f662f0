import { type ComponentType, useEffect, useState } from 'react';
import { Message } from './Message';

export interface LoadedPage {
  Page: ComponentType;
  /** Begins to fetch the page's program before the page is wanted. */
  prepare(): void;
}

/**
 * A page whose program is fetched when it is wanted. React's own way shows a page no sooner than 300 ms after its stand-in; a
 * class that waits for its bench has no use for that.
 */
export function loadedPage(load: () => Promise<{ default: ComponentType }>): LoadedPage {
  let loading: Promise<void> | null = null;
  let Loaded: ComponentType | null = null;
  const start = () =>
    (loading ??= load().then(
      (program) => {
        Loaded = program.default;
      },
      (error: unknown) => {
        // The next who wants it tries again.
        loading = null;
        throw error;
      },
    ));
  function Page() {
    const [state, setState] = useState<'waiting' | 'there' | 'failed'>(Loaded === null ? 'waiting' : 'there');
    useEffect(() => {
      let left = false;
      start().then(
        () => left || setState('there'),
        () => left || setState('failed'),
      );
      return () => {
        left = true;
      };
    }, []);
    if (state === 'failed')
      return (
        <Message
          title="This page could not be loaded"
          text="Its program could not be fetched from the server. Reload the page when the server is back."
        />
      );
    return Loaded === null ? <Message title="Loading …" text="" /> : <Loaded />;
  }
  return { Page, prepare: () => void start().catch(() => undefined) };
}
