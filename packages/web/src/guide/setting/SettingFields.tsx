import { type GuideSetting } from '@heuristor/contracts';
import { useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { PlusLg, X } from 'react-bootstrap-icons';
import { useInvestigation, useInvestigationDocuments } from '../../investigation/context';
import { useQuantities } from '../../sensors/useQuantities';
import { FixedMenu } from '../../ui/FixedMenu';
import { useTemplates } from '../../workings/templates/templateActions';
import { templateOf } from '../../workings/templates/templates';
import { settingWords } from './settingWords';

interface Props {
  setting: GuideSetting;
  onChange: (setting: GuideSetting) => void;
}

/** What a step sets up: taken from how things stand now, and said in words. */
export function SettingFields({ setting, onChange }: Props) {
  const session = useInvestigation();
  const quantities = useQuantities();
  const [isOpen, setOpen] = useState(false);
  const { answer: templates } = useTemplates(isOpen);
  const { plan, workings, name } = useInvestigationDocuments((documents) => documents);
  const part = (patch: Partial<GuideSetting>) => onChange({ ...setting, ...patch });
  const takePlan = () => {
    const { way, spot, pace, begin, end, times } = plan;
    const sensors = quantities.map(({ key, stream, channel }) => ({
      channel: key,
      rate: stream.sampling === 'regular' ? stream.rate : null,
      zeroAtStart: channel.zeroAtStart,
    }));
    part({ plan: { way, spot, pace, begin, end, times }, sensors });
  };
  const takeSheet = async () => {
    const { trials } = (await session.trials()).state.getState();
    const {
      channels,
      conditions,
      workings: own,
      trials: tables,
    } = templateOf(session.documents.getState(), trials, name, '');
    part({ sheet: { name, channels, conditions, workings: own, trials: tables } });
  };
  const parts: { of: keyof GuideSetting; empty: Partial<GuideSetting>; words: string[] }[] = [
    {
      of: 'plan',
      empty: { plan: null, sensors: [] },
      words: settingWords({ ...setting, page: null, sheet: null }, quantities),
    },
    {
      of: 'sheet',
      empty: { sheet: null },
      words: settingWords({ ...setting, plan: null, sensors: [], page: null }, quantities),
    },
    {
      of: 'page',
      empty: { page: null },
      words: settingWords({ ...setting, plan: null, sensors: [], sheet: null }, quantities),
    },
  ];
  return (
    <>
      {parts
        .filter(({ words }) => words.length > 0)
        .map(({ of, empty, words }) => (
          <div key={of} className="field-row">
            <span className="small">{words.join('; ')}</span>
            <Button variant="bare" aria-label={`Remove: ${words[0]}`} onClick={() => part(empty)}>
              <X aria-hidden />
            </Button>
          </div>
        ))}
      <Dropdown onToggle={setOpen}>
        <Dropdown.Toggle variant="plain" className="no-caret">
          <PlusLg aria-hidden /> Set up
        </Dropdown.Toggle>
        <FixedMenu className="tall-menu">
          <Dropdown.Item as="button" onClick={takePlan}>
            The plan and the rates as they are now
          </Dropdown.Item>
          <Dropdown.Item
            as="button"
            disabled={workings.entries.length === 0}
            onClick={() => void takeSheet()}
          >
            The sheet as it is now
          </Dropdown.Item>
          <Dropdown.Header>A page of traces</Dropdown.Header>
          {workings.pages.map((page, i) => (
            <Dropdown.Item
              key={page.id}
              as="button"
              onClick={() => part({ page: { id: page.id, name: page.name } })}
            >
              {page.name === '' ? `Page ${i + 1}` : page.name}
            </Dropdown.Item>
          ))}
          <Dropdown.Header>A template</Dropdown.Header>
          {(templates ?? []).map(({ id, name: called, channels, conditions, workings: own, trials }) => (
            <Dropdown.Item
              key={id}
              as="button"
              onClick={() => part({ sheet: { name: called, channels, conditions, workings: own, trials } })}
            >
              {called}
            </Dropdown.Item>
          ))}
        </FixedMenu>
      </Dropdown>
    </>
  );
}
