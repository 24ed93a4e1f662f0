import { type ComponentProps, useEffect, useRef, useState } from 'react';
import { Form } from 'react-bootstrap';

/** What is typed takes effect after so long a pause, or where the field is left. */
const pauseMilliseconds = 800;

interface Props extends Pick<ComponentProps<typeof Form.Control>, 'placeholder' | 'maxLength' | 'autoFocus'> {
  label: string;
  value: string;
  onCommit: (text: string) => void;
}

/** A text of several lines, as high as what stands in it. */
export function LongText({ label, value, onCommit, ...field }: Props) {
  const [text, setText] = useState(value);
  const area = useRef<HTMLTextAreaElement>(null);
  const latest = useRef({ text, value, onCommit });
  useEffect(() => {
    latest.current = { text, value, onCommit };
  });
  useEffect(() => setText(value), [value]);
  useEffect(() => {
    if (area.current === null) return;
    area.current.style.height = 'auto';
    area.current.style.height = `${area.current.scrollHeight + 2}px`;
  }, [text]);
  const commit = () => {
    const { text: typed, value: standing, onCommit: take } = latest.current;
    if (typed !== standing) take(typed);
  };
  useEffect(() => {
    if (text === value) return undefined;
    const timer = setTimeout(commit, pauseMilliseconds);
    return () => clearTimeout(timer);
  }, [text, value]);
  // The field may go while something typed waits.
  useEffect(() => commit, []);
  return (
    <Form.Control
      {...field}
      as="textarea"
      rows={2}
      size="sm"
      ref={area}
      className="long-text"
      aria-label={label}
      value={text}
      onChange={({ target }) => setText(target.value)}
      onBlur={commit}
    />
  );
}
