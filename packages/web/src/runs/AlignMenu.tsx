import { Dropdown } from 'react-bootstrap';
import {
  useCursor,
  useDocuments,
  useFrontRun,
  useNames,
  usePicture,
  useInvestigation,
} from '../investigation/context';
import { shownRuns } from './runs';
import { fineText } from '../ui/numberText';
import { alignRuns } from './alignRuns';
import { FixedMenu } from '../ui/FixedMenu';

/** Brings the same event of all shown runs to where it is in the run in front. */
export function AlignMenu() {
  const session = useInvestigation();
  const nameOf = useNames();
  const front = useFrontRun();
  const several = useDocuments(({ runs }) => shownRuns(runs).length > 1);
  const trace = usePicture(({ traces }) => traces.find(({ reference }) => reference !== null));
  const sight = usePicture(({ frame }) => frame?.sight);
  const isMoved = useDocuments(({ workings }) => workings.shifts.length > 0);
  const read = useCursor((cursor) => cursor.read);
  const of = trace?.reference;
  if (front === undefined || of == null || sight === undefined || !several) return null;
  const here = () => read?.runs.find(({ runId }) => runId === front.id)?.values[of];
  const crossing = (direction: 'rise' | 'fall') => {
    const value = here();
    if (value === undefined) return;
    void alignRuns(session, { kind: 'crossing', of, level: value.y, unit: value.unit, direction }, value.x);
  };
  const level = here();
  return (
    <Dropdown drop="up">
      <Dropdown.Toggle variant="plain">Align runs</Dropdown.Toggle>
      <FixedMenu>
        <Dropdown.Header>With {front.name}, at the moment when</Dropdown.Header>
        {(['rise', 'fall'] as const).map((direction) => (
          <Dropdown.Item
            key={direction}
            as="button"
            // What stands at the cursor comes a moment after the cursor.
            disabled={level === undefined}
            onClick={() => crossing(direction)}
          >
            {nameOf(of)} {direction}s through {level === undefined ? 'this value' : fineText(level.y)}
          </Dropdown.Item>
        ))}
        {(['greatest', 'least'] as const).map((kind) => (
          <Dropdown.Item
            key={kind}
            as="button"
            onClick={() => void alignRuns(session, { kind, of, ...sight }, here()?.x ?? sight.from)}
          >
            {nameOf(of)} is {kind} in sight
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Item
          as="button"
          disabled={!isMoved}
          onClick={() => session.shiftRuns(new Map(session.workings.shifts.map(({ run }) => [run, 0])))}
        >
          Put all runs back where they were recorded
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}
