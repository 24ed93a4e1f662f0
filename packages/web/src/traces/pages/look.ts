import { type View } from '../../investigation/state';

/** How a page is looked at. */
export type Look = Pick<View, 'sight' | 'scales' | 'reach' | 'withZero' | 'enlarged'>;
