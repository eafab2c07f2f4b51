/** @jest-environment jsdom */
import { render } from '@testing-library/react';
import { ConnectionFigure, ValveFigure } from './look-figure';

const drawn = (at: string | undefined) =>
  render(<ConnectionFigure at={at} />)
    .container.querySelector('path')
    ?.getAttribute('d');

test('where the gauge goes on is drawn for what one usual way there is, each its own; for the others nothing', () => {
  const known = ['appliances', 'surfaces', 'loops'].map(drawn);
  expect(new Set(known).size).toBe(3);
  expect(known.every((d) => d && d.length > 40)).toBe(true);
  expect([drawn('registers'), drawn(undefined), drawn('toString')]).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
});
test('an open valve has its lever along the pipe, a shut one across it', () => {
  const lever = (position: 'open' | 'closed') =>
    [...render(<ValveFigure position={position} />).container.querySelectorAll('path')]
      .at(-1)!
      .getAttribute('d');
  expect(lever('open')).toMatch(/^M24 24H/);
  expect(lever('closed')).toMatch(/^M24 24V/);
});
