import { type Said, readLine } from './lines';

/** So many lines of one kind in a row say what the columns are. */
const agreeing = 3;
const shownLetters = 60;

/** Finds out what the lines of a microcontroller hold, and counts those that are none. */
export class Columns {
  names: string[] | null = null;
  lines = 0;
  garbage = 0;
  lastGarbage = '';
  private candidate: { names: string[]; count: number } = { names: [], count: 0 };

  /**
   * Takes a line. @returns the numbers of the columns that are known, "found" where they have just become known, or null where the
   * line says nothing
   */
  take(text: string): number[] | 'found' | null {
    if (text.trim() === '') return null;
    this.lines++;
    const said = readLine(text);
    if (said === null) return this.refuse(text);
    if (this.names !== null) {
      const values = this.names.map((name) => said.get(name) ?? NaN);
      if (said.size === this.names.length && !values.some(Number.isNaN)) {
        this.candidate.count = 0;
        return values;
      }
      // A sketch that was changed says other things, again and again; a torn line says them once.
      return this.learn(said) ?? this.refuse(text);
    }
    return this.learn(said);
  }

  private learn(said: Said): 'found' | null {
    const names = [...said.keys()];
    const isSame = names.join('\n') === this.candidate.names.join('\n');
    this.candidate = { names, count: isSame ? this.candidate.count + 1 : 1 };
    if (this.candidate.count < agreeing) return null;
    this.names = names;
    this.candidate = { names: [], count: 0 };
    return 'found';
  }

  private refuse(text: string): null {
    this.garbage++;
    this.lastGarbage = [...text.trim()]
      .map((letter) => (letter >= ' ' && letter <= '~' ? letter : '·'))
      .join('')
      .slice(0, shownLetters);
    return null;
  }

  /** What there is to say of lines that were not understood; empty where all were. */
  get remark(): string {
    return this.garbage === 0
      ? ''
      : `${this.garbage} of ${this.lines} lines were not understood; the last one: “${this.lastGarbage}”`;
  }
}
