import { type SeriesRef, entryRef, entrySentence } from '@heuristor/core';
import { Dropdown } from 'react-bootstrap';
import { CheckSquare, Circle, RecordCircle, Square } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useNames, useSession, useShownPage, useWithZero } from '../investigation/context';
import { graphChoices, seriesChoices } from '../workings/edits';
import { mostPages, panelsOf, seriesOn, withHorizontal, withTraceToggled } from './pages/pages';
import { presentRuns } from '../runs/runs';
import { FixedMenu } from '../ui/FixedMenu';

/** Which traces a page has, and against what they stand. */
export function TraceMenu() {
  const session = useSession();
  const { workings, runs } = useDocuments(
    useShallow(({ workings: sheet, runs: own }) => ({ workings: sheet, runs: own })),
  );
  const page = useShownPage();
  const nameOf = useNames();
  const choices = seriesChoices(runs, workings);
  const withZero = useWithZero();
  const shown = seriesOn(panelsOf(page, runs));
  const graphs = graphChoices(workings);
  const graphName = (reference: SeriesRef) => {
    const entry = workings.entries.find(({ id }) => entryRef(id) === reference);
    return entry === undefined ? '' : entry.name === '' ? entrySentence(entry, nameOf) : entry.name;
  };
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="plain" className="no-caret" disabled={presentRuns(runs).length === 0}>
        Traces
      </Dropdown.Toggle>
      <FixedMenu>
        <Dropdown.Header>Stacked</Dropdown.Header>
        {choices
          .filter((choice) => choice !== page.horizontal)
          .map((choice) => (
            <Dropdown.Item
              key={choice}
              as="button"
              onClick={() => session.changePage((shownPage, own) => withTraceToggled(shownPage, own, choice))}
              role="menuitemcheckbox"
              aria-checked={shown.includes(choice)}
            >
              {shown.includes(choice) ? <CheckSquare aria-hidden /> : <Square aria-hidden />} {nameOf(choice)}
            </Dropdown.Item>
          ))}
        {graphs.length > 0 && <Dropdown.Header>With axes of their own</Dropdown.Header>}
        {graphs.map((choice) => (
          <Dropdown.Item
            key={choice}
            as="button"
            onClick={() => session.changePage((shownPage, own) => withTraceToggled(shownPage, own, choice))}
            role="menuitemcheckbox"
            aria-checked={shown.includes(choice)}
          >
            {shown.includes(choice) ? <CheckSquare aria-hidden /> : <Square aria-hidden />}{' '}
            {graphName(choice)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Item
          as="button"
          role="menuitemcheckbox"
          aria-checked={withZero}
          onClick={() => session.viewing.showZero(!withZero)}
        >
          {withZero ? <CheckSquare aria-hidden /> : <Square aria-hidden />} Origin in view
        </Dropdown.Item>
        <Dropdown.Divider />
        <Dropdown.Header>Against</Dropdown.Header>
        {(['t', ...choices] as const).map((choice) => (
          <Dropdown.Item
            key={choice}
            as="button"
            onClick={() => {
              session.changePage((shownPage) => withHorizontal(shownPage, choice));
              session.viewing.leaveInterval();
            }}
            role="menuitemradio"
            aria-checked={choice === page.horizontal}
          >
            {choice === page.horizontal ? <RecordCircle aria-hidden /> : <Circle aria-hidden />}{' '}
            {nameOf(choice)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Item
          as="button"
          disabled={workings.pages.length >= mostPages}
          onClick={() => session.addPage()}
        >
          New page of traces
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}
