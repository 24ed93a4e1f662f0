import { teacherSchema } from '@heuristor/contracts';
import { lazy, Suspense, useCallback, useEffect, useState } from 'react';
import { Route, Routes, useLocation } from 'react-router';
import { ApiError, getJson, sentenceOf } from './api/client';
import { live } from './api/live';
import { HomePage } from './home/HomePage';
import { SignInPage } from './home/SignInPage';
import { Message } from './ui/Message';
import { Notices } from './ui/Notices';

const loadBench = () => import('./bench/BenchPage');
const BenchPage = lazy(loadBench);
// Who comes to a bench needs its program; it is fetched while the server says who that is.
if (location.pathname.startsWith('/investigations/')) void loadBench();
const StagePage = lazy(() => import('./stage/StagePage'));

type Standing = 'asking' | 'in' | { refused: string };

export function App() {
  const [standing, setStanding] = useState<Standing>('asking');
  const { pathname } = useLocation();
  const signingIn = pathname.startsWith('/sign-in/');
  useEffect(() => {
    if (signingIn) return;
    getJson('/me', teacherSchema).then(
      () => {
        live.open();
        setStanding('in');
      },
      (error: unknown) =>
        setStanding({
          refused:
            error instanceof ApiError && error.code === 'not-signed-in'
              ? 'Open the sign-in link that Heuristor printed when it started, or run “npm run sign-in-link” for a new one.'
              : sentenceOf(error),
        }),
    );
  }, [signingIn]);
  const onSignedIn = useCallback(() => setStanding('in'), []);
  if (signingIn)
    return (
      <Routes>
        <Route path="/sign-in/:token" element={<SignInPage onSignedIn={onSignedIn} />} />
      </Routes>
    );
  if (standing === 'asking') return <Message title="One moment …" text="" />;
  if (standing !== 'in') return <Message title="Please sign in" text={standing.refused} />;
  return (
    <>
      <Suspense fallback={<Message title="One moment …" text="" />}>
        <Routes>
          <Route path="/" element={<HomePage />} />
          <Route path="/investigations/:id" element={<BenchPage />} />
          <Route path="/stage" element={<StagePage />} />
          <Route
            path="*"
            element={<Message title="There is no such page" text="Go back to the start page of Heuristor." />}
          />
        </Routes>
      </Suspense>
      <Notices />
    </>
  );
}
