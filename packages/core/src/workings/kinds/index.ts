import { area } from './area';
import { calculation } from './calculation';
import { beamPair } from './beamPair';
import { change } from './change';
import { changeAcross } from './changeAcross';
import { closeness } from './closeness';
import { combination } from './combination';
import { comparison } from './comparison';
import { constant } from './constant';
import { counting } from './counting';
import { crossings } from './crossings';
import { cycles } from './cycles';
import { derivative } from './derivative';
import { envelope } from './envelope';
import { fence } from './fence';
import { fit } from './fit';
import { flagPair } from './flagPair';
import { flagSpeed } from './flagSpeed';
import { formulaFit } from './formulaFit';
import { formulaSeries } from './formulaSeries';
import { histogram } from './histogram';
import { integral } from './integral';
import { paceSlopes } from './paceSlopes';
import { peaks } from './peaks';
import { period } from './period';
import { readout } from './readout';
import { region } from './region';
import { riseTime } from './riseTime';
import { shifted } from './shifted';
import { slope } from './slope';
import { smoothing } from './smoothing';
import { spectrum } from './spectrum';
import { spokes } from './spokes';
import { statistics } from './statistics';
import { tangent } from './tangent';
import { words } from './words';

/** Every kind of entry there is, in the order in which they are offered. */
export const kinds = {
  region,
  derivative,
  smoothing,
  integral,
  shifted,
  envelope,
  formulaSeries,
  flagSpeed,
  fence,
  flagPair,
  beamPair,
  period,
  spokes,
  counting,
  statistics,
  slope,
  area,
  changeAcross,
  cycles,
  peaks,
  crossings,
  riseTime,
  fit,
  formulaFit,
  spectrum,
  histogram,
  readout,
  change,
  tangent,
  closeness,
  paceSlopes,
  constant,
  calculation,
  combination,
  comparison,
  words,
};

export type Kinds = typeof kinds;
