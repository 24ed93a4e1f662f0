import { useEffect, useRef, useState } from 'react';
import { Form } from 'react-bootstrap';

interface Props {
  note: string;
  /** Whether a hand is to write now. */
  isWritten: boolean;
  called: string;
  onCommit: (note: string) => void;
}

/** What somebody wrote beside an entry; written anew where it stands. */
export function EntryNote({ note, isWritten, called, onCommit }: Props) {
  const [text, setText] = useState(note);
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => setText(note), [note]);
  useEffect(() => {
    if (!isWritten) return;
    // The menu that led here gives the focus back to its button first.
    const timer = setTimeout(() => field.current?.focus(), 30);
    return () => clearTimeout(timer);
  }, [isWritten]);
  if (!isWritten) return <p className="entry-note">{note}</p>;
  return (
    <Form.Control
      as="textarea"
      ref={field}
      rows={2}
      className="entry-note"
      aria-label={`Note on ${called}`}
      value={text}
      maxLength={2000}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => onCommit(text.trim())}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onCommit(note);
      }}
    />
  );
}
