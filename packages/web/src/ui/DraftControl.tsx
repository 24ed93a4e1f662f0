import { type Ref } from 'react';
import { Form } from 'react-bootstrap';
import { type Draft } from './useDraft';

interface Props {
  draft: Draft;
  label: string;
  id?: string;
  className?: string;
  size?: 'sm';
  maxLength?: number;
  placeholder?: string;
  disabled?: boolean;
  autoFocus?: boolean;
  /** Id of a list of texts that are often meant. */
  list?: string;
  ref?: Ref<HTMLInputElement>;
}

/** A field into which a draft is typed, with the sentence about what is wrong with it. */
export function DraftControl({ draft: { text, wrong, sentenceId, handlers }, label, ...field }: Props) {
  return (
    <>
      <Form.Control
        {...field}
        {...handlers}
        aria-label={label}
        aria-describedby={wrong === null ? undefined : sentenceId}
        aria-invalid={wrong !== null}
        isInvalid={wrong !== null}
        value={text}
      />
      {wrong !== null && (
        <Form.Control.Feedback type="invalid" tooltip id={sentenceId}>
          {wrong}
        </Form.Control.Feedback>
      )}
    </>
  );
}
