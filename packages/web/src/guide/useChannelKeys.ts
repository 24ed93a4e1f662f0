import { useInvestigationDocuments } from '../investigation/context';
import { useQuantities } from '../sensors/useQuantities';
import { presentRuns } from '../runs/runs';

/** The keys of all that is measured here, by sensors or in runs. @param beside one that is among them in any case; '' for none */
export function useChannelKeys(beside = ''): string[] {
  const quantities = useQuantities();
  const runs = useInvestigationDocuments((documents) => documents.runs);
  const keys = [
    ...quantities.map(({ key }) => key),
    ...presentRuns(runs).flatMap(({ channels }) => channels.map(({ key }) => key)),
    ...(beside === '' ? [] : [beside]),
  ];
  return [...new Set(keys)];
}
