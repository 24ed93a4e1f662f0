import { type Entry } from '@heuristor/core';
import { useSession } from '../../investigation/context';
import { ResultRow, ResultValue } from '../../ui/ResultRow';
import { type ShownResult } from '../../workers/protocol';
import { shownUnitOf } from './shownUnit';

interface Props {
  entry: Entry;
  result: ShownResult;
  /** With its name before it, in a list. */
  isNamed: boolean;
  isAsked: boolean;
  onAsk: () => void;
}

/** One result of an entry; its number opens how it was worked out and what its uncertainty is made of. */
export function EntryValue({ entry, result, isNamed, isAsked, onAsk }: Props) {
  const session = useSession();
  const choose = (code: string | null) => {
    const others = Object.fromEntries(
      Object.entries(entry.shownIn ?? {}).filter(([key]) => key !== result.key),
    );
    session.changeEntry(entry.id, { shownIn: code === null ? others : { ...others, [result.key]: code } });
  };
  const Shown = isNamed ? ResultRow : ResultValue;
  return (
    <Shown
      name={result.name}
      resultKey={result.key}
      isMain={result.main}
      result={result}
      unit={shownUnitOf(entry, result)}
      isUnitChosen={entry.shownIn?.[result.key] !== undefined}
      onUnit={choose}
      opens={result.halfWidth === null && result.isWorkedOut !== true ? null : whatOpens(result)}
      isOpen={isAsked}
      onOpen={onAsk}
    />
  );
}

function whatOpens({ name, halfWidth, isWorkedOut = false }: ShownResult): string {
  const budget = `what the uncertainty of ${name} is made of`;
  if (!isWorkedOut) return budget;
  return halfWidth === null ? `how ${name} was worked out` : `how it was worked out, and ${budget}`;
}
