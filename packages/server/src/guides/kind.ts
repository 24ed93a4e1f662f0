import { type GuideAnswer, type GuideAnswerOf, type GuideItemOf } from '@heuristor/contracts';

/** What was found of an answer; `says` is what else is to be said of it, '' for nothing. */
export interface Verdict {
  isRight: boolean;
  says: string;
}

/** Finds the value of a result of somebody's workings, in a unit. @throws Failure where there is none */
export type ResultValue = (answer: GuideAnswerOf<'result'>, unit: string) => Promise<number>;

/** How the answers to one kind of question are checked. */
export interface CheckedKind<K extends GuideAnswer['kind'] & CheckableKind> {
  kind: K;
  /**
   * @param right what is right, which the teacher has said
   * @throws Failure where it is no answer that could be right or wrong
   */
  check(
    item: GuideItemOf<K>,
    right: NonNullable<GuideItemOf<K>['right']>,
    answer: GuideAnswerOf<K>,
    valueOf: ResultValue,
  ): Verdict | Promise<Verdict>;
}

export type CheckableKind = 'choice' | 'number' | 'result';
