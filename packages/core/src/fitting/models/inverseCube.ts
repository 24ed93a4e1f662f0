import { type Relation } from '../relation';
import { inversePower } from './inversePower';

export const inverseCube: Relation = inversePower('inverseCube', 'inverse cube', 'factor / x³', 3);
