import { Form } from 'react-bootstrap';
import { useInvestigation } from '../../investigation/context';
import { NumberField } from '../../ui/NumberField';

/** How many runs one press records. */
export function TimesEditor({ times }: { times: number | null }) {
  const session = useInvestigation();
  const change = (wanted: number | null) => void session.plan.change({ times: wanted });
  return (
    <div className="editor-rows">
      <Form.Check
        type="radio"
        id="times-once"
        name="times"
        label="Once"
        checked={times === 1}
        onChange={() => change(1)}
      />
      <div className="editor-row">
        <Form.Check
          type="radio"
          id="times-some"
          name="times"
          label="Several times, each armed by itself"
          checked={times !== null && times !== 1}
          onChange={() => change(3)}
        />
        {times !== null && times !== 1 && (
          <NumberField
            label="Number of runs"
            value={times}
            check={(count) =>
              Number.isInteger(count) && count >= 1 && count <= 500 ? null : 'A whole number from 1 to 500.'
            }
            onCommit={change}
          />
        )}
      </div>
      <Form.Check
        type="radio"
        id="times-ever"
        name="times"
        label="Again and again until stopped"
        checked={times === null}
        onChange={() => change(null)}
      />
    </div>
  );
}
