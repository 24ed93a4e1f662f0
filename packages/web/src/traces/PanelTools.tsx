import { type useSortable } from '@dnd-kit/sortable';
import { type Panel } from '@heuristor/contracts';
import { memo } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import {
  ArrowsFullscreen,
  CheckCircle,
  CheckSquare,
  Circle,
  FullscreenExit,
  GripVertical,
  Square,
  ThreeDotsVertical,
} from 'react-bootstrap-icons';
import { useDocuments, useNames, useSession, useShownPage, useView } from '../investigation/context';
import { graphChoices, seriesChoices } from '../workings/edits';
import {
  panelsOf,
  withPanelMoved,
  withRunToggled,
  withReadingsLook,
  withSeriesToggled,
  withoutPanel,
} from './pages/pages';
import { shownRuns } from '../runs/runs';
import { LineSample } from '../runs/LineSample';
import { FixedMenu } from '../ui/FixedMenu';

const looks: readonly { look: Panel['look']; title: string }[] = [
  { look: undefined, title: 'Automatic' },
  { look: 'points', title: 'Points' },
  { look: 'line', title: 'A line' },
  { look: 'both', title: 'A line with points' },
];

interface Props extends Pick<
  ReturnType<typeof useSortable>,
  'setActivatorNodeRef' | 'attributes' | 'listeners'
> {
  traceKey: string;
  symbol: string;
}

/** What can be done with a trace as such: moved among the others, shown alone, filled with other quantities or fewer runs. */
export const PanelTools = memo(function PanelTools({
  traceKey,
  symbol,
  setActivatorNodeRef,
  attributes,
  listeners,
}: Props) {
  const session = useSession();
  const isAlone = useView(({ enlarged }) => enlarged === traceKey);
  return (
    <div className="panel-tools">
      <Button
        variant="grip"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move the trace of ${symbol}`}
        title="Drag to reorder"
      >
        <GripVertical aria-hidden />
      </Button>
      <Button
        variant="bare"
        aria-pressed={isAlone}
        aria-label={isAlone ? 'Show all traces' : `Show only the trace of ${symbol}`}
        title={isAlone ? 'All traces' : 'This trace alone'}
        onClick={() => session.viewing.enlarge(isAlone ? null : traceKey)}
      >
        {isAlone ? <FullscreenExit aria-hidden /> : <ArrowsFullscreen aria-hidden />}
      </Button>
      <PanelMenu traceKey={traceKey} symbol={symbol} />
    </div>
  );
});

function PanelMenu({ traceKey, symbol }: Pick<Props, 'traceKey' | 'symbol'>) {
  const session = useSession();
  return (
    <Dropdown>
      <Dropdown.Toggle variant="bare" className="no-caret" aria-label={`Set up the trace of ${symbol}`}>
        <ThreeDotsVertical aria-hidden />
      </Dropdown.Toggle>
      <FixedMenu>
        <PanelItems traceKey={traceKey} />
        <Dropdown.Divider />
        <Dropdown.Item as="button" onClick={() => session.dialogs.ask('picture', { only: traceKey })}>
          Make a picture of it
        </Dropdown.Item>
        <Dropdown.Item
          as="button"
          onClick={() => session.changePage((page, runs) => withoutPanel(page, runs, traceKey))}
        >
          Take this trace off the page
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}

function PanelItems({ traceKey: key }: { traceKey: string }) {
  const session = useSession();
  const page = useShownPage();
  const runs = useDocuments((documents) => documents.runs);
  const workings = useDocuments((documents) => documents.workings);
  const nameOf = useNames();
  const panels = panelsOf(page, runs);
  const place = panels.findIndex(({ id }) => id === key);
  const panel = panels[place];
  if (panel === undefined) return null;
  const isOwn = graphChoices(workings).includes(panel.series[0]);
  const choices = isOwn ? [] : seriesChoices(runs, workings).filter((choice) => choice !== page.horizontal);
  const shown = shownRuns(runs);
  return (
    <>
      {!isOwn && <Dropdown.Header>In this trace</Dropdown.Header>}
      {choices.map((choice) => (
        <Dropdown.Item
          key={choice}
          as="button"
          role="menuitemcheckbox"
          aria-checked={panel.series.includes(choice)}
          onClick={(event) => {
            event.stopPropagation();
            session.changePage((before, own) => withSeriesToggled(before, own, key, choice));
          }}
        >
          {panel.series.includes(choice) ? <CheckSquare aria-hidden /> : <Square aria-hidden />}{' '}
          {nameOf(choice)}
        </Dropdown.Item>
      ))}
      {shown.length > 1 && (
        <>
          {!isOwn && <Dropdown.Divider />}
          <Dropdown.Header>Of the runs that are shown</Dropdown.Header>
          {shown.map((run) => (
            <Dropdown.Item
              key={run.id}
              as="button"
              role="menuitemcheckbox"
              aria-checked={!panel.without.includes(run.id)}
              onClick={(event) => {
                event.stopPropagation();
                session.changePage((before, own) => withRunToggled(before, own, key, run.id));
              }}
            >
              {panel.without.includes(run.id) ? <Square aria-hidden /> : <CheckSquare aria-hidden />}{' '}
              <LineSample style={run.style} /> {run.name}
            </Dropdown.Item>
          ))}
        </>
      )}
      <Dropdown.Divider />
      {!isOwn && <Dropdown.Header>Readings drawn as</Dropdown.Header>}
      {!isOwn &&
        looks.map(({ look, title }) => (
          <Dropdown.Item
            key={title}
            as="button"
            role="menuitemradio"
            aria-checked={panel.look === look}
            onClick={() => session.changePage((before, own) => withReadingsLook(before, own, key, look))}
          >
            {panel.look === look ? <CheckCircle aria-hidden /> : <Circle aria-hidden />} {title}
          </Dropdown.Item>
        ))}
      {!isOwn && <Dropdown.Divider />}
      {!isOwn && (
        <Dropdown.Item
          as="button"
          onClick={() => session.addLabel(key, { kind: 'free', x: 0.5, y: 0.3 }, '')}
        >
          Put a label on it
        </Dropdown.Item>
      )}
      {(['up', 'down'] as const).map((way) => {
        const to = way === 'up' ? place - 1 : place + 1;
        return (
          <Dropdown.Item
            key={way}
            as="button"
            disabled={to < 0 || to >= panels.length}
            onClick={() => session.changePage((before, own) => withPanelMoved(before, own, key, to))}
          >
            Move {isOwn ? (way === 'up' ? 'left' : 'right') : way}
          </Dropdown.Item>
        );
      })}
    </>
  );
}
