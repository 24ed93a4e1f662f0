import { trialsStepName } from '../../trials/stepNames';
import { faultOfTrials, trialsSteppedBack } from '../../trials/trialsDocument';
import { type KeptKindHere } from './kind';

export const trials: KeptKindHere<'trials'> = {
  kind: 'trials',
  page: 'trials',
  stepName: trialsStepName,
  steppedBack: trialsSteppedBack,
  faultOf: faultOfTrials,
  takenOver: 'take the other screen’s trials',
};
