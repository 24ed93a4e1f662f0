import { type InvestigationOrder, type InvestigationSummary, daysToPutBack } from '@heuristor/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { request, sentenceOf } from '../api/client';
import { tell } from '../ui/noticeStore';
import { grouped } from './groups';
import { HomeRow } from './HomeRow';
import { type Investigations } from './useInvestigations';

/** Every list of investigations is asked for anew: what one loses another may win. */
function useRefresh(): () => void {
  const queries = useQueryClient();
  return () => void queries.invalidateQueries({ queryKey: ['/investigations'] });
}

interface Props {
  investigations: Investigations;
  /** What they stand under; without it they stand under one another. */
  by: InvestigationOrder | null;
}

/** Investigations under headings, some at a time. */
export function HomeList({ investigations: { list, total, fault, more, refresh }, by }: Props) {
  const renew = useRefresh();
  if (fault !== null)
    return (
      <p className="refused">
        {fault}{' '}
        <Button variant="plain" onClick={() => void refresh()}>
          Try again
        </Button>
      </p>
    );
  if (list === null) return null;
  const rows = (some: readonly InvestigationSummary[]) => (
    <div className="home-list">
      {some.map((summary) => (
        <HomeRow key={summary.id} summary={summary} refresh={renew} />
      ))}
    </div>
  );
  return (
    <>
      {by === null
        ? rows(list)
        : grouped(list, by).map(({ title, investigations }) => (
            <section key={title} className="home-group" aria-label={title}>
              <h2>{title}</h2>
              {rows(investigations)}
            </section>
          ))}
      {list.length < total && (
        <p className="home-more">
          <Button variant="plain" onClick={() => void more()}>
            Show more
          </Button>
          <span className="quiet">
            {list.length} of {total}
          </span>
        </p>
      )}
    </>
  );
}

/** What was removed lately, to be put back. */
export function RemovedList({ investigations: { list, total, more } }: Pick<Props, 'investigations'>) {
  const [isOpen, setOpen] = useState(false);
  const renew = useRefresh();
  if (list === null || list.length === 0) return null;
  const putBack = async ({ id, name }: InvestigationSummary) => {
    try {
      await request('POST', `/investigations/${id}/restore`);
      tell({ kind: 'news', text: `“${name}” is back.` });
      renew();
    } catch (error) {
      tell({ kind: 'fault', text: sentenceOf(error) });
    }
  };
  return (
    <section className="home-group apart" aria-label="Removed">
      <h2>
        <Button variant="bare" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          Removed in the last {daysToPutBack} days ({total})
        </Button>
      </h2>
      {isOpen && (
        <ul className="home-removed">
          {list.map((one) => (
            <li key={one.id}>
              <span>
                {one.name}{' '}
                <span className="quiet">
                  removed {formatDistanceToNow(new Date(one.removedAt ?? one.usedAt), { addSuffix: true })}
                </span>
              </span>
              <Button variant="plain" onClick={() => void putBack(one)}>
                Put back
              </Button>
            </li>
          ))}
          {list.length < total && (
            <Button variant="plain" onClick={() => void more()}>
              Show more
            </Button>
          )}
        </ul>
      )}
    </section>
  );
}
