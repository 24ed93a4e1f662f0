import { meSchema } from '@heuristor/contracts';
import { useQuery } from '@tanstack/react-query';
import { type ComponentType, useCallback, useEffect, useState } from 'react';
import { Route, Routes, useLocation } from 'react-router';
import { ApiError, getJson, sentenceOf } from './api/client';
import { live } from './api/live';
import { HomePage } from './home/HomePage';
import { SignInPage } from './home/SignInPage';
import { investigationPages, pageAt, pageCalled } from './investigation/pages';
import { useDecimalSign } from './ui/decimalSign';
import { loadedPage } from './ui/loadedPage';
import { Message } from './ui/Message';
import { Notices } from './ui/Notices';

const investigation = loadedPage(() => import('./investigation/InvestigationLayout'));
const stage = pageCalled('stage').page;
const phone = loadedPage(() => import('./phone/PhonePage'));
// Who comes to a bench needs its program; it is fetched while the server says who that is.
if (location.pathname.startsWith('/investigations/')) {
  investigation.prepare();
  pageAt(location.pathname).page.prepare();
}

/** Numbers stand everywhere, on canvases too: a page is drawn anew where they are written otherwise. What it stands on stays. */
function Written({ by: Page }: { by: ComponentType }) {
  const sign = useDecimalSign((state) => state.sign);
  return <Page key={sign} />;
}

const refusedWords = (error: unknown): string =>
  error instanceof ApiError && error.code === 'not-signed-in'
    ? 'Open the sign-in link that Heuristor printed when it started, or run “npm run sign-in-link” for a new one.'
    : sentenceOf(error);

export function App() {
  const { pathname } = useLocation();
  const signingIn = pathname.startsWith('/sign-in/');
  const isPhone = pathname === '/phone';
  const [hasSignedIn, setSignedIn] = useState(false);
  const { data, error } = useQuery({
    queryKey: ['/me'],
    queryFn: () => getJson('/me', meSchema),
    enabled: !signingIn && !isPhone,
    staleTime: Infinity,
  });
  const isIn = hasSignedIn || data !== undefined;
  useEffect(() => {
    if (data !== undefined) live.open();
  }, [data]);
  const onSignedIn = useCallback(() => setSignedIn(true), []);
  if (signingIn)
    return (
      <Routes>
        <Route path="/sign-in/:token" element={<SignInPage onSignedIn={onSignedIn} />} />
      </Routes>
    );
  // A phone shows a code, and is nobody's page.
  if (isPhone) return <phone.Page />;
  if (!isIn && error === null) return <Message title="Loading …" text="" />;
  if (!isIn) return <Message title="Please sign in" text={refusedWords(error)} />;
  return (
    <>
      <Routes>
        <Route path="/" element={<Written by={HomePage} />} />
        <Route path="/investigations/:id" element={<investigation.Page />}>
          {investigationPages.flatMap(({ path, below, page: { Page } }) =>
            [path, ...below.map((further) => `${path}/${further}`)].map((place) => (
              <Route key={place} path={place} element={<Written by={Page} />} />
            )),
          )}
        </Route>
        <Route path="/stage" element={<Written by={stage.Page} />} />
        <Route path="/stage/:apparatus" element={<Written by={stage.Page} />} />
        <Route
          path="*"
          element={<Message title="There is no such page" text="Go back to the start page of Heuristor." />}
        />
      </Routes>
      <Notices />
    </>
  );
}
