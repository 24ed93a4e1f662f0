import type * as Y from 'yjs';
import { useSharedText } from './useShared';

interface Props {
  shared: Y.Text | null;
  label: string;
  placeholder: string;
  className?: string;
  mayWrite: boolean;
  /** What stands there where nothing is typed; it is printed too. */
  usual?: string;
}

/** A text of one line that several may type at once; where nobody may, it is read. */
export function SharedLine({ shared, label, placeholder, className = '', mayWrite, usual = '' }: Props) {
  const [text, setText] = useSharedText(shared);
  const words = text === '' ? usual : text;
  if (!mayWrite) return words === '' ? null : <span className={className}>{words}</span>;
  return (
    <span className={`shared-line ${className}`}>
      {/* Its words give the field its width, and are what is printed. */}
      <span aria-hidden className="shared-line-words">
        {text === '' ? placeholder : text}
      </span>
      <input
        aria-label={label}
        placeholder={placeholder}
        value={text}
        maxLength={300}
        size={1}
        onChange={({ target }) => setText(target.value)}
      />
    </span>
  );
}
