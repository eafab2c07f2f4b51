/** @jest-environment jsdom */
import { withListsOf, withNetwork } from '@/core/network/enter';
import { bakery, plan } from '@/core/testing/bakery';
import { tradeOf } from '@/core/trades';
import SectionDrawn from '@/ui/bench/section-drawn';
import { press, stand, type } from '@/ui/testing/bench';
import { type NetworkForm, networkFromForm } from '@/wire/network';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { NetworkEditor } from './editor';

const sent: { path: string; body: NetworkForm }[] = [];
let answer: () => Promise<unknown> = async () => ({});
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => undefined }) }));
jest.mock('@/device/identity', () => ({
  readIdentity: () => ({ org: 'o', person: 'p' }),
  onIdentityChange: () => () => undefined,
}));
/** Photos that the office has, and whether it can be reached with one. */
let hanging: { part: string; hash: string; at: number; by: string }[] = [];
let signal = true;
const photoAnswer = (path: string, method = 'GET') => {
  const [, hash, part] = /photos\/(\w+)(?:\?part=(.*))?$/.exec(path) ?? [];
  if (!signal) throw new Error('The office cannot be reached, so nothing was sent.');
  if (method === 'PUT') hanging = [{ part: part!, hash: hash!, at: 0, by: 'Imre' }, ...hanging];
  if (method === 'DELETE') hanging = hanging.filter((p) => p.hash !== hash);
  return hanging;
};
jest.mock('@/device/office', () => ({
  office: async (path: string, { body, method }: { body?: NetworkForm; method?: string } = {}) => {
    if (path.includes('/photos')) return photoAnswer(path, method);
    sent.push({ path, body: body! });
    return answer();
  },
}));
jest.mock('@/device/photo', () => ({
  encodePhoto: async (file: File) => {
    if (file.type !== 'image/jpeg') throw new Error('That file is not a photo that can be read.');
    return { hash: 'abc', bytes: new ArrayBuffer(3) };
  },
}));
beforeEach(() => {
  sent.length = 0;
  hanging = [];
  signal = true;
  answer = async () => ({});
  localStorage.clear();
});
afterEach(cleanup);

const section = withListsOf(bakery());
const draw = (may = true) =>
  act(async () => {
    render(
      <NetworkEditor
        system="s1"
        place="Yard"
        section={section}
        palette={tradeOf(section).palette}
        may={may}
      />,
    );
  });
const sheet = () => screen.getByRole('group', { name: 'Section drawn' });
const part = (name: RegExp) => within(sheet()).getAllByRole('button', { name })[0]!;
const choose = (name: RegExp) => act(async () => void fireEvent.click(part(name)));
const key = (on: Element, k: string, more = {}) =>
  act(async () => void fireEvent.keyDown(on, { key: k, ...more }));
const saved = () => withNetwork(section, networkFromForm(sent[0]!.body));
const chosen = () => screen.getByRole('region', { name: 'What is chosen' });

test('whoever may only look sees the drawing and what it reaches, and nothing to change it with', async () => {
  await draw(false);
  expect(within(sheet()).getAllByRole('button', { name: /^appliance/ })).toHaveLength(
    bakery().appliances.length,
  );
  for (const name of ['Save', 'Undo', 'tee', 'Take away'])
    expect([name, screen.queryByRole('button', { name })]).toEqual([name, null]);
  expect(screen.getByText(/each a suspect until proved/)).toBeTruthy();
});
test('a valve closed here hides its appliance; undone, redone and saved, the section follows', async () => {
  await draw();
  expect((screen.getByRole('button', { name: 'Save' }) as HTMLButtonElement).disabled).toBe(true);
  await choose(/^valve lever/);
  await press(/open in the test/);
  expect(screen.getByText(/Deck oven is not reached/)).toBeTruthy();
  await press('Undo');
  expect(screen.queryByText(/is not reached/)).toBeNull();
  await press('Redo');
  await press('Save');
  expect([sent[0]!.path, screen.getByText(/The drawing is saved/)]).toEqual([
    '/api/systems/s1/drawing',
    expect.anything(),
  ]);
  expect(saved().network!.parts.find((p) => p.id === 'valve-oven')!.position).toBe('closed');
});
test('a part is put into the pipe that is chosen, said what it is, and the pipe stays whole', async () => {
  await draw();
  await act(async () => void fireEvent.click(within(sheet()).getAllByRole('button', { name: /^Pipe / })[0]!));
  await press(/part that permits less/);
  expect(screen.getByText(/what does it permit/)).toBeTruthy();
  await type(/^Name of/, 'Strainer');
  await type(/^Permits at most/, '4 bananas');
  await press('Save');
  expect([
    sent,
    screen
      .getAllByRole('alert')
      .map((a) => a.textContent)
      .join(),
  ]).toEqual([[], expect.stringMatching(/permits at most/)]);
  await type(/^Permits at most/, '100');
  await press('Save');
  expect(saved().elements).toEqual([
    expect.objectContaining({ name: 'Strainer', most: expect.objectContaining({ digits: 100 }) }),
  ]);
  expect(saved().pipes).toEqual(section.pipes);
});
test('a branch is copied with valve and appliance; a part taken away leaves the line whole', async () => {
  await draw();
  await choose(/^valve lever/);
  await press('Copy this branch');
  expect(within(sheet()).getAllByRole('button', { name: /^appliance Deck oven/ })).toHaveLength(2);
  await choose(/^meter/);
  await press('Take away');
  await press('Save');
  expect([saved().appliances.length, saved().meter.kind]).toEqual([3, 'unknown']);
  expect(screen.queryByText(/joined to nothing/)).toBeNull();
});
test('two parts are joined by touch and taken apart again', async () => {
  await draw();
  const joins = () => within(sheet()).getAllByRole('button', { name: /^(Join|Pipe)/ }).length;
  const before = joins();
  for (const change of [1, 0]) {
    await choose(/^meter/);
    await press(/^Join or take apart/);
    await choose(/^appliance Hob/);
    expect(joins() - before).toBe(change);
  }
});
test('keys move a part, take it away and undo; what is typed in a field is no key of the drawing', async () => {
  await draw();
  const meter = part(/^meter/);
  const place = () => part(/^meter/).getAttribute('transform');
  const stood = place();
  for (const k of ['ArrowRight', 'ArrowDown', 'ArrowDown']) await key(meter, k);
  expect(place()).not.toBe(stood);
  await key(document.body, 'z', { ctrlKey: true });
  expect(place()).toBe(stood);
  await key(document.body, 'z', { ctrlKey: true, shiftKey: true });
  expect(place()).not.toBe(stood);
  await choose(/^meter/);
  await key(within(chosen()).getAllByRole('textbox')[0]!, 'z', { ctrlKey: true });
  expect(place()).not.toBe(stood);
  await key(part(/^meter/), 'Delete');
  expect(within(sheet()).queryByRole('button', { name: /^meter/ })).toBeNull();
});
test('what the office refuses is said, and nothing that was drawn is lost', async () => {
  answer = async () => {
    throw new Error('An apprentice does not change places.');
  };
  await draw();
  await press('Tidy up');
  await choose(/^meter/);
  await type(/^Name of/, 'Old meter');
  await press('Save');
  expect(screen.getByText(/An apprentice does not/)).toBeTruthy();
  cleanup();
  await draw();
  await press('Put it back');
  expect(part(/^meter Old meter/)).toBeTruthy();
  cleanup();
  await draw();
  await press('Throw it away');
  cleanup();
  await draw();
  expect(screen.queryByText(/was not saved/)).toBeNull();
});

test('at the bench the drawing stands as the list has it ticked, with what the stage asks about marked', async () => {
  const s = await stand(plan(), 'prepare');
  const shown = () =>
    act(async () => {
      render(<SectionDrawn view={{ plan: s.plan, state: s.state }} />);
    });
  await shown();
  await press(/Open it large/);
  const dialog = screen.getByRole('dialog');
  expect(dialog.textContent).toMatch(/Marked: what this stage asks about/);
  expect(within(dialog).getByText(/must be closed/)).toBeTruthy();
  expect(dialog.textContent).toMatch(/Bounded bySupply valve at the meter, closed/);
  s.state.valves.oven = 'closed';
  cleanup();
  await shown();
  await press(/Open it large/);
  expect(screen.getByRole('dialog').textContent).toMatch(/Deck oven is not reached/);
});

test('photos hang on the part that is chosen; without a signal the photo waits and is sent again', async () => {
  hanging = [
    { part: section.network!.parts.find((p) => p.kind === 'meter')!.id, hash: 'old', at: 0, by: 'Oda' },
  ];
  await draw();
  await screen.findByRole('heading', { name: 'Photos of its parts' });
  await choose(/^valve/);
  const add = async (type: string) =>
    act(async () => {
      fireEvent.change(await screen.findByLabelText(/^Photo of it/), {
        target: { files: [new File(['x'], 'x', { type })] },
      });
    });
  const own = () => screen.queryAllByRole('img').filter((i) => i.getAttribute('src')?.includes('/photos/'));
  await add('text/plain');
  expect(screen.getAllByText(/not a photo that can be read/)).toHaveLength(1);
  expect(screen.queryByRole('button', { name: 'Send the photo again' })).toBeNull();
  signal = false;
  await add('image/jpeg');
  expect(screen.getByText(/cannot be reached/)).toBeTruthy();
  expect(own()).toEqual([]);
  signal = true;
  await press('Send the photo again');
  expect(hanging.map((p) => p.hash)).toEqual(['abc', 'old']);
  expect(own().map((i) => i.getAttribute('src'))).toEqual(['/api/systems/s1/photos/abc?small=1']);
  await press(/^Take this photo of .* away/);
  expect(hanging.map((p) => p.hash)).toEqual(['old']);
  expect(own()).toEqual([]);
});
test('whoever does not change the drawing still hangs a photo on a part of it', async () => {
  await draw(false);
  const meter = section.network!.parts.find((p) => p.kind === 'meter')!;
  const select = await screen.findByLabelText('A photo of');
  await act(async () => void fireEvent.change(select, { target: { value: meter.id } }));
  await act(async () => {
    fireEvent.change(screen.getByLabelText(/^Photo of it/), {
      target: { files: [new File(['x'], 'x', { type: 'image/jpeg' })] },
    });
  });
  expect(hanging).toEqual([{ part: meter.id, hash: 'abc', at: 0, by: 'Imre' }]);
});
test('a part that was only drawn has nothing yet to hang a photo on', async () => {
  await draw();
  await press(/^valve$/);
  expect(await screen.findByText(/Save the drawing first/)).toBeTruthy();
  expect(screen.queryByLabelText(/^Photo of it/)).toBeNull();
  await press('Save');
  expect(await screen.findByLabelText(/^Photo of it/)).toBeTruthy();
});
