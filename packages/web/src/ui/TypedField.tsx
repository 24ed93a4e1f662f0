import { DraftControl } from './DraftControl';
import { useDraft } from './useDraft';

interface Props {
  label: string;
  /** Null where nothing was typed yet: the field is empty. */
  value: number | null;
  /** Reads what was typed; throws an error whose message says what is wrong and what would be right. */
  read: (text: string) => number;
  write: (value: number) => string;
  onCommit: (value: number) => void;
  /** What is wrong with a number, or null. */
  check?: (value: number) => string | null;
  id?: string;
  className?: string;
  wide?: boolean;
  disabled?: boolean;
  placeholder?: string;
  autoFocus?: boolean;
}

/** A number that is typed in its own way and takes effect on Enter or on leaving; what is none says so in words. */
export function TypedField({
  label,
  value,
  read,
  write,
  onCommit,
  check,
  className = '',
  wide = false,
  ...field
}: Props) {
  const draft = useDraft({
    standing: value === null ? '' : write(value),
    take: (text) => {
      let number: number;
      try {
        number = read(text);
      } catch (error) {
        return { wrong: error instanceof Error ? error.message : String(error) };
      }
      const wrong = check?.(number) ?? null;
      if (wrong !== null) return { wrong };
      if (number !== value) onCommit(number);
      return { text: write(number) };
    },
  });
  return (
    <span className={`number-field ${className}`}>
      <DraftControl {...field} className={`number-input ${wide ? 'wide' : ''}`} label={label} draft={draft} />
    </span>
  );
}
