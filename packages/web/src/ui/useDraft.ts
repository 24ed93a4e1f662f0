import { type ChangeEvent, type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';

/** What became of a typed text: what stands in the field now, or what is wrong with it and what would be right. */
export type Taken = { text: string } | { wrong: string };

interface Options {
  /** What stands in the field while nobody types. */
  standing: string;
  /** Lets a typed text take effect, or says what is wrong with it. It is asked only about one that differs from what stands. */
  take: (text: string) => Taken;
  /** What is wrong with a text already while it is typed. */
  complain?: (text: string) => string | null;
  /** Enter leaves the field, too; otherwise the next number can be typed at once. */
  isLeftByEnter?: boolean;
  /** A text that was typed and not left yet takes effect where the field goes, as when another run comes to the front. */
  survives?: boolean;
  /** Called after the field was left, or Escape was pressed. */
  onDone?: () => void;
}

/** What somebody types into a field, which takes effect on Enter or on leaving; Escape puts the former text back. */
export function useDraft({
  standing,
  take,
  complain = () => null,
  isLeftByEnter = false,
  survives = false,
  onDone,
}: Options) {
  const [text, setText] = useState(standing);
  const [wrong, setWrong] = useState<string | null>(null);
  const sentenceId = useId();
  /** What has taken effect, though its answer may not be here yet. */
  const taken = useRef(standing);
  const stand = (next: string) => {
    setText(next);
    setWrong(null);
  };
  useEffect(() => {
    stand(standing);
    taken.current = standing;
  }, [standing]);
  const commit = () => {
    if (text === standing) setWrong(null);
    else {
      const became = take(text);
      if ('wrong' in became) setWrong(became.wrong);
      else {
        taken.current = text;
        stand(became.text);
      }
    }
  };
  const leave = () => {
    commit();
    onDone?.();
  };
  const going = useRef<() => void>(() => undefined);
  useEffect(() => {
    going.current = () => {
      if (survives && text !== standing && text !== taken.current) take(text);
    };
  });
  useEffect(() => () => going.current(), []);
  return {
    text,
    wrong: text === standing ? wrong : (complain(text) ?? wrong),
    sentenceId,
    /** What the field listens to. */
    handlers: {
      onChange: ({ target }: ChangeEvent<HTMLInputElement>) => setText(target.value),
      onBlur: leave,
      onKeyDown: ({ key, currentTarget }: KeyboardEvent<HTMLInputElement>) => {
        if (key === 'Enter') {
          if (isLeftByEnter) currentTarget.blur();
          else commit();
        }
        if (key === 'Escape') {
          stand(standing);
          onDone?.();
        }
      },
    },
  };
}

export type Draft = ReturnType<typeof useDraft>;
