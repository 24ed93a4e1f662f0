import { Dropdown } from 'react-bootstrap';
import { ViewList } from 'react-bootstrap-icons';
import { FixedMenu } from '../ui/FixedMenu';
import { unfoldAll } from './entries/unfolding';
import { type SheetLook, setSheetLook, useSheetLook } from './sheetLook';

const titles: Record<SheetLook, string> = {
  all: 'All entries',
  results: 'Results only',
  table: 'Table of results',
};

/** How the sheet is looked at. */
export function SheetLookMenu() {
  const look = useSheetLook((state) => state.look);
  return (
    <Dropdown align="end">
      <Dropdown.Toggle
        variant="plain"
        className="no-caret"
        aria-label="How the sheet is seen"
        title="How the sheet is seen"
      >
        <ViewList aria-hidden />
      </Dropdown.Toggle>
      <FixedMenu>
        {(Object.keys(titles) as SheetLook[]).map((one) => (
          <Dropdown.Item
            key={one}
            as="button"
            role="menuitemradio"
            aria-checked={look === one}
            active={look === one}
            onClick={() => setSheetLook(one)}
          >
            {titles[one]}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Item as="button" onClick={() => unfoldAll(true)}>
          Unfold all entries
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => unfoldAll(false)}>
          Fold all entries
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}
