import { drawings } from '.';

/** A drawing of a guide; nothing where none is known by that key. */
export function Drawing({ of }: { of: string }) {
  if (!Object.hasOwn(drawings, of)) return null;
  const { title, shapes } = drawings[of];
  return (
    <svg className="guide-drawing" viewBox="0 0 240 120" role="img" aria-label={title}>
      <title>{title}</title>
      {shapes}
    </svg>
  );
}
