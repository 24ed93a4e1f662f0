import { type Relation } from '../relation';
import { inversePower } from './inversePower';

export const inverseSquare: Relation = inversePower('inverseSquare', 'inverse square', 'factor / x²', 2);
