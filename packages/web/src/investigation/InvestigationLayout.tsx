import { useEffect, useMemo, useState } from 'react';
import { Outlet, useLocation, useParams } from 'react-router';
import { ApiError, sentenceOf } from '../api/client';
import { SessionProvider } from './context';
import { InvestigationSession } from './investigationSession';
import { Message } from '../ui/Message';
import { PageLinksProvider } from '../header/PageLinks';
import { RunPool } from '../runs/pool';
import { investigationPages, pageAt } from './pages';
import { addressOf } from './addresses';

// While the investigation is fetched, the workers read their program.
RunPool.prepare();

type Opening = { session: InvestigationSession } | { fault: string; isMissing: boolean } | null;

/** Holds the one session on which all pages of an investigation stand: who goes from one to another finds each as it was left. */
export default function InvestigationLayout() {
  const { id = '' } = useParams();
  const [opening, setOpening] = useState<Opening>(null);
  const links = useMemo(
    () =>
      investigationPages.map((page) => ({
        to: addressOf(id, page),
        title: page.title,
        isExact: page.path === '',
      })),
    [id],
  );
  useEffect(() => {
    let session: InvestigationSession | null = null;
    let left = false;
    setOpening(null);
    InvestigationSession.open(id).then(
      (opened) => {
        if (left) {
          opened.dispose();
          return;
        }
        session = opened;
        pageAt(globalThis.location.pathname)
          .prepare?.(opened)
          .catch(() => undefined);
        setOpening({ session: opened });
      },
      (error: unknown) => {
        if (!left)
          setOpening({
            fault: sentenceOf(error),
            isMissing: error instanceof ApiError && error.code === 'not-found',
          });
      },
    );
    return () => {
      left = true;
      session?.dispose();
    };
  }, [id]);
  const { path } = pageAt(useLocation().pathname);
  const session = opening !== null && 'session' in opening ? opening.session : null;
  useEffect(() => session?.history.enter(path), [session, path]);
  if (opening === null) return <Message title="Loading …" text="" />;
  if ('fault' in opening)
    return (
      <Message
        title={opening.isMissing ? 'There is no such investigation' : 'This investigation cannot be opened'}
        text={opening.fault}
      />
    );
  return (
    <SessionProvider session={opening.session}>
      <PageLinksProvider value={links}>
        <Outlet />
      </PageLinksProvider>
    </SessionProvider>
  );
}
