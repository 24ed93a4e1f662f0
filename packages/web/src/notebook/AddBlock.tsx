import { Dropdown } from 'react-bootstrap';
import { useNotebook } from './context';
import { useNewBlocks } from './newBlocks';

/** What can be put behind a block, as entries of a menu. */
export function AddBlock({ after }: { after: string }) {
  const notebook = useNotebook();
  const newBlocks = useNewBlocks();
  return newBlocks.map(({ title, called, block }) => (
    <Dropdown.Item key={title} as="button" onClick={() => notebook.add(block, called, after)}>
      {title} below
    </Dropdown.Item>
  ));
}
