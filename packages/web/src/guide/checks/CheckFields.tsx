import { type CheckKind, type GuideCheck, checkKinds, mostInGuide } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { PlusLg, X } from 'react-bootstrap-icons';
import { newId } from '../../investigation/ids';
import { useInvestigationDocuments } from '../../investigation/context';
import { presentRuns } from '../../runs/runs';
import { useQuantities } from '../../sensors/useQuantities';
import { FixedMenu } from '../../ui/FixedMenu';
import { NumberField } from '../../ui/NumberField';
import { UnitText } from '../../ui/UnitText';
import { useChannelKeys } from '../useChannelKeys';
import { checkKindsHere } from '.';

/** The checks of a step, to be chosen. */
export function CheckFields({
  checks,
  onChange,
}: {
  checks: readonly GuideCheck[];
  onChange: (checks: GuideCheck[]) => void;
}) {
  const channels = useChannelKeys();
  const unitOf = useUnits();
  const put = (check: GuideCheck, patch: Partial<GuideCheck>) =>
    onChange(checks.map((one) => (one === check ? { ...one, ...patch } : one)));
  const add = (kind: CheckKind) => {
    const { needsChannel, number } = checkKindsHere[kind];
    const channel = needsChannel ? (channels[0] ?? 'x') : '';
    onChange([
      ...checks,
      { id: newId(), kind, channel, number: number?.usual ?? null, unit: unitFor(kind, unitOf(channel)) },
    ]);
  };
  return (
    <>
      {checks.map((check) => {
        const { title, needsChannel, number } = checkKindsHere[check.kind];
        return (
          <div key={check.id} className="field-row">
            <span className="small">{title}</span>
            {needsChannel && (
              <Form.Select
                size="sm"
                aria-label={`${title}: of what`}
                value={check.channel}
                onChange={({ target }) =>
                  put(check, { channel: target.value, unit: unitFor(check.kind, unitOf(target.value)) })
                }
              >
                {[...new Set([check.channel, ...channels])].map((key) => (
                  <option key={key} value={key}>
                    {key}
                  </option>
                ))}
              </Form.Select>
            )}
            {number !== null && (
              <>
                <NumberField
                  label={`${title}: ${number.label}`}
                  value={check.number ?? number.usual}
                  onCommit={(value) => put(check, { number: value })}
                />
                <span className="quiet small">
                  {number.unit === 'of the channel' || number.unit === 'm/s2' ? (
                    <UnitText unit={parseUnit(check.unit)} />
                  ) : (
                    number.label
                  )}
                </span>
              </>
            )}
            <Button
              variant="bare"
              aria-label={`Remove the check: ${title}`}
              onClick={() => onChange(checks.filter((one) => one !== check))}
            >
              <X aria-hidden />
            </Button>
          </div>
        );
      })}
      <Dropdown>
        <Dropdown.Toggle variant="plain" className="no-caret" disabled={checks.length >= mostInGuide.checks}>
          <PlusLg aria-hidden /> Check
        </Dropdown.Toggle>
        <FixedMenu>
          {checkKinds.map((kind) => (
            <Dropdown.Item key={kind} as="button" onClick={() => add(kind)}>
              {checkKindsHere[kind].title}
            </Dropdown.Item>
          ))}
        </FixedMenu>
      </Dropdown>
    </>
  );
}

function unitFor(kind: CheckKind, ofChannel: string): string {
  const unit = checkKindsHere[kind].number?.unit ?? '';
  return unit === 'of the channel' ? ofChannel : unit;
}

/** The unit of each channel, by its key. */
function useUnits(): (key: string) => string {
  const quantities = useQuantities();
  const runs = useInvestigationDocuments((documents) => documents.runs);
  return (key) =>
    quantities.find((one) => one.key === key)?.channel.unit ??
    presentRuns(runs)
      .flatMap(({ channels }) => channels)
      .find((one) => one.key === key)?.unit ??
    '';
}
