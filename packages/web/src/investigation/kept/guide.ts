import { faultOfGuide, guideStepName, guideSteppedBack } from '../../guide/guideDocument';
import { type KeptKindHere } from './kind';

export const guide: KeptKindHere<'guide'> = {
  kind: 'guide',
  page: 'notebook',
  stepName: guideStepName,
  steppedBack: guideSteppedBack,
  faultOf: faultOfGuide,
  takenOver: 'take the other screen’s guide',
};
