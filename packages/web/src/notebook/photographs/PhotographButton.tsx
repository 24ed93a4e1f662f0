import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useNotebook } from '../context';
import { takePhotograph } from './takePhotograph';

/** Asks for a photograph: of a file, or where the machine has one, of its camera. */
export function PhotographButton() {
  const notebook = useNotebook();
  const field = useRef<HTMLInputElement>(null);
  const [isTaking, setIsTaking] = useState(false);
  return (
    <>
      <Button variant="plain" aria-busy={isTaking} onClick={() => isTaking || field.current?.click()}>
        <PlusLg aria-hidden /> {isTaking ? 'Reading it …' : 'Photograph'}
      </Button>
      <input
        ref={field}
        type="file"
        accept="image/*"
        hidden
        aria-label="Photograph"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file === undefined) return;
          setIsTaking(true);
          void takePhotograph(notebook, file).finally(() => setIsTaking(false));
        }}
      />
    </>
  );
}
