import { faultOfSheet } from '../../workings/sheetLimits';
import { steppedBack } from '../stepBack';
import { sheetStepName } from '../../workings/stepNames';
import { type KeptKindHere } from './kind';

export const workings: KeptKindHere<'workings'> = {
  kind: 'workings',
  page: '',
  stepName: sheetStepName,
  steppedBack,
  faultOf: faultOfSheet,
  takenOver: 'take the other screen’s workings',
};
