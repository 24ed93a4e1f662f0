import { runStyle } from '../runs/runStyles';
import { type Colour, colours, paint } from '../ui/colours';

const ofQuantities: readonly Colour[] = ['ofFirst', 'ofSecond', 'ofThird', 'ofFourth'];

const ofQuantity = (place: number) => ofQuantities[place % ofQuantities.length];

/** The colour of the quantity that comes at this place in its trace, for the page. */
export const quantityPaint = (place: number): string => paint(ofQuantity(place));

/** The same for canvases, as it is now. */
export const quantityColour = (place: number): string => colours[ofQuantity(place)];

interface Placed {
  runId: string;
  place: number;
}

/**
 * The colours of the lines of a trace: those of their runs; where it shows several quantities, those of the quantities, and runs are
 * told apart by their dashes and markers.
 */
export function colourIn(
  lines: readonly Pick<Placed, 'place'>[],
  styles: ReadonlyMap<string, { style: number }>,
): (line: Placed) => string {
  const isShared = lines.some(({ place }) => place > 0);
  return ({ runId, place }) =>
    isShared ? quantityColour(place) : runStyle(styles.get(runId)?.style ?? 0).color;
}
