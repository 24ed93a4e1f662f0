import { entrySentence, printedUnit, resultInUnit } from '@heuristor/core';
import { useEffect, useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useNames } from '../../investigation/context';
import { resultText } from '../../ui/numberText';
import { mainOf, shownUnitOf } from './shownUnit';
import { useOwnOutcome } from './useEntryOutcomes';

/** Says what has just been worked out, to those who hear the page: "mean of x: 0.523 ± 0.001 m". */
export function SpokenResult() {
  const ids = useDocuments(useShallow(({ workings }) => workings.entries.map(({ id }) => id)));
  const known = useRef<ReadonlySet<string> | null>(null);
  const [newest, setNewest] = useState<string | null>(null);
  useEffect(() => {
    const before = known.current;
    known.current = new Set(ids);
    const added = before === null ? [] : ids.filter((id) => !before.has(id));
    // Several at once are a template or an undone step, and no answer to a press.
    if (added.length === 1) setNewest(added[0]);
    else if (newest !== null && !ids.includes(newest)) setNewest(null);
  }, [ids, newest]);
  return (
    <div className="visually-hidden" role="status" data-testid="spoken-result">
      {newest !== null && <Words id={newest} />}
    </div>
  );
}

function Words({ id }: { id: string }) {
  const entry = useDocuments(({ workings }) => workings.entries.find((candidate) => candidate.id === id));
  const nameOf = useNames();
  const main = useOwnOutcome({ id }, mainOf);
  if (entry === undefined || main === undefined) return null;
  const { value, halfWidth, unit } = resultInUnit(main, shownUnitOf(entry, main));
  const sentence = entrySentence(entry, nameOf);
  const called = entry.name === '' ? sentence : entry.name;
  const which = called.startsWith(main.name) ? called : `${main.name} of ${called}`;
  return `${which}: ${resultText(value, halfWidth)} ${printedUnit(unit)}`;
}
