import { useDocuments } from '../investigation/context';
import { SharedLine } from './SharedLine';
import { useNotebook } from './context';

/** Beside its title, each with what it is called. */
const fields = { group: 'Group', names: 'Names', class: 'Class', date: 'Date' } as const;

/** Whose notebook it is and what it is about; it stands on every printed page. */
export function Heading() {
  const { document, mayWrite } = useNotebook();
  const name = useDocuments((documents) => documents.name);
  return (
    <header className="notebook-heading">
      <div className="notebook-names">
        {(Object.keys(fields) as (keyof typeof fields)[]).map((field) => (
          <SharedLine
            key={field}
            shared={document.heading(field)}
            label={fields[field]}
            placeholder={fields[field]}
            mayWrite={mayWrite}
          />
        ))}
      </div>
      <h1>
        <SharedLine
          shared={document.heading('title')}
          label="Title of the notebook"
          placeholder={name}
          usual={name}
          mayWrite={mayWrite}
        />
      </h1>
    </header>
  );
}
