import { useDocuments } from '../investigation/context';
import { SharedLine } from './SharedLine';
import { useNotebook } from './context';
import { type HeadingField } from './document/notebookDocument';

const fields: readonly { field: HeadingField; label: string; placeholder: string }[] = [
  { field: 'group', label: 'Group', placeholder: 'Group' },
  { field: 'names', label: 'Names', placeholder: 'Names' },
  { field: 'class', label: 'Class', placeholder: 'Class' },
  { field: 'date', label: 'Date', placeholder: 'Date' },
];

/** Whose notebook it is and what it is about; it stands on every printed page. */
export function Heading() {
  const { document, mayWrite } = useNotebook();
  const name = useDocuments((documents) => documents.name);
  return (
    <header className="notebook-heading">
      <div className="notebook-names">
        {fields.map(({ field, label, placeholder }) => (
          <SharedLine
            key={field}
            shared={document.heading(field)}
            label={label}
            placeholder={placeholder}
            mayWrite={mayWrite}
          />
        ))}
      </div>
      <h1>
        <SharedLine
          shared={document.heading('title')}
          label="Title of the notebook"
          placeholder={name}
          mayWrite={mayWrite}
        />
      </h1>
    </header>
  );
}
