import { Dropdown } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useInvestigationDocuments } from '../investigation/context';
import { FixedMenu } from '../ui/FixedMenu';
import { useShownTable, useTrials } from './context';
import { repeatsIn } from './rowOutcomes';

/** What is a row: a run, or each single measurement. */
export function RowsMenu() {
  const trials = useTrials();
  const outcomes = useStore(trials.outcomes, (state) => state.outcomes);
  const rows = useShownTable()?.rows ?? { kind: 'runs' as const };
  const entries = useInvestigationDocuments((documents) => documents.workings.entries);
  const constants = entries.filter((entry) => entry.kind === 'constant');
  const choices = repeatsIn({ outcomes });
  if (choices.length + constants.length === 0 && rows.kind === 'runs') return null;
  const of = rows.kind === 'values' ? rows.of : null;
  const chosen =
    rows.kind === 'runs'
      ? 'runs'
      : rows.kind === 'values'
        ? rowsOf(choices.find((one) => one.of === of)?.symbol ?? 'values')
        : rowsOf(constants.find(({ id }) => id === rows.entry)?.name || 'a constant');
  return (
    <Dropdown>
      <Dropdown.Toggle variant="plain">Rows: {chosen}</Dropdown.Toggle>
      <FixedMenu>
        <Dropdown.Item
          as="button"
          active={rows.kind === 'runs'}
          onClick={() => trials.plotting.chooseRows(null)}
        >
          runs
        </Dropdown.Item>
        {choices.map((one) => (
          <Dropdown.Item
            as="button"
            key={one.of}
            active={one.of === of}
            onClick={() => trials.plotting.chooseRows(one.of)}
          >
            {rowsOf(one.symbol)}
          </Dropdown.Item>
        ))}
        {constants.length > 0 && <Dropdown.Header>What follows if it had another value</Dropdown.Header>}
        {constants.map(({ id, name }) => (
          <Dropdown.Item
            as="button"
            key={id}
            active={rows.kind === 'constant' && rows.entry === id}
            onClick={() => trials.plotting.chooseConstant(id)}
          >
            {acrossName(name)}
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}

/** What rows are called that are no runs: “values of v”, “each period of x”. */
const rowsOf = (symbol: string): string =>
  symbol.includes(' of ') ? `each ${symbol}` : `values of ${symbol}`;

const acrossName = (name: string): string =>
  `values of the constant ${name === '' ? 'without a name' : name}`;
