import { SpotBar } from '../spots/SpotBar';
import { SpotLine } from '../spots/SpotLine';
import { SpotTable } from '../spots/SpotTable';
import { type WayParts } from './parts';

export const spot: WayParts = {
  Bar: SpotBar,
  Line: SpotLine,
  stay: false,
  Panel: null,
  Beside: SpotTable,
};
