import { type InvestigationSummary, copiedSchema } from '@heuristor/contracts';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { ThreeDots } from 'react-bootstrap-icons';
import { Link } from 'react-router';
import { request, sentenceOf } from '../api/client';
import { FixedMenu } from '../ui/FixedMenu';
import { NameField } from '../ui/NameField';
import { tell } from '../ui/noticeStore';
import { PreviewPicture } from './PreviewPicture';

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** An investigation in the list: what it shows, and what can be done with it. */
export function HomeRow({ summary, refresh }: { summary: InvestigationSummary; refresh: () => void }) {
  const { id, name, theme, runCount, entryCount, usedAt } = summary;
  const [typing, setTyping] = useState<'name' | 'theme' | null>(null);
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      refresh();
    } catch (error) {
      tell({ kind: 'fault', text: sentenceOf(error) });
    }
  };
  const remove = () =>
    act(async () => {
      await request('DELETE', `/investigations/${id}`);
      tell({
        kind: 'news',
        text: `“${name}” is removed.`,
        action: {
          label: 'Undo',
          run: () => void act(() => request('POST', `/investigations/${id}/restore`)),
        },
      });
    });
  const copy = () =>
    act(async () => {
      const { left } = copiedSchema.parse(await request('POST', `/investigations/${id}/copy`));
      if (left.length > 0)
        tell({
          kind: 'news',
          text: `“${name}” is copied without ${left.join(' and ')}: a run that is still being recorded is not copied. Copy it again afterwards.`,
        });
    });
  return (
    <div className="home-row">
      {typing !== null ? (
        <div className="flex-grow-1 p-2">
          <NameField
            label={typing === 'name' ? 'New name' : 'Class or theme'}
            value={typing === 'name' ? name : theme}
            allowEmpty={typing === 'theme'}
            maxLength={typing === 'name' ? 120 : 60}
            autoFocus
            onCommit={(next) => void act(() => request('PATCH', `/investigations/${id}`, { [typing]: next }))}
            onDone={() => setTyping(null)}
          />
        </div>
      ) : (
        <Link to={`/investigations/${id}`}>
          <PreviewPicture id={id} />
          <span className="home-words">
            <strong>{name}</strong>
            <span className="quiet">
              {theme !== '' && <span className="theme">{theme}</span>}
              {counted(runCount, 'run', 'runs')} · {counted(entryCount, 'entry', 'entries')} of workings ·
              used {formatDistanceToNow(new Date(usedAt), { addSuffix: true })}
            </span>
          </span>
        </Link>
      )}
      <Dropdown align="end">
        <Dropdown.Toggle variant="bare" className="no-caret" aria-label={`More for ${name}`}>
          <ThreeDots aria-hidden />
        </Dropdown.Toggle>
        <FixedMenu>
          <Dropdown.Item onClick={() => setTyping('name')}>Rename</Dropdown.Item>
          <Dropdown.Item onClick={() => setTyping('theme')}>Class or theme …</Dropdown.Item>
          <Dropdown.Item onClick={() => void copy()}>Copy with its runs</Dropdown.Item>
          <Dropdown.Item onClick={() => void remove()}>Remove</Dropdown.Item>
        </FixedMenu>
      </Dropdown>
    </div>
  );
}
