import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';

interface Props {
  title: string;
  accept: string;
  take: (file: File) => Promise<void>;
}

/** Asks for a file that becomes a block; where the machine has a camera, of that. */
export function FileButton({ title, accept, take }: Props) {
  const field = useRef<HTMLInputElement>(null);
  const [isTaking, setIsTaking] = useState(false);
  return (
    <>
      <Button variant="plain" aria-busy={isTaking} onClick={() => isTaking || field.current?.click()}>
        <PlusLg aria-hidden /> {isTaking ? 'Reading it …' : title}
      </Button>
      <input
        ref={field}
        type="file"
        accept={accept}
        hidden
        aria-label={title}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file === undefined) return;
          setIsTaking(true);
          void take(file).finally(() => setIsTaking(false));
        }}
      />
    </>
  );
}
