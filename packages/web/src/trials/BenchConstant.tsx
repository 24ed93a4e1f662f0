import { Dropdown } from 'react-bootstrap';
import { type ResultRef, partsOfResultRef, ucumCode } from '@heuristor/core';
import { useFrontRun, useInvestigation, usePicture, useResultNames } from '../investigation/context';
import { FixedMenu } from '../ui/FixedMenu';
import { resultWithUnit } from '../ui/numberText';
import { tell } from '../ui/noticeStore';
import { type ShownResult } from '../workers/protocol';
import { withConstant } from '../workings/edits';
import { useTrials } from './context';

/** Keeps a conclusion as a constant of the workings, as it is now: what is concluded from runs cannot change what runs say. */
export function BenchConstant() {
  const trials = useTrials();
  const session = useInvestigation();
  const front = useFrontRun();
  const outcomes = usePicture((picture) => picture.outcomes[front?.id ?? '']);
  const names = useResultNames();
  const results = Object.entries(names).flatMap(
    ([reference, name]): { name: string; result: ShownResult }[] => {
      const { id, key } = partsOfResultRef(reference as ResultRef);
      const outcome = outcomes?.[id];
      const result = outcome?.kind === 'results' ? outcome.results.find((one) => one.key === key) : undefined;
      return result?.main === true ? [{ name, result }] : [];
    },
  );
  if (results.length === 0) return null;
  const keep = (name: string, { value, standardUncertainty, unit }: ShownResult) => {
    const table = trials.shownTable?.name ?? '';
    session.changeWorkings((workings) =>
      withConstant(workings, name.replace(/ of .*$/u, ''), {
        value,
        uncertainty: standardUncertainty ?? 0,
        unit: ucumCode(unit),
        source: `${name}, from the trials${table === '' ? '' : ` “${table}”`}`.slice(0, 200),
      }),
    );
    tell({ kind: 'news', text: `${name} stands on the bench as a constant, as it is now.` });
  };
  return (
    <Dropdown>
      <Dropdown.Toggle variant="plain">Keep as a constant</Dropdown.Toggle>
      <FixedMenu>
        {results.map(({ name, result }) => (
          <Dropdown.Item as="button" key={name} onClick={() => keep(name, result)}>
            {name} = {resultWithUnit(result, undefined)}
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
