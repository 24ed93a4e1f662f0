import { defineFieldType } from './fieldType';
import { type Anchor } from './values';

export interface AnchorShape {
  type: 'anchor';
  label: string;
  usual: Anchor | null;
}

const hasLevel = ({ event }: Anchor) => event === 'rises' || event === 'falls';

export const anchorField = (label: string) => ({ type: 'anchor', label, usual: null }) as const;

export const anchor = defineFieldType<AnchorShape, Anchor | null>({
  usual: ({ usual }) => usual,
  uses: (value) => (value === null ? {} : { anchors: [value] }),
  withReferences: (value, map) => (value === null ? null : { ...value, of: map.series(value.of) }),
  unitSeries: (value) => (value !== null && hasLevel(value) ? value.of : null),
  inUnits: (value, _field, { read }) =>
    value === null ? undefined : { ...value, level: read(value.level, false) },
});
