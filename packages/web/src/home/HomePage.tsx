import { type InvestigationSummary, investigationSummarySchema } from '@heuristor/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';
import { z } from 'zod';
import { getJson, request, sentenceOf } from '../api/client';
import { tell } from '../stores/notices';
import { Head } from '../ui/Head';
import { NameField } from '../ui/NameField';

const listSchema = z.array(investigationSummarySchema);
const createdSchema = z.object({ id: z.string() });

export function HomePage() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const list = useQuery({
    queryKey: ['investigations'],
    queryFn: () => getJson('/investigations', listSchema),
    refetchOnMount: 'always',
  });
  const refresh = () => client.invalidateQueries({ queryKey: ['investigations'] });
  const create = useMutation({
    mutationFn: async (newName: string) =>
      createdSchema.parse(await request('POST', '/investigations', { name: newName })),
    onSuccess: ({ id }) => navigate(`/investigations/${id}`),
    onError: (error) => tell({ kind: 'fault', text: sentenceOf(error) }),
  });
  return (
    <div className="page">
      <Head />
      <main className="home">
        <div className="home-inner">
          <div className="home-head">
            <h1>Investigations</h1>
            <form
              className="new-form"
              onSubmit={(event) => {
                event.preventDefault();
                if (name.trim() !== '') create.mutate(name.trim());
              }}
            >
              <input
                className="form-control"
                aria-label="Name of the new investigation"
                placeholder="Name, e.g. Ship’s bell: three amplitudes"
                value={name}
                maxLength={120}
                onChange={(event) => setName(event.target.value)}
              />
              <Button type="submit" variant="act" disabled={name.trim() === '' || create.isPending}>
                Begin
              </Button>
            </form>
          </div>
          {list.isError && <p className="refused">{sentenceOf(list.error)}</p>}
          {list.data?.length === 0 && (
            <div className="empty card-sheet">
              <h2>No investigation yet</h2>
              <p>
                Type a name above and begin. An investigation holds the runs you record and everything worked
                out from them.
              </p>
            </div>
          )}
          <div className="home-list">
            {list.data?.map((summary) => (
              <Row key={summary.id} summary={summary} refresh={refresh} />
            ))}
          </div>
        </div>
      </main>
    </div>
  );
}

const counted = (count: number, word: string) => `${count} ${word}${count === 1 ? '' : 's'}`;

function Row({ summary, refresh }: { summary: InvestigationSummary; refresh: () => Promise<void> }) {
  const { id, name, runCount, lineCount, updatedAt } = summary;
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
          <strong>{name}</strong>
          <span className="quiet">
            {counted(runCount, 'run')} · {counted(lineCount, 'line')} of workings · changed{' '}
            {formatDistanceToNow(new Date(updatedAt), { addSuffix: true })}
          </span>
        </Link>
      )}
      <Dropdown align="end">
        <Dropdown.Toggle variant="bare" className="no-caret" aria-label={`More for ${name}`}>
          <i className="bi bi-three-dots" aria-hidden />
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
          <Dropdown.Item onClick={() => void act(() => request('POST', `/investigations/${id}/copy`))}>
            Copy with its runs
          </Dropdown.Item>
          <Dropdown.Item onClick={() => void remove()}>Remove</Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
    </div>
  );
}
