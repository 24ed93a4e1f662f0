import { Button } from 'react-bootstrap';
import { LayoutSidebar, LayoutSidebarReverse } from 'react-bootstrap-icons';
import { type Side, toggleSide } from './sides';

interface Props {
  side: Side;
  /** What stands in the column. */
  title: string;
  stands: boolean;
  /** Where folding it is more than that. */
  onToggle?: () => void;
  variant?: 'plain' | 'bare';
}

/** Folds a column away, or brings it back. */
export function FoldButton({
  side,
  title,
  stands,
  onToggle = () => toggleSide(side),
  variant = 'plain',
}: Props) {
  const Icon = side === 'left' ? LayoutSidebar : LayoutSidebarReverse;
  return (
    <Button
      variant={variant}
      aria-label={`${title}: show or fold away`}
      title={title}
      aria-pressed={stands}
      onClick={onToggle}
    >
      <Icon aria-hidden />
    </Button>
  );
}
