import { type GivenColumn, type Run } from '@heuristor/contracts';
import { useDocuments, useFrontRun, useView } from '../../investigation/context';
import { givenColumnsOf } from './spotActions';

/** The series that the next reading goes into, and what is typed for it. */
export function useSeries(): { series: Run | null; columns: GivenColumn[] } {
  const front = useFrontRun();
  const isNew = useView(({ isNewSeries }) => isNewSeries);
  const planned = useDocuments(({ plan }) => plan.spot.columns);
  const series = isNew || front === undefined || front.spot === null ? null : front;
  return { series, columns: givenColumnsOf(series) ?? planned };
}
