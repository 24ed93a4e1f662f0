import { type GuideItemOf } from '@heuristor/contracts';
import { Form } from 'react-bootstrap';
import { NumberField } from '../../ui/NumberField';
import { TextField } from '../../ui/TextField';
import { UnitField } from '../writing/UnitField';
import { useChannelKeys } from '../useChannelKeys';

type Sketch = GuideItemOf<'sketch'>;

/** The axes of a sketch, and what can lie over it. */
export function SketchFields({ item, change }: { item: Sketch; change: (patch: Partial<Sketch>) => void }) {
  const channels = useChannelKeys(item.over);
  return (
    <>
      <Axis title="Along" axis={item.across} onChange={(across) => change({ across })} />
      <Axis title="Upright" axis={item.upright} onChange={(upright) => change({ upright })} />
      <Form.Select
        size="sm"
        aria-label="What can lie over the sketch"
        value={item.over}
        onChange={({ target }) => change({ over: target.value })}
      >
        <option value="">Nothing lies over it</option>
        {channels.map((key) => (
          <option key={key} value={key}>
            {key} of a run can lie over it
          </option>
        ))}
      </Form.Select>
    </>
  );
}

function Axis({
  title,
  axis,
  onChange,
}: {
  title: string;
  axis: Sketch['across'];
  onChange: (axis: Sketch['across']) => void;
}) {
  const { from, to } = axis;
  return (
    <div className="field-row axis-fields">
      <span className="quiet small">{title}</span>
      <TextField
        label={`${title}: what it shows`}
        value={axis.title}
        maxLength={40}
        onCommit={(text) => onChange({ ...axis, title: text })}
      />
      <NumberField
        label={`${title}: from`}
        value={from}
        check={(value) => (value < to ? null : `It begins below ${to}.`)}
        onCommit={(value) => onChange({ ...axis, from: value })}
      />
      <span className="quiet small">to</span>
      <NumberField
        label={`${title}: to`}
        value={to}
        check={(value) => (value > from ? null : `It ends above ${from}.`)}
        onCommit={(value) => onChange({ ...axis, to: value })}
      />
      <UnitField label={`${title}: unit`} unit={axis.unit} onCommit={(unit) => onChange({ ...axis, unit })} />
    </div>
  );
}
