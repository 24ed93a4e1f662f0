import { FormulaFault } from './fault';
import { type FunctionName, functionNamed, functions } from './functions';
import { type Token, tokensOf } from './tokens';
import { type Formula, type Operation, type Place } from './tree';

/** Brackets in brackets, so many and no more: deeper ones are a mistake, and would exhaust the stack. */
const deepest = 60;

/**
 * Reads a formula as physicists write it. Grammar, with what binds most loosely first:
 *
 *     sum      = product { ("+" | "−") product }
 *     product  = signed { ("*" | "/") signed | power }
 *     signed   = [ "+" | "−" ] signed | power
 *     power    = atom [ "^" signed | raised digits ]
 *     atom     = number [ "[" unit "]" ] | name | "{" name "}" | "(" sum ")" | function atom | "d(" sum ")/d(" name ")"
 *
 * Factors that stand side by side are multiplied. What could be read in two ways (a / b c) is refused, but for a fraction of
 * two numbers (1/2 m).
 * @throws FormulaFault that says what is wrong, where, and what would be right
 */
export function parseFormula(text: string): Formula {
  const tokens = tokensOf(text);
  if (tokens.length === 1) throw new FormulaFault('Type a formula, like 1/2 m v^2.', 0, 0);
  return new Reader(tokens, text).whole();
}

/** A quotient whose divisor could go on. */
const isOpenDivisor = ({ kind }: Formula, isBracketed: boolean) =>
  !isBracketed && (kind === 'number' || kind === 'name' || kind === 'power' || kind === 'negative');

class Reader {
  private at = 0;
  private depth = 0;
  /** Where each bracketed part ended, so that (2 a) is told from 2 a. */
  private readonly bracketed = new WeakSet<Formula>();

  constructor(
    private readonly tokens: readonly Token[],
    private readonly text: string,
  ) {}

  whole(): Formula {
    const formula = this.sum();
    const rest = this.next;
    if (rest.kind === 'end') return formula;
    if (isSign(rest, ')'))
      throw this.fault('This bracket closes nothing. Remove it, or open one before it.', rest);
    if (isSign(rest, ','))
      throw this.fault(
        'A comma stands only between the two arguments of a function, as in max(a, b). A decimal number is written 0.5 or 0,5, without a space.',
        rest,
      );
    throw this.fault('A unit in brackets stands right after a number, as in 9.81 [m/s²].', rest);
  }

  private get next(): Token {
    return this.tokens[this.at];
  }

  private after(steps: number): Token {
    return this.tokens[Math.min(this.at + steps, this.tokens.length - 1)];
  }

  private fault(message: string, { from, to }: Place): FormulaFault {
    return new FormulaFault(message, from, to);
  }

  private take(sign: Extract<Token, { kind: 'sign' }>['sign']): boolean {
    if (!isSign(this.next, sign)) return false;
    this.at++;
    return true;
  }

  private sum(): Formula {
    let left = this.product();
    for (;;) {
      const sign = this.next;
      if (isSign(sign, '+')) left = this.joined('sum', left, () => this.product());
      else if (isSign(sign, '-')) left = this.joined('difference', left, () => this.product());
      else return left;
    }
  }

  private joined(kind: Operation, left: Formula, read: () => Formula): Formula {
    this.at++;
    const right = read();
    return { kind, left, right, from: left.from, to: right.to };
  }

  private product(): Formula {
    let left = this.signed();
    for (;;) {
      const sign = this.next;
      if (isSign(sign, '*')) left = this.joined('product', left, () => this.signed());
      else if (isSign(sign, '/')) left = this.joined('quotient', left, () => this.signed());
      else if (beginsFactor(sign)) {
        this.refuseAmbiguous(left);
        const right = this.power();
        left = { kind: 'product', left, right, from: left.from, to: right.to };
      } else return left;
    }
  }

  /** “a / b c” divides by b for some and by b c for others. */
  private refuseAmbiguous(left: Formula): void {
    if (left.kind !== 'quotient' || this.bracketed.has(left)) return;
    const { left: above, right: below } = left;
    if (!isOpenDivisor(below, this.bracketed.has(below))) return;
    if (isPlainNumber(above) && isPlainNumber(below)) return;
    const from = below.from;
    const part = (place: Place) => this.text.slice(place.from, place.to);
    const start = this.at;
    const further = part(this.power());
    this.at = start;
    throw new FormulaFault(
      `This can be read in two ways. Write ${part(above)} / (${part(below)} ${further}), or (${part(above)} / ${part(below)}) ${further}.`,
      from,
      this.after(0).to,
    );
  }

  private signed(): Formula {
    const sign = this.next;
    if (isSign(sign, '-')) {
      this.at++;
      const of = this.deeper(() => this.signed());
      return { kind: 'negative', of, from: sign.from, to: of.to };
    }
    if (isSign(sign, '+')) {
      this.at++;
      return this.deeper(() => this.signed());
    }
    return this.power();
  }

  private deeper<T>(read: () => T): T {
    if (++this.depth > deepest)
      throw this.fault(`More than ${deepest} brackets or signs are nested here.`, this.next);
    const found = read();
    this.depth--;
    return found;
  }

  private power(): Formula {
    const base = this.atom();
    const sign = this.next;
    if (sign.kind === 'raised') {
      this.at++;
      const right: Formula = {
        kind: 'number',
        value: Math.abs(sign.value),
        unit: null,
        from: sign.from,
        to: sign.to,
      };
      const exponent: Formula =
        sign.value < 0 ? { kind: 'negative', of: right, from: sign.from, to: sign.to } : right;
      return { kind: 'power', left: base, right: exponent, from: base.from, to: sign.to };
    }
    if (!isSign(sign, '^')) return base;
    return this.joined('power', base, () => this.deeper(() => this.signed()));
  }

  private atom(): Formula {
    const token = this.next;
    switch (token.kind) {
      case 'number': {
        this.at++;
        const unit = this.next;
        if (unit.kind !== 'unit')
          return { kind: 'number', value: token.value, unit: null, from: token.from, to: token.to };
        this.at++;
        return { kind: 'number', value: token.value, unit: unit.unit, from: token.from, to: unit.to };
      }
      case 'name': {
        const derivative = this.derivative();
        if (derivative !== null) return derivative;
        const called = token.isBraced ? undefined : functionNamed(token.name);
        if (called !== undefined) return this.call(called, token);
        if (token.name === 'log' && !token.isBraced)
          throw this.fault('log may mean two functions: write ln (base e) or lg (base 10).', token);
        this.at++;
        return { kind: 'name', name: token.name, from: token.from, to: token.to };
      }
      case 'sign':
        if (token.sign === '(') return this.inBrackets();
        break;
      case 'unit':
        throw this.fault('A unit in brackets stands right after a number, as in 9.81 [m/s²].', token);
      case 'raised':
        throw this.fault('Nothing is raised to this power. Write a base before it.', token);
      case 'end':
        throw this.fault('The formula ends where a number, a name or a bracket is expected.', {
          from: Math.max(token.from - 1, 0),
          to: token.to,
        });
    }
    const written = this.text.slice(token.from, token.to);
    throw this.fault(`Before “${written}” a number, a name or a bracket is missing.`, token);
  }

  private inBrackets(): Formula {
    const open = this.next;
    this.at++;
    const inner = this.deeper(() => this.sum());
    this.close(open);
    // Its place is that with the brackets, so that faults point at what people see.
    const whole = { ...inner, from: open.from, to: this.after(-1).to };
    this.bracketed.add(whole);
    return whole;
  }

  private close(open: Place): void {
    if (this.take(')')) return;
    if (isSign(this.next, ','))
      throw this.fault(
        'A comma stands only between the two arguments of a function, as in max(a, b). A decimal number is written 0.5 or 0,5, without a space.',
        this.next,
      );
    throw this.fault('This bracket is not closed.', { from: open.from, to: open.from + 1 });
  }

  /** A function with its arguments in brackets, or with the one name or number after it; sin^2(x) is (sin x)^2. */
  private call(name: FunctionName, token: Token): Formula {
    this.at++;
    let exponent: Formula | null = null;
    const raised = this.next;
    if (isSign(raised, '^') && isSign(this.after(1), '-')) throw this.inverse(name, this.after(1));
    if (raised.kind === 'raised' || (isSign(raised, '^') && this.after(1).kind === 'number')) {
      this.at += raised.kind === 'raised' ? 1 : 2;
      const number = this.after(-1);
      const value = number.kind === 'raised' || number.kind === 'number' ? number.value : NaN;
      exponent = { kind: 'number', value, unit: null, from: number.from, to: number.to };
      if (!(value > 0)) throw this.inverse(name, number);
    }
    const of = this.argumentsOf(name, token);
    const call: Formula = { kind: 'call', name, of, from: token.from, to: this.after(-1).to };
    this.bracketed.add(call);
    return exponent === null
      ? call
      : { kind: 'power', left: call, right: exponent, from: call.from, to: call.to };
  }

  private inverse(name: string, place: Place): FormulaFault {
    return this.fault(
      `A function to a negative power is read as its inverse by some and as one over it by others. Write a${name}(…) or 1/${name}(…).`,
      place,
    );
  }

  private argumentsOf(name: FunctionName, token: Token): Formula[] {
    const { arity } = functions[name];
    const open = this.next;
    if (isSign(open, '(')) {
      this.at++;
      const of = [this.deeper(() => this.sum())];
      while (of.length < arity && this.take(',')) of.push(this.deeper(() => this.sum()));
      if (of.length < arity)
        throw this.fault(`${name} takes two arguments with a comma between them: ${name}(a, b).`, token);
      this.close(open);
      return of;
    }
    if (arity > 1 || !beginsFactor(open) || (open.kind === 'name' && functionNamed(open.name) !== undefined))
      throw this.fault(
        `${name} needs its argument${arity > 1 ? 's' : ''} in brackets: ${name}(${arity > 1 ? 'a, b' : 'x'}).`,
        token,
      );
    const of = this.atom();
    const further = this.next;
    if (token.kind === 'name' && token.name === '√') return [of];
    if (isSign(further, '^') || further.kind === 'raised' || (of.kind === 'number' && beginsFactor(further)))
      throw this.fault(`What belongs to ${name} is not clear here. Put it in brackets: ${name}(…).`, {
        from: token.from,
        to: further.to,
      });
    return [of];
  }

  /** d(x)/d(t), or d^2(x)/d(t)^2; null where nothing of the kind begins here. */
  private derivative(): Formula | null {
    const start = this.at;
    const first = this.next;
    if (first.kind !== 'name' || first.name !== 'd' || first.isBraced) return null;
    this.at++;
    const order = this.exponent() ?? 1;
    const open = this.next;
    const end = isSign(open, '(') ? this.closingOf(this.at) : -1;
    const by = end < 0 ? undefined : this.tokens[end + 4];
    const isOne =
      end > 0 &&
      isSign(this.tokens[end + 1], '/') &&
      isNamed(this.tokens[end + 2], 'd') &&
      isSign(this.tokens[end + 3], '(') &&
      by?.kind === 'name' &&
      isSign(this.tokens[end + 5], ')');
    if (!isOne || by.kind !== 'name') {
      this.at = start;
      return null;
    }
    this.at++;
    const of = this.deeper(() => this.sum());
    this.close(open);
    this.at += 5;
    const below = this.exponent() ?? 1;
    const whole = { from: first.from, to: this.after(-1).to };
    if (order !== below || (order !== 1 && order !== 2))
      throw this.fault('A derivative is written d(x)/d(t), a second one d^2(x)/d(t)^2.', whole);
    const found: Formula = { kind: 'derivative', of, by: by.name, order, ...whole };
    this.bracketed.add(found);
    return found;
  }

  private exponent(): number | null {
    const token = this.next;
    if (token.kind === 'raised') {
      this.at++;
      return token.value;
    }
    const number = this.after(1);
    if (!isSign(token, '^') || number.kind !== 'number') return null;
    this.at += 2;
    return number.value;
  }

  /** The place of the bracket that closes the one at a place; −1 where none does. */
  private closingOf(place: number): number {
    let depth = 0;
    for (let i = place; i < this.tokens.length; i++) {
      if (isSign(this.tokens[i], '(')) depth++;
      if (isSign(this.tokens[i], ')') && --depth === 0) return i;
    }
    return -1;
  }
}

type Sign = Extract<Token, { kind: 'sign' }>['sign'];

const isSign = (token: Token | undefined, sign: Sign) => token?.kind === 'sign' && token.sign === sign;

const isNamed = (token: Token | undefined, name: string) => token?.kind === 'name' && token.name === name;

const beginsFactor = (token: Token) => token.kind === 'number' || token.kind === 'name' || isSign(token, '(');

const isPlainNumber = (formula: Formula) => formula.kind === 'number' && formula.unit === null;
