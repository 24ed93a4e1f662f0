/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { FaultBoundary } from './FaultBoundary';

function Broken(): never {
  throw new TypeError('no such thing');
}

test('a part that is at fault says so, and what stands beside it stays', () => {
  const logged = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  render(
    <>
      <FaultBoundary what="This entry" className="result-card" resetKeys={[]}>
        <Broken />
      </FaultBoundary>
      <p>mean of x = 4.2 m</p>
    </>,
  );
  expect(screen.getByRole('alert').textContent).toContain('This entry cannot be shown');
  expect(screen.getByRole('alert').textContent).toContain('no such thing');
  expect(screen.getByText('mean of x = 4.2 m')).toBeTruthy();
  logged.mockRestore();
});
