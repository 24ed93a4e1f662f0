/** Greek letters by the names that people type for them. */
const greekByName: Readonly<Record<string, string>> = {
  alpha: 'α',
  beta: 'β',
  gamma: 'γ',
  delta: 'δ',
  epsilon: 'ε',
  zeta: 'ζ',
  eta: 'η',
  theta: 'θ',
  iota: 'ι',
  kappa: 'κ',
  lambda: 'λ',
  mu: 'μ',
  nu: 'ν',
  xi: 'ξ',
  pi: 'π',
  rho: 'ρ',
  sigma: 'σ',
  tau: 'τ',
  upsilon: 'υ',
  phi: 'φ',
  chi: 'χ',
  psi: 'ψ',
  omega: 'ω',
  Gamma: 'Γ',
  Delta: 'Δ',
  Theta: 'Θ',
  Lambda: 'Λ',
  Xi: 'Ξ',
  Pi: 'Π',
  Sigma: 'Σ',
  Phi: 'Φ',
  Psi: 'Ψ',
  Omega: 'Ω',
};

const nameByGreek: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(greekByName).map(([name, letter]) => [letter, name]),
);

const sameLetters: Readonly<Record<string, string>> = { µ: 'μ', '∆': 'Δ', Ω: 'Ω', ϕ: 'φ', ϑ: 'θ', ϵ: 'ε' };

const lowered = '₀₁₂₃₄₅₆₇₈₉';

/** A name in parts: what stands on the line, and what is set below it. */
export interface NameParts {
  stem: string;
  index: string;
}

/** The parts of a name: "x0", "x_0" and "x₀" are x with 0 below, "v_max" v with max, "theta" θ. */
export function nameParts(name: string): NameParts {
  const plain = [...name.trim()]
    .map((letter) =>
      lowered.includes(letter) ? String(lowered.indexOf(letter)) : (sameLetters[letter] ?? letter),
    )
    .join('');
  const underlined = /^([^_]+)_(.+)$/.exec(plain);
  const numbered = /^(\D+?)(\d+)$/.exec(plain);
  const [stem, index] =
    underlined !== null
      ? [underlined[1], underlined[2]]
      : numbered !== null
        ? [numbered[1], numbered[2]]
        : [plain, ''];
  return { stem: Object.hasOwn(greekByName, stem) ? greekByName[stem] : stem, index };
}

/** The same text for all spellings of one name: "theta_0", "θ0" and "θ₀" are one. */
export function sameName(name: string): string {
  const { stem, index } = nameParts(name);
  return index === '' ? stem : `${stem}_${index}`;
}

/** The English name of a Greek letter; undefined for any other text. */
export const greekName = (letter: string): string | undefined =>
  Object.hasOwn(nameByGreek, letter) ? nameByGreek[letter] : undefined;

/** A name that can be written into a formula as it stands; any other stands in braces. */
export const plainName = /^\p{L}[\p{L}\d_₀-₉'′]*$/u;

/** Whether a name is that of the number 3.14…, which is no quantity of anybody's. */
export const isPi = (name: string): boolean => sameName(name) === 'π';
