import { type ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { ErrorBoundary } from 'react-error-boundary';

interface Props {
  /** What it is that may not be shown: “This entry”, “This trace”. */
  what: string;
  className: string;
  /** It is tried again when one of them changes. */
  resetKeys: readonly unknown[];
  /** What else can be done about it. */
  actions?: ReactNode;
  children: ReactNode;
}

/** Keeps a fault of the program within one part of the page: that part says so, and all else stands. */
export function FaultBoundary({ what, className, resetKeys, actions, children }: Props) {
  return (
    <ErrorBoundary
      resetKeys={[...resetKeys]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <section className={className} role="alert">
          <p className="refused">
            {what} cannot be shown because of an error in Heuristor (
            {error instanceof Error ? error.message : String(error)}). Everything else still works.
          </p>
          <Button variant="plain" onClick={resetErrorBoundary}>
            Try again
          </Button>
          {actions}
        </section>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
