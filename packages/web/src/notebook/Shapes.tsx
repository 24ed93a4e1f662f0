import DOMPurify from 'dompurify';
import { useMemo } from 'react';

/** Nothing but shapes and words of a picture: no scripts, no addresses, nothing of the page around it. */
export const cleanShapes = (picture: string): string =>
  DOMPurify.sanitize(picture, {
    USE_PROFILES: { svg: true },
    FORBID_TAGS: ['style', 'a', 'image', 'foreignObject', 'use', 'animate', 'set'],
    FORBID_ATTR: ['href', 'xlink:href', 'style', 'class'],
  });

/** A picture as shapes, sharp at any size; what it shows is said in words. */
export function Shapes({
  picture,
  says,
  width,
  height,
}: {
  picture: string;
  says: string;
  width: number;
  height: number;
}) {
  const clean = useMemo(() => cleanShapes(picture), [picture]);
  return (
    <div
      className="shapes"
      role="img"
      aria-label={says}
      style={{ aspectRatio: `${width} / ${height}` }}
      dangerouslySetInnerHTML={{ __html: clean }}
    />
  );
}
