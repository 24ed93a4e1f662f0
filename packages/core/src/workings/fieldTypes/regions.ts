import { defineFieldType } from './fieldType';

export interface RegionsShape {
  type: 'regions';
  label: string;
  usual: readonly string[];
}

/** Further regions, none of them at first. */
export const regionsField = (label: string) => ({ type: 'regions', label, usual: [] }) as const;

export const regions = defineFieldType<RegionsShape, readonly string[]>({
  usual: ({ usual }) => usual,
  uses: (value) => ({ regions: value }),
  withReferences: (value, map) => value.map(map.region),
});
