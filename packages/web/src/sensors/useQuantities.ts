import { useMemo } from 'react';
import { useDocuments, useInvestigation } from '../investigation/context';
import { type Quantity, quantitiesOf } from './sensors';
import { useDevices } from './devices';

/** What the next run will hold. */
export function useQuantities(): Quantity[] {
  const { id } = useInvestigation();
  const devices = useDevices((state) => state.devices);
  const plan = useDocuments((documents) => documents.plan);
  return useMemo(() => quantitiesOf(devices, plan, id), [devices, plan, id]);
}
