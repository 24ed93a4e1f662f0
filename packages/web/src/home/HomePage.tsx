import { type InvestigationOrder } from '@heuristor/contracts';
import { useState } from 'react';
import { Button, ButtonGroup, Form } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { request, sentenceOf } from '../api/client';
import { Head } from '../header/Head';
import { tell } from '../ui/noticeStore';
import { HomeList, RemovedList } from './HomeLists';
import { TemplateStart } from './TemplateStart';
import { useInvestigations } from './useInvestigations';

const createdSchema = z.object({ id: z.string() });
const orders: readonly { by: InvestigationOrder; title: string }[] = [
  { by: 'use', title: 'By last use' },
  { by: 'theme', title: 'By class or theme' },
];
const orderMemory = 'home-order';

export function HomePage() {
  const navigate = useNavigate();
  const [search, setSearch] = useState('');
  // The field stays under the hand that empties it, however little was found.
  const [hasSearched, setSearched] = useState(false);
  const [by, setBy] = useState<InvestigationOrder>(
    localStorage.getItem(orderMemory) === 'theme' ? 'theme' : 'use',
  );
  const own = useInvestigations(search, 'own', by);
  const examples = useInvestigations(search, 'examples');
  const removed = useInvestigations(search, 'removed');
  /** @param state what the bench begins with */
  const create = async (name: string, state?: { template: string }) => {
    try {
      const { id } = createdSchema.parse(await request('POST', '/investigations', { name }));
      await navigate(`/investigations/${id}`, { state });
    } catch (error) {
      tell({ kind: 'fault', text: sentenceOf(error) });
    }
  };
  const isSearched = search.trim() !== '';
  const isEmpty = own.list?.length === 0;
  const isNothing = isEmpty && examples.list?.length === 0;
  const sort = (wanted: InvestigationOrder) => {
    setBy(wanted);
    localStorage.setItem(orderMemory, wanted);
  };
  return (
    <div className="page">
      <Head />
      <main className="home">
        <div className="home-inner">
          <div className="home-head">
            <h1>Investigations</h1>
            <NewForm create={create} />
            <TemplateStart begin={({ id, name }) => void create(name, { template: id })} />
          </div>
          <div className="home-find">
            {(hasSearched || own.total + examples.total > 1) && (
              <Form.Control
                type="search"
                className="home-search"
                aria-label="Search investigations by name, theme, quantity or note"
                placeholder="Search by name, theme, quantity or note"
                value={search}
                onChange={(event) => {
                  setSearched(true);
                  setSearch(event.target.value);
                }}
              />
            )}
            {own.total > 1 && (
              <ButtonGroup aria-label="Order">
                {orders.map((order) => (
                  <Button
                    key={order.by}
                    variant="plain"
                    active={by === order.by}
                    aria-pressed={by === order.by}
                    onClick={() => sort(order.by)}
                  >
                    {order.title}
                  </Button>
                ))}
              </ButtonGroup>
            )}
          </div>
          {isEmpty && !isSearched && (
            <div className="empty card-sheet">
              <h2>No investigation yet</h2>
              <p>
                Type a name above and begin. An investigation holds the runs you record and everything worked
                out from them.
              </p>
            </div>
          )}
          {isNothing && isSearched && (
            <p className="quiet">
              No investigation has “{search.trim()}” in its name, its theme, its quantities or its notes.
            </p>
          )}
          <HomeList investigations={own} by={by} />
          {examples.list !== null && examples.list.length > 0 && (
            <section className="home-group apart" aria-label="Examples">
              <h2>Examples</h2>
              <p className="quiet">Came with Heuristor. Change them, or copy one to try something out.</p>
              <HomeList investigations={examples} by={null} />
            </section>
          )}
          <RemovedList investigations={removed} />
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
