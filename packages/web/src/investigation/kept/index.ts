import { type KeptKind } from '@heuristor/contracts';
import { type KeptKindHere } from './kind';
import { guide } from './guide';
import { trials } from './trials';
import { workings } from './workings';

/** Every kind of document that an investigation keeps, as pages know it. */
export const keptHere: { readonly [K in KeptKind]: KeptKindHere<K> } = { guide, trials, workings };
