/** A constant that ships, with where it is from. */
export interface KnownConstant {
  symbol: string;
  name: string;
  value: number;
  /** Standard uncertainty; 0 where the value is exact by definition. */
  uncertainty: number;
  /** UCUM code. */
  unit: string;
  source: string;
}

const codata = 'CODATA 2022 (NIST, 2024), the exact ones by the SI Brochure, 9th edition (2019)';

const known = (
  symbol: string,
  name: string,
  value: number,
  uncertainty: number,
  unit: string,
  source = codata,
): KnownConstant => ({ symbol, name, value, uncertainty, unit, source });

/**
 * Fundamental constants: P. J. Mohr, D. B. Newell, B. N. Taylor and E. Tiesinga, CODATA recommended values 2022, Rev. Mod. Phys. 97
 * (2025) 025002, as scipy.constants (SciPy 1.17.1) has them.
 */
export const fundamentalConstants: readonly KnownConstant[] = [
  known('g_n', 'standard acceleration of free fall', 9.80665, 0, 'm.s-2', '3rd CGPM (1901), exact'),
  known('c', 'speed of light', 299_792_458, 0, 'm.s-1'),
  known('e', 'elementary charge', 1.602176634e-19, 0, 'C'),
  known('h', 'Planck constant', 6.62607015e-34, 0, 'J.s'),
  known('k_B', 'Boltzmann constant', 1.380649e-23, 0, 'J.K-1'),
  known('N_A', 'Avogadro constant', 6.02214076e23, 0, 'mol-1'),
  known('R', 'molar gas constant', 8.31446261815324, 0, 'J.mol-1.K-1'),
  known('G', 'gravitational constant', 6.6743e-11, 1.5e-15, 'm3.kg-1.s-2'),
  known('ε0', 'vacuum electric permittivity', 8.8541878188e-12, 1.4e-21, 'F.m-1'),
  known('μ0', 'vacuum magnetic permeability', 1.25663706127e-6, 2.0e-16, 'N.A-2'),
  known('m_e', 'electron mass', 9.1093837139e-31, 2.8e-40, 'kg'),
  known('m_p', 'proton mass', 1.67262192595e-27, 5.2e-37, 'kg'),
  known('m_n', 'neutron mass', 1.67492750056e-27, 8.5e-37, 'kg'),
  known('m_u', 'atomic mass constant', 1.66053906892e-27, 5.2e-37, 'kg'),
  known('σ', 'Stefan–Boltzmann constant', 5.670374419e-8, 0, 'W.m-2.K-4'),
  known('p_n', 'standard atmosphere', 101_325, 0, 'Pa', '10th CGPM (1954), exact'),
];

const handbook = 'usual handbook value, at 20 °C and sea level pressure (from memory)';
const density = (name: string, value: number, uncertainty: number) =>
  known('ρ', name, value, uncertainty, 'kg.m-3', `Density of ${name}: ${handbook}`);

/** Densities that a lesson meets; the uncertainty is how far samples differ. */
export const densities: readonly KnownConstant[] = [
  density('water', 998.2, 0.1),
  density('sea water', 1025, 2),
  density('ice at 0 °C', 917, 1),
  density('ethanol', 789, 1),
  density('mercury', 13_546, 2),
  density('aluminium', 2700, 20),
  density('steel', 7850, 50),
  density('brass', 8500, 100),
  density('copper', 8960, 20),
  density('lead', 11_340, 20),
  density('window glass', 2500, 50),
  density('oak', 700, 100),
  density('air', 1.204, 0.005),
];
