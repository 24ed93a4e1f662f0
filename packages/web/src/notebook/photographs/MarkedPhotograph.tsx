import { useMemo } from 'react';
import { Shapes } from '../Shapes';
import { marksAsShapes } from './drawMarks';
import { type NamedMark, type Size } from './marks';
import { marksSay } from './markWords';

interface Props {
  address: string;
  size: Size;
  caption: string;
  marks: readonly NamedMark[];
  onMissing: () => void;
  /** What lies over it, to be taken hold of. */
  children?: React.ReactNode;
}

/** A photograph with the marks on it. */
export function MarkedPhotograph({ address, size, caption, marks, onMissing, children }: Props) {
  const shapes = useMemo(() => (marks.length === 0 ? null : marksAsShapes(marks, size)), [marks, size]);
  const says = marksSay(marks, size);
  return (
    <div className="marked">
      <img
        src={address}
        width={size.width}
        height={size.height}
        alt={[caption === '' ? 'Photograph without a caption' : caption, says].filter(Boolean).join('. ')}
        onError={onMissing}
      />
      {shapes !== null && (
        <div aria-hidden className="marks">
          <Shapes picture={shapes} says="" width={size.width} height={size.height} />
        </div>
      )}
      {children}
    </div>
  );
}
