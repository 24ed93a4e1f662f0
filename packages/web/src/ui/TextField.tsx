import { DraftControl } from './DraftControl';
import { useDraft } from './useDraft';

interface Props {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  maxLength: number;
  id?: string;
  className?: string;
  placeholder?: string;
  /** What is wrong with a text, and what would be right; null where it is right. */
  check?: (text: string) => string | null;
}

/** A text that takes effect on Enter or on leaving; Escape keeps the old one, and nothing is a text too. */
export function TextField({ label, value, onCommit, check, className = '', ...field }: Props) {
  const draft = useDraft({
    standing: value,
    isLeftByEnter: true,
    survives: true,
    take: (text) => {
      const wrong = check?.(text) ?? null;
      if (wrong !== null) return { wrong };
      onCommit(text);
      return { text };
    },
  });
  return (
    <span className="text-field">
      <DraftControl {...field} size="sm" className={className} label={label} draft={draft} />
    </span>
  );
}
