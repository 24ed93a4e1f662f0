import { defineFieldType } from './fieldType';

export interface RegionShape {
  type: 'region';
  label: string;
}

export const regionField = (label = 'Region') => ({ type: 'region', label }) as const;

/** The id of a region entry, or null for the whole run. */
export const region = defineFieldType<RegionShape, string | null>({
  usual: () => null,
  ofNew: ({ later }, { region: wanted }) => (later === true ? null : wanted),
  uses: (value) => ({ regions: [value] }),
  withReferences: (value, map) => (value === null ? null : map.region(value)),
});
