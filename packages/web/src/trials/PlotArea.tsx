import { Button, Dropdown } from 'react-bootstrap';
import { CheckSquare, Square } from 'react-bootstrap-icons';
import { type TrialPlot } from '@heuristor/contracts';
import { channelRef } from '@heuristor/core';
import { useWithZero } from '../investigation/context';
import { FoldButton } from '../investigation/FoldButton';
import { useSides } from '../investigation/sides';
import { CursorBar } from '../traces/cursor/CursorBar';
import { PageTabs } from '../traces/pages/PageTabs';
import { TraceStack } from '../traces/TraceStack';
import { FixedMenu } from '../ui/FixedMenu';
import { OffersBar, useIsOffering } from '../workings/offers/OffersBar';
import { Bars } from './Bars';
import { FillButton } from './FillButton';
import { HoldsWhere } from './HoldsWhere';
import { GroupLegend } from './GroupLegend';
import { Spread } from './Spread';
import { Straighten } from './Straighten';
import { useShownTable, useTrials, useTrialsState } from './context';
import { numberColumns } from './derivedRun';
import { pageIn } from '../traces/pages/pages';

const kinds = [
  { kind: 'points', title: 'Points' },
  { kind: 'bars', title: 'Bars' },
  { kind: 'spread', title: 'Spread' },
] as const;

/** The plot of the table: points of one column against another, bars by category, or how one column spreads. */
export function PlotArea() {
  const trials = useTrials();
  const table = useShownTable();
  const view = useTrialsState((state) => state.view);
  const stands = useSides(({ right }) => right);
  const isOffering = useIsOffering();
  if (table === undefined || view === null) return null;
  const { kind } = table.plot;
  return (
    <section className="trials-plot" aria-label="Plot">
      <header className="trials-tools">
        {kinds.map((one) => (
          <Button
            key={one.kind}
            variant="plain"
            aria-pressed={kind === one.kind}
            className={kind === one.kind ? 'chosen' : ''}
            onClick={() => trials.changeTable((own) => ({ ...own, plot: { ...own.plot, kind: one.kind } }))}
          >
            {one.title}
          </Button>
        ))}
        {kind !== 'points' && <ColumnOfPlot part="value" />}
        {kind !== 'points' && <ColumnOfPlot part="category" />}
        {kind === 'bars' && <ColumnOfPlot part="beside" />}
        {kind === 'spread' && <SpreadLook />}
        <span className="spring" />
        {kind === 'points' && (
          <>
            <RelationButton />
            <Straighten />
          </>
        )}
        <FillButton part="plot" other="table" />
        <FoldButton side="right" title="Conclusions" stands={stands} variant="bare" />
      </header>
      {numberColumns(view.columns).length === 0 ? (
        <p className="quiet">Nothing to draw: no column holds a number yet.</p>
      ) : kind === 'points' ? (
        <>
          <div className="trials-axes">
            <Axes />
            <ColumnOfPlot part="apart" />
            <ColumnOfPlot part="names" />
            <HoldsWhere />
            <GroupLegend />
            <PageTabs />
          </div>
          <TraceStack />
          {isOffering && <OffersBar />}
          <CursorBar />
        </>
      ) : kind === 'bars' ? (
        <Bars table={table} view={view} />
      ) : (
        <Spread table={table} view={view} />
      )}
    </section>
  );
}

/** Which columns the points are of. */
function Axes() {
  const trials = useTrials();
  const view = useTrialsState((state) => state.view);
  const table = useShownTable();
  const numbers = numberColumns(view?.columns ?? []);
  const withZero = useWithZero();
  if (table === undefined || numbers.length === 0) return null;
  const { horizontal } = pageIn({ pages: table.sheet.pages }, trials.onPage.page);
  const { upright, logarithmic } = trials.plotting;
  const titleOf = (key: string | null) => numbers.find((one) => one.key === key)?.title;
  const across = numbers.find(({ key }) => channelRef(key) === horizontal)?.key ?? null;
  return (
    <Dropdown>
      <Dropdown.Toggle variant="bare">
        {titleOf(upright) ?? 'row'} against {titleOf(across) ?? 'row'}
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        <Dropdown.Header>Upright</Dropdown.Header>
        {numbers.map(({ key, title }) => (
          <Dropdown.Item
            as="button"
            key={key}
            active={key === upright}
            onClick={() => trials.plotting.putUpright(key)}
          >
            {title}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Header>Along the horizontal axis</Dropdown.Header>
        {numbers.map(({ key, title }) => (
          <Dropdown.Item
            as="button"
            key={key}
            active={key === across}
            onClick={() => trials.plotting.putAcross(key)}
          >
            {title}
          </Dropdown.Item>
        ))}
        <Dropdown.Item as="button" active={across === null} onClick={() => trials.plotting.putAcross(null)}>
          number of the row
        </Dropdown.Item>
        <Dropdown.Divider />
        <Dropdown.Item
          as="button"
          role="menuitemcheckbox"
          aria-checked={withZero}
          onClick={() => trials.showZero(!withZero)}
        >
          {withZero ? <CheckSquare aria-hidden /> : <Square aria-hidden />} Axes show zero
        </Dropdown.Item>
        <Dropdown.Item
          as="button"
          role="menuitemcheckbox"
          aria-checked={logarithmic.upright}
          disabled={upright === null}
          onClick={() => trials.plotting.makeLogarithmic('upright', !logarithmic.upright)}
        >
          {logarithmic.upright ? <CheckSquare aria-hidden /> : <Square aria-hidden />} Logarithmic upright
        </Dropdown.Item>
        <Dropdown.Item
          as="button"
          role="menuitemcheckbox"
          aria-checked={logarithmic.across}
          disabled={across === null}
          onClick={() => trials.plotting.makeLogarithmic('across', !logarithmic.across)}
        >
          {logarithmic.across ? <CheckSquare aria-hidden /> : <Square aria-hidden />} Logarithmic along
        </Dropdown.Item>
        <Dropdown.Divider />
        <Dropdown.Item
          as="button"
          disabled={upright === null || across === null || table.plot.holds !== null}
          onClick={() => upright !== null && trials.plotting.markWhere(upright)}
        >
          Mark where a column is at most …
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}

function RelationButton() {
  const trials = useTrials();
  const upright = trials.plotting.upright;
  return (
    <Button
      variant="plain"
      disabled={upright === null}
      onClick={() => {
        if (upright !== null)
          trials.dialogs.ask('relations', {
            of: channelRef(upright),
            against: trials.plotting.across,
            region: trials.view.getState().selectedRegion,
            entry: null,
          });
      }}
    >
      Relation …
    </Button>
  );
}

const looks = { sd: 'mean and sd', box: 'box', histogram: 'histogram' } as const;

/** What stands behind the values of a spread. */
function SpreadLook() {
  const trials = useTrials();
  const look = useShownTable()?.plot.spread ?? 'sd';
  return (
    <label className="plot-column">
      <span className="quiet">with</span>
      <select
        className="form-select form-select-sm"
        aria-label="What stands behind the values"
        value={look}
        onChange={({ target }) =>
          trials.changeTable((own) => ({
            ...own,
            plot: { ...own.plot, spread: target.value as keyof typeof looks },
          }))
        }
      >
        {Object.entries(looks).map(([key, title]) => (
          <option key={key} value={key}>
            {title}
          </option>
        ))}
      </select>
    </label>
  );
}

const parts = {
  value: { label: 'of', title: 'What is drawn' },
  category: { label: 'by', title: 'What stands under each' },
  beside: { label: 'and', title: 'What tells those side by side apart' },
  apart: { label: 'apart by', title: 'What points are drawn and fitted apart by' },
  names: { label: 'named by', title: 'What stands beside each point' },
} as const;

/** What an empty choice means. */
function nothingChosen(part: keyof typeof parts, kind: TrialPlot['kind']): string {
  if (part === 'value') return 'choose';
  if (part === 'beside' || part === 'apart' || part === 'names') return '–';
  return kind === 'bars' ? 'each row' : 'all together';
}

function ColumnOfPlot({ part }: { part: keyof typeof parts }) {
  const trials = useTrials();
  const view = useTrialsState((state) => state.view);
  const table = useShownTable();
  if (view === null || table === undefined) return null;
  const columns = part === 'value' ? numberColumns(view.columns) : view.columns;
  const { title, label } = parts[part];
  return (
    <label className="plot-column">
      <span className="quiet">{label}</span>
      <select
        className="form-select form-select-sm"
        aria-label={title}
        value={table.plot[part] ?? ''}
        onChange={({ target }) =>
          trials.changeTable((own) => ({
            ...own,
            plot: { ...own.plot, [part]: target.value === '' ? null : target.value },
          }))
        }
      >
        <option value="">{nothingChosen(part, table.plot.kind)}</option>
        {columns.map((column) => (
          <option key={column.key} value={column.key}>
            {column.title}
          </option>
        ))}
      </select>
    </label>
  );
}
