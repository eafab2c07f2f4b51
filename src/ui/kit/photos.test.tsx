/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from '@testing-library/react';
import { Photos, type ShownPhoto } from './photos';

const photo = (key: string, at: number, thing: string): ShownPhoto => ({
  key,
  small: `/small/${key}`,
  large: `/large/${key}`,
  words: `Photo ${key}`,
  when: `at ${at}`,
  at,
  thing,
});
const LIST = [photo('b', 2, 'valve'), photo('a', 1, 'valve'), photo('c', 3, 'plate')];
const open = async (name: string) => {
  render(<Photos captions className="" small="" photos={LIST} />);
  fireEvent.click(screen.getByRole('button', { name: `${name}: large` }));
  // what shows it large is fetched then: on a slow machine that takes its time
  return screen.findByRole('dialog', {}, { timeout: 30_000 });
};
const shown = (dialog: HTMLElement) =>
  within(dialog)
    .getAllByRole('img')
    .map((i) => i.getAttribute('src'));

test('a photo stands large, whole and not the small one; the others are one press away, round and round', async () => {
  const dialog = await open('Photo b');
  expect(shown(dialog)).toEqual(['/large/b']);
  fireEvent.click(within(dialog).getByRole('button', { name: 'Next' }));
  expect(shown(dialog)).toEqual(['/large/a']);
  fireEvent.keyDown(dialog, { key: 'ArrowLeft' });
  fireEvent.keyDown(dialog, { key: 'ArrowLeft' });
  expect(shown(dialog)).toEqual(['/large/c']);
  fireEvent.click(within(dialog).getByRole('button', { name: 'Close' }));
  expect(screen.queryByRole('dialog')).toBeNull();
});
test.each(['Photo a', 'Photo b'])(
  '%s and the other of the same thing: the earlier stands first',
  async (name) => {
    const dialog = await open(name);
    fireEvent.click(within(dialog).getByRole('button', { name: 'Before and after' }));
    expect(shown(dialog)).toEqual(['/large/a', '/large/b']);
    expect(dialog.textContent).toMatch(/Before: Photo a.*After: Photo b/);
  },
);
test('what there is one photo of has nothing beside it', async () => {
  const dialog = await open('Photo c');
  expect(within(dialog).queryByRole('button', { name: 'Before and after' })).toBeNull();
});
