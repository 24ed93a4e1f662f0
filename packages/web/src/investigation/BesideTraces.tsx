import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Group, Panel, Separator, usePanelRef } from 'react-resizable-panels';
import { useRoom } from './SideColumn';
import { setSide, useSides } from './sides';

const widthKey = 'sheet-width';
const sheetId = 'sheet';
const usualWidth = '21.75rem';
const leastWidth = '17rem';

/** A width that was set at this machine, in pixels of a screen. */
const widthKept = (): string => {
  const kept = Number(localStorage.getItem(widthKey));
  return kept > 0 ? `${kept}px` : usualWidth;
};

interface Props {
  /** What is looked at. */
  children: ReactNode;
  /** What stands beside it, as wide as its border is dragged; where there is no room it stands elsewhere. */
  beside: ReactNode;
}

/** The traces, and beside them a column whose border can be dragged, or moved with the arrow keys. */
export function BesideTraces({ children, beside }: Props) {
  const stands = useSides(({ right }) => right);
  const hasRoom = useRoom('tablet');
  const panel = usePanelRef();
  const group = useRef<HTMLDivElement>(null);
  const [width] = useState(widthKept);
  // It begins as it stands; from then on it follows.
  const was = useRef(stands);
  useEffect(() => {
    if (was.current === stands) return;
    was.current = stands;
    if (stands) panel.current?.expand();
    else panel.current?.collapse();
  }, [panel, stands]);
  return (
    <>
      <Group
        className="beside-traces"
        elementRef={group}
        onLayoutChanged={({ [sheetId]: share = 0 }, { isUserInteraction }) => {
          if (!isUserInteraction) return;
          // The page is laid out a moment later.
          const pixels = (share / 100) * (group.current?.clientWidth ?? 0);
          if (pixels > 0) localStorage.setItem(widthKey, String(Math.round(pixels)));
          setSide('right', pixels > 0);
        }}
      >
        <Panel id="traces" className="beside-part" minSize="20rem">
          {children}
        </Panel>
        {hasRoom && (
          <>
            <Separator className="side-border" aria-label="Width of the column at the right" />
            <Panel
              id={sheetId}
              className="beside-part"
              panelRef={panel}
              collapsible
              defaultSize={stands ? width : 0}
              minSize={leastWidth}
              maxSize="60%"
              groupResizeBehavior="preserve-pixel-size"
            >
              {beside}
            </Panel>
          </>
        )}
      </Group>
      {!hasRoom && beside}
    </>
  );
}
