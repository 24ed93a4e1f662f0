import { Head } from '../header/Head';
import { KeysButton } from './KeysDialog';
import { NameField } from '../ui/NameField';
import { useInvestigation, useInvestigationDocuments } from './context';

/** The bar on top of a page of an investigation, with its name to be changed. */
export function InvestigationHead({ page }: { page: 'Bench' | 'Trials' | 'Notebook' }) {
  const session = useInvestigation();
  const name = useInvestigationDocuments((documents) => documents.name);
  return (
    <Head actions={page === 'Bench' && <KeysButton />}>
      {/* A notebook has its own. */}
      {page !== 'Notebook' && (
        <h1 className="visually-hidden">
          {name}: {page}
        </h1>
      )}
      <NameField
        label="Name of the investigation"
        className="title-input"
        value={name}
        onCommit={(newName) => void session.plan.rename(newName)}
      />
    </Head>
  );
}
