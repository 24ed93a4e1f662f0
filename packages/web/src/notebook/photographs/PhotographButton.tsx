import { useNotebook } from '../context';
import { FileButton } from '../FileButton';
import { takePhotograph } from './takePhotograph';

/** Asks for a photograph. */
export function PhotographButton() {
  const notebook = useNotebook();
  return <FileButton title="Photograph" accept="image/*" take={(file) => takePhotograph(notebook, file)} />;
}
