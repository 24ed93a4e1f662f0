import { entryIn } from '../workings/references';
import { type StoredEvaluation } from './stored';

/** A stored evaluation of some of its entries alone, with all that is known of their results. */
export function restrictedTo(
  evaluation: StoredEvaluation,
  isWanted: (sheet: number, entry: string) => boolean,
): StoredEvaluation {
  const { runId, sheets, results, shared, own, repeats } = evaluation;
  const isWhole = sheets.every((outcomes, sheet) =>
    Object.keys(outcomes).every((entry) => isWanted(sheet, entry)),
  );
  if (isWhole) return evaluation;
  const places = new Map<number, number>();
  const kept = results.filter(({ sheet, entry }, i) => {
    if (!isWanted(sheet, entry)) return false;
    places.set(i, places.size);
    return true;
  });
  return {
    runId,
    repeats: repeats.filter(({ sheet, of }) => !of.startsWith('entry:') || isWanted(sheet, entryIn(of))),
    sheets: sheets.map((outcomes, sheet) =>
      Object.fromEntries(Object.entries(outcomes).filter(([entry]) => isWanted(sheet, entry))),
    ),
    results: kept,
    shared: shared.flatMap((root) => {
      const moves = root.moves.flatMap(([result, by]): typeof root.moves => {
        const place = places.get(result);
        return place === undefined ? [] : [[place, by]];
      });
      return moves.length === 0 ? [] : [{ ...root, moves }];
    }),
    own: own.flatMap((root) => {
      const covariance = root.results.flatMap((a, i) =>
        root.results
          .slice(0, i + 1)
          .flatMap((b, j) =>
            places.has(a) && places.has(b) ? [root.covariance[(i * (i + 1)) / 2 + j]] : [],
          ),
      );
      const moved = root.results.flatMap((result) => places.get(result) ?? []);
      return moved.length === 0 ? [] : [{ ...root, results: moved, covariance }];
    }),
  };
}
