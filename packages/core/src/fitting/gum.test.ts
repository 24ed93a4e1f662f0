import { fitRelation } from './fit';
import { line } from './models/line';

// Source: JCGM 100:2008 (GUM), annex H.3, table H.6 and its results: calibration of a thermometer, t₀ = 20 °C.
const temperature = [21.521, 22.012, 22.512, 23.003, 23.507, 23.999, 24.513, 25.002, 25.503, 26.01, 26.511];
const correction = [-0.171, -0.169, -0.166, -0.159, -0.164, -0.165, -0.156, -0.157, -0.159, -0.161, -0.16];

test('the calibration line of GUM H.3 comes out with its uncertainties and correlation', () => {
  const y = Float64Array.from(correction);
  const fit = fitRelation(line, { x: Float64Array.from(temperature, (t) => t - 20), y });
  const [slope, intercept] = fit.parameters;
  const [uSlope, uIntercept] = fit.standardUncertainties;
  expect(intercept).toBeCloseTo(-0.1712, 4);
  expect(uIntercept).toBeCloseTo(0.0029, 4);
  expect(slope).toBeCloseTo(0.00218, 5);
  expect(uSlope).toBeCloseTo(0.00067, 5);
  expect(fit.covariance[0][1] / (uSlope * uIntercept)).toBeCloseTo(-0.93, 3);
  expect(fit.residualStandardDeviation).toBeCloseTo(0.0035, 4);
  // The predicted correction at 30 °C, H.3.4: −0.1494 with u = 0.0041.
  expect(intercept + 10 * slope).toBeCloseTo(-0.1494, 4);
  const variance = uIntercept ** 2 + 100 * uSlope ** 2 + 20 * fit.covariance[0][1];
  expect(Math.sqrt(variance)).toBeCloseTo(0.0041, 4);
});
