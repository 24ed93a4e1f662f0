import { Button, Dropdown } from 'react-bootstrap';
import { Printer } from 'react-bootstrap-icons';
import { saveAs } from '../files/forms/save';
import { useDocuments } from '../investigation/context';
import { FixedMenu } from '../ui/FixedMenu';
import { useNotebook } from './context';

/** The ways in which a notebook leaves the room. */
export function LeaveMenu() {
  const notebook = useNotebook();
  const name = useDocuments((documents) => documents.name);
  const save = () => {
    const title = notebook.document.heading('title').toString();
    return saveAs({ extension: 'html' }, title === '' ? name : title, async () => {
      const { notebookHtml } = await import('./html/notebookHtml');
      return new Blob([await notebookHtml(notebook, name)], { type: 'text/html' });
    });
  };
  return (
    <>
      <Button variant="plain" onClick={() => window.print()}>
        <Printer aria-hidden /> Print
      </Button>
      <Dropdown align="end">
        <Dropdown.Toggle variant="plain">Save</Dropdown.Toggle>
        <FixedMenu>
          <Dropdown.Item as="button" onClick={() => void save()}>
            Save as one page (HTML), which opens anywhere
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={() => window.print()}>
            Print, or save as PDF in what the browser opens
          </Dropdown.Item>
        </FixedMenu>
      </Dropdown>
    </>
  );
}
