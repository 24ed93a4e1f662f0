import { teacherSchema } from '@heuristor/contracts';
import { useCallback, useEffect, useState } from 'react';
import { Route, Routes, useLocation } from 'react-router';
import { ApiError, getJson, sentenceOf } from './api/client';
import { live } from './api/live';
import { HomePage } from './home/HomePage';
import { SignInPage } from './home/SignInPage';
import { useDecimalSign } from './stores/decimalSign';
import { loadedPage } from './ui/loadedPage';
import { Message } from './ui/Message';
import { Notices } from './ui/Notices';

const bench = loadedPage(() => import('./bench/BenchPage'));
const stage = loadedPage(() => import('./stage/StagePage'));
const phone = loadedPage(() => import('./phone/PhonePage'));
// Who comes to a bench needs its program; it is fetched while the server says who that is.
if (location.pathname.startsWith('/investigations/')) bench.prepare();

type Standing = 'asking' | 'in' | { refused: string };

export function App() {
  const [standing, setStanding] = useState<Standing>('asking');
  const { pathname } = useLocation();
  // Numbers stand everywhere, on canvases too: all is drawn anew where they are written otherwise.
  const sign = useDecimalSign((state) => state.sign);
  const signingIn = pathname.startsWith('/sign-in/');
  const isPhone = pathname === '/phone';
  useEffect(() => {
    if (signingIn || isPhone) return;
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
  }, [signingIn, isPhone]);
  const onSignedIn = useCallback(() => setStanding('in'), []);
  if (signingIn)
    return (
      <Routes>
        <Route path="/sign-in/:token" element={<SignInPage onSignedIn={onSignedIn} />} />
      </Routes>
    );
  // A phone shows a code, and is nobody's page.
  if (isPhone) return <phone.Page />;
  if (standing === 'asking') return <Message title="One moment …" text="" />;
  if (standing !== 'in') return <Message title="Please sign in" text={standing.refused} />;
  return (
    <>
      <Routes key={sign}>
        <Route path="/" element={<HomePage />} />
        <Route path="/investigations/:id" element={<bench.Page />} />
        <Route path="/stage" element={<stage.Page />} />
        <Route path="/stage/:apparatus" element={<stage.Page />} />
        <Route
          path="*"
          element={<Message title="There is no such page" text="Go back to the start page of Heuristor." />}
        />
      </Routes>
      <Notices />
    </>
  );
}
