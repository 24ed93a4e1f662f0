import { AwayLine } from '../away/AwayLine';
import { AwayPanel } from '../away/AwayPanel';
import { AwayWords } from '../away/AwayWords';
import { type WayParts } from './parts';

export const away: WayParts = {
  Bar: AwayWords,
  Line: AwayLine,
  stay: false,
  Panel: AwayPanel,
  Beside: null,
};
