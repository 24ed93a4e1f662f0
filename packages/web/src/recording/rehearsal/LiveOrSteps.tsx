import { useQuantities } from '../../sensors/useQuantities';
import { FirstSteps } from './FirstSteps';
import { LiveView } from './LiveView';

/** What stands in the middle of a bench without a run: what its sensors read, or what to do first. */
export function LiveOrSteps() {
  return useQuantities().length > 0 ? <LiveView /> : <FirstSteps />;
}
