import { noSetting } from '@heuristor/contracts';
import { SignpostSplit } from 'react-bootstrap-icons';
import { CheckFields } from '../checks/CheckFields';
import { CheckList } from '../checks/CheckList';
import { Drawing } from '../drawings/Drawing';
import { DrawingField } from '../drawings/DrawingField';
import { SettingButton } from '../setting/SettingButton';
import { SettingFields } from '../setting/SettingFields';
import { type ItemKind } from './kind';

export const step: ItemKind<'step'> = {
  kind: 'step',
  title: 'Step',
  Icon: SignpostSplit,
  empty: (id) => ({ kind: 'step', id, title: '', text: '', picture: '', checks: [], setting: noSetting }),
  Answer: ({ item }) => (
    <>
      <Drawing of={item.picture} />
      <SettingButton setting={item.setting} />
      <CheckList checks={item.checks} />
    </>
  ),
  Fields: ({ item, change }) => (
    <>
      <DrawingField picture={item.picture} onChoose={(picture) => change({ picture })} />
      <SettingFields setting={item.setting} onChange={(setting) => change({ setting })} />
      <CheckFields checks={item.checks} onChange={(checks) => change({ checks })} />
    </>
  ),
};
