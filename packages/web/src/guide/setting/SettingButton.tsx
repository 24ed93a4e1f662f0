import { type GuideSetting } from '@heuristor/contracts';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { addressOf } from '../../investigation/addresses';
import { useInvestigation } from '../../investigation/context';
import { onPage } from '../../investigation/sides';
import { useQuantities } from '../../sensors/useQuantities';
import { useGuide } from '../context';
import { applySetting, setsUp } from './applySetting';
import { settingWords } from './settingWords';

/** One press that sets the bench up for a step, and goes there. */
export function SettingButton({ setting }: { setting: GuideSetting }) {
  const session = useInvestigation();
  const guide = useGuide();
  const navigate = useNavigate();
  const quantities = useQuantities();
  const [isBusy, setBusy] = useState(false);
  if (!setsUp(setting)) return null;
  const go = async () => {
    setBusy(true);
    await applySetting(session, setting, guide.mayWrite);
    setBusy(false);
    onPage(() => void navigate(addressOf(session.id, { path: '' })));
  };
  return (
    <Button
      variant="plain"
      className="set-up-step"
      disabled={isBusy}
      title={settingWords(setting, quantities).join('\n')}
      onClick={() => void go()}
    >
      {isBusy ? 'Setting up …' : 'Set up the bench for this step'}
    </Button>
  );
}
