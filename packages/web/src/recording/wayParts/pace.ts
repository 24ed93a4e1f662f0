import { PaceLine } from '../pace/PaceLine';
import { PacePanel } from '../pace/PacePanel';
import { RecordButton } from '../RecordButton';
import { type WayParts } from './parts';

export const pace: WayParts = {
  Bar: RecordButton,
  Line: PaceLine,
  stay: true,
  Panel: PacePanel,
  Beside: null,
};
