import { type Relation } from '../relation';
import { inversePower } from './inversePower';

export const inverse: Relation = inversePower('inverse', 'inverse', 'factor / x', 1);
