import { Button, Dropdown } from 'react-bootstrap';
import { Printer } from 'react-bootstrap-icons';
import { saveAs } from '../files/forms/save';
import { useDocuments } from '../investigation/context';
import { FixedMenu } from '../ui/FixedMenu';
import { useNotebook } from './context';
import { type WrittenNotebook } from './written/collect';

/** The ways in which a notebook leaves the room. */
export function LeaveMenu() {
  const notebook = useNotebook();
  const name = useDocuments((documents) => documents.name);
  const save = (extension: string, write: (written: WrittenNotebook) => Promise<Blob>) => {
    const title = notebook.document.heading('title').toString();
    return saveAs({ extension }, title === '' ? name : title, async () => {
      const { collected } = await import('./written/collect');
      return write(await collected(notebook, name));
    });
  };
  const html = () =>
    save('html', async (written) => {
      const { notebookHtml } = await import('./html/notebookHtml');
      return new Blob([notebookHtml(written)], { type: 'text/html' });
    });
  const word = () =>
    save('docx', async (written) => {
      const { notebookWord } = await import('./word/notebookWord');
      return notebookWord(written);
    });
  return (
    <>
      <Button variant="plain" onClick={() => window.print()}>
        <Printer aria-hidden /> Print
      </Button>
      <Dropdown align="end">
        <Dropdown.Toggle variant="plain">Save</Dropdown.Toggle>
        <FixedMenu>
          <Dropdown.Item as="button" onClick={() => void html()}>
            Save as one page (HTML), which opens anywhere
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={() => void word()}>
            Save as a text document (DOCX), to go on writing elsewhere
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={() => window.print()}>
            Print, or save as PDF in what the browser opens
          </Dropdown.Item>
        </FixedMenu>
      </Dropdown>
    </>
  );
}
