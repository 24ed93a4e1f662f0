import { type Editor } from '@tiptap/core';
import { useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { isSafeLink } from './extensions';

/** An address as it was typed; without a scheme it is one of the web. */
const completed = (typed: string) => (/^[a-z][a-z0-9+.-]*:/i.test(typed) ? typed : `https://${typed}`);

/** Asks where a link leads. */
export function LinkDialog({ editor, onClose }: { editor: Editor; onClose: () => void }) {
  const present = editor.getAttributes('link').href as string | undefined;
  const [typed, setTyped] = useState(present ?? '');
  const address = completed(typed.trim());
  const isWrong = typed.trim() !== '' && !isSafeLink(address);
  const keep = () => {
    if (isWrong) return;
    onClose();
    setTimeout(() => {
      const chain = editor.chain().focus().extendMarkRange('link');
      if (typed.trim() === '') chain.unsetLink().run();
      else if (editor.state.selection.empty && present === undefined)
        chain
          .insertContent({
            type: 'text',
            text: typed.trim(),
            marks: [{ type: 'link', attrs: { href: address } }],
          })
          .run();
      else chain.setLink({ href: address }).run();
    });
  };
  return (
    <Modal show onHide={onClose} animation={false} aria-labelledby="link-title">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="link-title">Link</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form
          id="link-form"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <Form.Control
            autoFocus
            aria-label="Address"
            placeholder="https://…"
            value={typed}
            isInvalid={isWrong}
            spellCheck={false}
            onChange={({ target }) => setTyped(target.value)}
          />
          <Form.Control.Feedback type="invalid">
            A link leads to an address that begins with https://, http:// or mailto:.
          </Form.Control.Feedback>
        </Form>
      </Modal.Body>
      <Modal.Footer>
        {present !== undefined && (
          <Button
            variant="plain"
            onClick={() => {
              onClose();
              setTimeout(() => editor.chain().focus().extendMarkRange('link').unsetLink().run());
            }}
          >
            Take the link away
          </Button>
        )}
        <Button variant="act" type="submit" form="link-form" disabled={isWrong}>
          Keep
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
