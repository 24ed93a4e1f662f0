import { type EntryOfKind } from '@heuristor/core';
import { useEffect, useRef, useState } from 'react';
import { Form } from 'react-bootstrap';

interface Props {
  entry: EntryOfKind<'words'>;
  isWritten: boolean;
  onCommit: (text: string) => void;
}

/** Words on the sheet, written where they stand. */
export function WordsCard({ entry, isWritten, onCommit }: Props) {
  const [text, setText] = useState(entry.text);
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => setText(entry.text), [entry.text]);
  useEffect(() => {
    if (!isWritten) return;
    // The menu that led here gives the focus back to its button first.
    const timer = setTimeout(() => field.current?.focus(), 60);
    return () => clearTimeout(timer);
  }, [isWritten]);
  if (isWritten)
    return (
      <Form.Control
        as="textarea"
        ref={field}
        rows={entry.look === 'heading' ? 1 : 3}
        aria-label="Text on the sheet"
        value={text}
        maxLength={2000}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => onCommit(text.trim())}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onCommit(entry.text);
          if (event.key !== 'Enter' || (entry.look === 'text' && !event.ctrlKey)) return;
          event.preventDefault();
          onCommit(text.trim());
        }}
      />
    );
  if (entry.text === '') return <span className="quiet">Nothing is written here yet.</span>;
  return entry.look === 'heading' ? (
    <h3 className="sheet-heading">{entry.text}</h3>
  ) : (
    <span className="sheet-text">{entry.text}</span>
  );
}
