import { Button } from 'react-bootstrap';
import { PlusLg, XLg } from 'react-bootstrap-icons';
import { useDocuments, useSession, useShownPage } from '../../investigation/context';
import { mostPages, pageName, withPage } from './pages';
import { NameField } from '../../ui/NameField';

/** The pages of traces, where there is more than one. */
export function PageTabs() {
  const session = useSession();
  const workings = useDocuments((documents) => documents.workings);
  const shown = useShownPage();
  const { pages } = workings;
  if (pages.length < 2) return null;
  return (
    <nav className="page-tabs" aria-label="Pages of traces">
      {pages.map((page) => {
        const name = pageName(workings, page.id);
        return page === shown ? (
          <span key={page.id} className="page-tab current" aria-current="page">
            <NameField
              label="Name of this page"
              value={name}
              onCommit={(typed) =>
                session.changeWorkings((sheet) =>
                  withPage(sheet, page.id, (before) => ({ ...before, name: typed })),
                )
              }
            />
            <Button
              variant="bare"
              aria-label={`Remove ${name}`}
              title="Remove this page"
              onClick={() => session.removePage(page.id)}
            >
              <XLg aria-hidden />
            </Button>
          </span>
        ) : (
          <button key={page.id} className="page-tab" onClick={() => session.looking.open(page.id)}>
            {name}
          </button>
        );
      })}
      {pages.length < mostPages && (
        <Button
          variant="bare"
          aria-label="New page of traces"
          title="New page"
          onClick={() => session.addPage()}
        >
          <PlusLg aria-hidden />
        </Button>
      )}
    </nav>
  );
}
