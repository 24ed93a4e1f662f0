import { PlanLine } from '../plan/PlanLine';
import { RecordButton } from '../RecordButton';
import { type WayParts } from './parts';

export const time: WayParts = { Bar: RecordButton, Line: PlanLine, stay: true, Panel: null, Beside: null };
