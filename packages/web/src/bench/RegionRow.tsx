import { type RegionLine, one } from '@heuristor/core';
import { useBench } from '../stores/bench';
import { changeLine } from '../stores/workings';
import { NumberField } from '../ui/NumberField';
import { UnitText } from '../ui/UnitText';

/** The ends of a region, typed. */
export function RegionRow({ region }: { region: RegionLine }) {
  const unit = useBench((state) => state.rendered?.horizontal.unit ?? one);
  return (
    <div className="window-row mono">
      <NumberField
        label={`Start of region ${region.letter}`}
        value={region.start}
        digits={5}
        onCommit={(start) => changeLine(region.id, { start })}
      />
      –
      <NumberField
        label={`End of region ${region.letter}`}
        value={region.end}
        digits={5}
        onCommit={(end) => changeLine(region.id, { end })}
      />
      <UnitText unit={unit} />
    </div>
  );
}
