import { type InvestigationSummary, copiedSchema } from '@heuristor/contracts';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { ThreeDots } from 'react-bootstrap-icons';
import { Link, useNavigate } from 'react-router';
import { z } from 'zod';
import { request, sentenceOf } from '../api/client';
import { tell } from '../ui/noticeStore';
import { FixedMenu } from '../ui/FixedMenu';
import { Head } from '../header/Head';
import { NameField } from '../ui/NameField';
import { PreviewPicture } from './PreviewPicture';
import { useInvestigations } from './useInvestigations';

const createdSchema = z.object({ id: z.string() });

export function HomePage() {
  const navigate = useNavigate();
  const [search, setSearch] = useState('');
  const { list, total, fault, more, refresh } = useInvestigations(search);
  const create = async (name: string) => {
    try {
      const { id } = createdSchema.parse(await request('POST', '/investigations', { name }));
      await navigate(`/investigations/${id}`);
    } catch (error) {
      tell({ kind: 'fault', text: sentenceOf(error) });
    }
  };
  const isSearched = search.trim() !== '';
  return (
    <div className="page">
      <Head />
      <main className="home">
        <div className="home-inner">
          <div className="home-head">
            <h1>Investigations</h1>
            {(isSearched || total > 1) && (
              <Form.Control
                type="search"
                className="home-search"
                aria-label="Search investigations by name"
                placeholder="Search"
                value={search}
                onChange={(event) => setSearch(event.target.value)}
              />
            )}
            <NewForm create={create} />
          </div>
          {fault !== null && (
            <p className="refused">
              {fault}{' '}
              <Button variant="plain" onClick={() => void refresh()}>
                Try again
              </Button>
            </p>
          )}
          {list?.length === 0 && !isSearched && (
            <div className="empty card-sheet">
              <h2>No investigation yet</h2>
              <p>
                Type a name above and begin. An investigation holds the runs you record and everything worked
                out from them.
              </p>
            </div>
          )}
          {list?.length === 0 && isSearched && (
            <p className="quiet">No investigation has “{search.trim()}” in its name.</p>
          )}
          <div className="home-list">
            {list?.map((summary) => (
              <Row key={summary.id} summary={summary} refresh={refresh} />
            ))}
          </div>
          {list !== null && list.length < total && (
            <p className="home-more">
              <Button variant="plain" onClick={() => void more()}>
                Show more
              </Button>
              <span className="quiet">
                {list.length} of {total}
              </span>
            </p>
          )}
        </div>
      </main>
    </div>
  );
}

function NewForm({ create }: { create: (name: string) => Promise<void> }) {
  const [name, setName] = useState('');
  const [isBusy, setIsBusy] = useState(false);
  return (
    <Form
      className="new-form"
      onSubmit={(event) => {
        event.preventDefault();
        // A hand that clicks twice begins one investigation.
        if (name.trim() === '' || isBusy) return;
        setIsBusy(true);
        void create(name.trim()).finally(() => setIsBusy(false));
      }}
    >
      <Form.Control
        aria-label="Name of the new investigation"
        placeholder="Name, e.g. Ship’s bell: three amplitudes"
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
      />
      <Button type="submit" variant="act" disabled={name.trim() === '' || isBusy}>
        Begin
      </Button>
    </Form>
  );
}

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

function Row({ summary, refresh }: { summary: InvestigationSummary; refresh: () => Promise<unknown> }) {
  const { id, name, runCount, entryCount, usedAt } = summary;
  const [renaming, setRenaming] = useState(false);
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await refresh();
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
      {renaming ? (
        <div className="flex-grow-1 p-2">
          <NameField
            label="New name"
            value={name}
            autoFocus
            onCommit={(newName) =>
              void act(() => request('PATCH', `/investigations/${id}`, { name: newName }))
            }
            onDone={() => setRenaming(false)}
          />
        </div>
      ) : (
        <Link to={`/investigations/${id}`}>
          <PreviewPicture id={id} />
          <span className="home-words">
            <strong>{name}</strong>
            <span className="quiet">
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
          <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
          <Dropdown.Item onClick={() => void copy()}>Copy with its runs</Dropdown.Item>
          <Dropdown.Item onClick={() => void remove()}>Remove</Dropdown.Item>
        </FixedMenu>
      </Dropdown>
    </div>
  );
}
