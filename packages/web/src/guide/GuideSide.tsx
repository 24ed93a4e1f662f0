import { type ReactNode, Suspense, lazy } from 'react';

const GuideColumn = lazy(() => import('./GuideColumn'));

/** The guide in a column beside what is worked on; its program is fetched with it. @param beside what else its head holds */
export function GuideSide({ beside }: { beside?: ReactNode }) {
  return (
    <>
      <div className="side-head titled">
        <h2>Guide</h2>
        {beside}
      </div>
      <Suspense fallback={<p className="quiet">Loading …</p>}>
        <GuideColumn />
      </Suspense>
    </>
  );
}
