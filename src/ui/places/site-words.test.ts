import { placeLine } from './site-words';

test('what is not entered leaves no comma behind', () => {
  expect(placeLine({ name: 'Kiln', address: '2 Fulling Yard' })).toBe('Kiln, 2 Fulling Yard');
  expect(placeLine({ name: 'New place', address: '' })).toBe('New place');
});
