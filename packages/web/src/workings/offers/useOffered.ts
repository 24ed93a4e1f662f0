import { type RelationKey, type SeriesRef } from '@heuristor/core';
import { useEffect, useMemo, useState } from 'react';
import { useDocuments, useFrontRun, useSession, useView } from '../../investigation/context';
import { pageIn } from '../../traces/pages/pages';
import { type Offered } from '../../workers/offered';
import { withEntry } from '../edits';
import { type RegionOffer, regionOffers } from './regionOffers';
import { type ValuedOffer } from './ranking';

/** A hand that moves a region pauses so long before what is offered is worked out anew. */
const restMilliseconds = 200;

interface Answer {
  /** By the place of an offer among all. */
  ids: string[];
  offered: Offered;
  of: SeriesRef;
  region: string;
}

export interface OfferedOnRegion {
  offers: ValuedOffer[];
  relations: Offered['relations'];
  /** While other values are on their way. */
  isBehind: boolean;
}

/** What is offered on a region of a series, with the values of the run in front. */
export function useOffered(of: SeriesRef, region: string): OfferedOnRegion {
  const session = useSession();
  const front = useFrontRun();
  const moving = useView((view) => view.moving);
  // While a hand moves something, the sheet is another one with every picture, and nobody asks.
  const entries = useDocuments(({ workings }) => (moving ? null : workings.entries));
  const frontId = front?.id;
  // While it is recorded, it is another one with every frame.
  const readings = front?.state === 'recording' ? front.id : front;
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [answered, setAnswered] = useState<unknown>(null);
  const asked = useMemo(() => ({ of, region, entries, readings }), [of, region, entries, readings]);
  useEffect(() => {
    if (moving || frontId === undefined) return;
    let isWanted = true;
    const timer = setTimeout(() => {
      const { workings, onPage } = session;
      const made = regionOffers.map(({ kind, preset }) => {
        const { workings: sheet, id } = withEntry(workings, onPage, { kind, preset, of, region });
        return { id, entry: sheet.entries.filter((entry) => entry.id === id) };
      });
      const idOf = (wanted: (offer: RegionOffer) => boolean) =>
        made.flatMap(({ id }, i) => (wanted(regionOffers[i]) ? [id] : []));
      const fits = Object.fromEntries(
        regionOffers.flatMap(({ kind, preset }, i) =>
          kind === 'fit' ? [[preset.relation as RelationKey, made[i].id]] : [],
        ),
      );
      session.pool
        .demand(frontId, 'offered', {
          workings: { ...workings, entries: [...workings.entries, ...made.flatMap(({ entry }) => entry)] },
          of,
          against: pageIn(workings, onPage.page).horizontal,
          region,
          measures: idOf(({ group }) => group === 'measure'),
          fits,
        })
        .then(
          (offered) => {
            if (!isWanted) return;
            setAnswer({ ids: made.map(({ id }) => id), offered, of, region });
            setAnswered(asked);
          },
          // The run has gone meanwhile, or its readings are not here: nothing is said of values.
          () => {
            if (!isWanted) return;
            setAnswer(null);
            setAnswered(asked);
          },
        );
    }, restMilliseconds);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [session, asked, moving, frontId, of, region]);
  // Values of another series or region are none of this one.
  const known = answer?.of === of && answer.region === region ? answer : null;
  return {
    offers: regionOffers.map((offer, i) => ({
      offer,
      outcome: known === null ? undefined : known.offered.outcomes[known.ids[i]],
    })),
    relations: known?.offered.relations ?? [],
    isBehind: moving || answered !== asked,
  };
}
