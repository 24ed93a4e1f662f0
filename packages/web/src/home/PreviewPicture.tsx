import { previewsSchema } from '@heuristor/contracts';
import { useServer } from '../api/queries';
import { runStyle } from '../runs/runStyles';

const width = 132;
const height = 48;
const margin = 4;

/** The traces of an investigation at the size of a stamp, by which one finds it again. */
export function PreviewPicture({ id }: { id: string }) {
  // Without its picture an investigation has its name.
  const previews = useServer(`/investigations/${id}/previews`, previewsSchema).answer ?? [];
  const values = previews.flatMap(({ y }) => y).filter((value) => value !== null);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const scale = (height - 2 * margin) / (high - low || 1);
  return (
    <svg className="preview" width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
      {previews.map(({ x, y, style }, i) => (
        <path
          key={i}
          d={pathOf(x, y, (value) => height - margin - (value - low) * scale)}
          fill="none"
          stroke={runStyle(style).paint}
          strokeWidth="1.5"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}

function pathOf(x: readonly number[], y: readonly (number | null)[], toY: (value: number) => number): string {
  let pen = 'M';
  const parts: string[] = [];
  y.forEach((value, i) => {
    if (value === null) {
      pen = 'M';
      return;
    }
    parts.push(`${pen}${(margin + x[i] * (width - 2 * margin)).toFixed(1)},${toY(value).toFixed(1)}`);
    pen = 'L';
  });
  return parts.join('');
}
