import {
  type MathComponent,
  MathFraction,
  MathRadical,
  MathRun,
  MathSubScript,
  MathSubSuperScript,
  MathSuperScript,
} from 'docx';

/** Thrown where a formula has something for which there is no native equation here. */
class NoEquation extends Error {}

const many = (elements: Iterable<Element>): MathComponent[] => [...elements].flatMap(partsOf);
const part = (element: Element, at: number): MathComponent[] => {
  const child = element.children.item(at);
  if (child === null) throw new NoEquation();
  return partsOf(child);
};

/** What an element of MathML (W3C MathML 3, chapter 3) is as parts of a native equation. */
function partsOf(element: Element): MathComponent[] {
  switch (element.localName) {
    case 'mrow':
    case 'mstyle':
    case 'mpadded':
      return many(element.children);
    case 'mi':
    case 'mn':
    case 'mo':
    case 'mtext':
      return [new MathRun(element.textContent)];
    case 'mspace':
      return [new MathRun(' ')];
    case 'mfrac':
      return [new MathFraction({ numerator: part(element, 0), denominator: part(element, 1) })];
    case 'msqrt':
      return [new MathRadical({ children: many(element.children) })];
    case 'mroot':
      return [new MathRadical({ children: part(element, 0), degree: part(element, 1) })];
    case 'msup':
      return [new MathSuperScript({ children: part(element, 0), superScript: part(element, 1) })];
    case 'msub':
      return [new MathSubScript({ children: part(element, 0), subScript: part(element, 1) })];
    case 'msubsup':
      return [
        new MathSubSuperScript({
          children: part(element, 0),
          subScript: part(element, 1),
          superScript: part(element, 2),
        }),
      ];
    default:
      throw new NoEquation();
  }
}

/** A formula as parts of a native equation; null where it has something that they cannot say. @param math as MathML */
export function equationOf(math: Element): MathComponent[] | null {
  try {
    return many(math.children);
  } catch (error) {
    if (error instanceof NoEquation) return null;
    throw error;
  }
}
