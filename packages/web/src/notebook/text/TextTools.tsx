import { type ChainedCommands, type Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { useState } from 'react';
import { Button, ButtonGroup, Dropdown, Form } from 'react-bootstrap';
import {
  type Icon,
  Link45deg,
  ListOl,
  ListUl,
  Quote,
  Subscript,
  Superscript,
  Table,
  TypeBold,
  TypeItalic,
} from 'react-bootstrap-icons';
import { FixedMenu } from '../../ui/FixedMenu';
import { LinkDialog } from './LinkDialog';
import { QuoteChooser } from './QuoteChooser';
import { useActiveEditor } from './activeEditor';
import { symbols } from './symbols';

interface Toggled {
  /** What the editor calls it. */
  name: string;
  title: string;
  Icon: Icon;
  toggle(chain: ChainedCommands): ChainedCommands;
}

const mark = (name: string, title: string, Icon: Icon): Toggled => ({
  name,
  title,
  Icon,
  toggle: (chain) => chain.toggleMark(name),
});

const marks: readonly Toggled[] = [
  mark('bold', 'Bold', TypeBold),
  mark('italic', 'Italic', TypeItalic),
  mark('subscript', 'Subscript', Subscript),
  mark('superscript', 'Superscript', Superscript),
];

const lists: readonly Toggled[] = [
  { name: 'bulletList', title: 'List', Icon: ListUl, toggle: (chain) => chain.toggleBulletList() },
  { name: 'orderedList', title: 'Numbered list', Icon: ListOl, toggle: (chain) => chain.toggleOrderedList() },
];

type Asked = 'quote' | 'link' | null;

/** What can be done with the text in which the hand writes. */
export function TextTools() {
  const editor = useActiveEditor((state) => state.editor);
  const [asked, setAsked] = useState<Asked>(null);
  // What is pressed here must not take the hand out of the text.
  return (
    <div
      className="text-tools"
      role="toolbar"
      aria-label="Text"
      onMouseDown={(event) => event.target instanceof HTMLSelectElement || event.preventDefault()}
    >
      <Tools editor={editor} onAsk={setAsked} />
      {editor !== null && asked === 'quote' && (
        <QuoteChooser editor={editor} onClose={() => setAsked(null)} />
      )}
      {editor !== null && asked === 'link' && <LinkDialog editor={editor} onClose={() => setAsked(null)} />}
    </div>
  );
}

function Tools({ editor, onAsk }: { editor: Editor | null; onAsk: (asked: Asked) => void }) {
  const state = useEditorState({
    editor,
    selector: ({ editor: now }) =>
      now === null || now.isDestroyed
        ? null
        : {
            style: now.isActive('heading', { level: 2 })
              ? 'heading'
              : now.isActive('heading', { level: 3 })
                ? 'subheading'
                : 'text',
            active: [...marks, ...lists].map(({ name }) => name).filter((name) => now.isActive(name)),
            isInTable: now.isActive('table'),
            isLink: now.isActive('link'),
          },
  });
  const chain = () => editor?.chain().focus();
  const isOff = editor === null || !editor.isEditable;
  const is = (name: string) => state?.active.some((one) => one === name) === true;
  return (
    <>
      <Form.Select
        aria-label="Kind of paragraph"
        disabled={isOff}
        value={state?.style ?? 'text'}
        onChange={({ target }) =>
          target.value === 'text'
            ? chain()?.setParagraph().run()
            : chain()
                ?.setHeading({ level: target.value === 'heading' ? 2 : 3 })
                .run()
        }
      >
        <option value="text">Text</option>
        <option value="heading">Heading</option>
        <option value="subheading">Subheading</option>
      </Form.Select>
      {[marks, lists].map((group, i) => (
        <ButtonGroup key={i}>
          {group.map(({ name, title, Icon, toggle }) => (
            <Button
              key={name}
              variant="plain"
              disabled={isOff}
              aria-pressed={is(name)}
              aria-label={title}
              title={title}
              onClick={() => editor !== null && toggle(editor.chain().focus()).run()}
            >
              <Icon aria-hidden />
            </Button>
          ))}
        </ButtonGroup>
      ))}
      <Button variant="plain" disabled={isOff} onClick={() => onAsk('quote')}>
        <Quote aria-hidden /> Value
      </Button>
      <Button
        variant="plain"
        disabled={isOff}
        onClick={() =>
          chain()
            ?.insertContent({ type: 'formula', attrs: { tex: '' } })
            .run() && selectBefore(editor)
        }
      >
        Formula
      </Button>
      <Dropdown>
        <Dropdown.Toggle variant="plain" disabled={isOff}>
          Symbol
        </Dropdown.Toggle>
        <FixedMenu className="symbols">
          {symbols.map((symbol) => (
            <Dropdown.Item key={symbol} as="button" onClick={() => chain()?.insertContent(symbol).run()}>
              {symbol}
            </Dropdown.Item>
          ))}
        </FixedMenu>
      </Dropdown>
      <Button
        variant="plain"
        disabled={isOff}
        aria-pressed={state?.isLink === true}
        aria-label="Link"
        title="Link"
        onClick={() => onAsk('link')}
      >
        <Link45deg aria-hidden />
      </Button>
      <Dropdown>
        <Dropdown.Toggle variant="plain" disabled={isOff} aria-label="Table" title="Table">
          <Table aria-hidden />
        </Dropdown.Toggle>
        <FixedMenu>
          {state?.isInTable === true ? (
            <>
              <Dropdown.Item as="button" onClick={() => chain()?.addRowAfter().run()}>
                Row below
              </Dropdown.Item>
              <Dropdown.Item as="button" onClick={() => chain()?.addColumnAfter().run()}>
                Column after
              </Dropdown.Item>
              <Dropdown.Item as="button" onClick={() => chain()?.deleteRow().run()}>
                Take this row out
              </Dropdown.Item>
              <Dropdown.Item as="button" onClick={() => chain()?.deleteColumn().run()}>
                Take this column out
              </Dropdown.Item>
              <Dropdown.Item as="button" onClick={() => chain()?.deleteTable().run()}>
                Take the table out
              </Dropdown.Item>
            </>
          ) : (
            <Dropdown.Item
              as="button"
              onClick={() => chain()?.insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run()}
            >
              Table of 3 × 3
            </Dropdown.Item>
          )}
        </FixedMenu>
      </Dropdown>
    </>
  );
}

/** A formula that was just put in is selected, so that it can be written. */
function selectBefore(editor: Editor | null): void {
  if (editor !== null) editor.commands.setNodeSelection(editor.state.selection.from - 1);
}
