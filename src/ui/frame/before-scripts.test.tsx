/** @jest-environment jsdom */
import { act, Suspense, use, useState } from 'react';
import { hydrateRoot } from 'react-dom/client';
import { renderToString } from 'react-dom/server.edge';
import { useForm } from 'react-hook-form';
import { FigureInput, SelectField } from '@/ui/kit/field';
import { inHtml } from '@/ui/kit/in-html';
import { keepUntilScriptsRun } from './before-scripts';

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });
interface Form {
  name: string;
  kind: string;
  lid: boolean;
  note: string;
}
const SENT: Form = { name: 'Oven', kind: 'dial', lid: true, note: 'as found' };
let saved: (Form & { supply: string; owner: string })[] = [];
/** Fields the form keeps by itself, and fields whose state is React's. */
function View() {
  const form = useForm<Form>({ defaultValues: SENT });
  const [supply, setSupply] = useState('21 mbar');
  const [owner, setOwner] = useState('network');
  const [more, setMore] = useState(0);
  const register = inHtml(form);
  return (
    <form onSubmit={(e) => void form.handleSubmit((v) => void saved.push({ ...v, supply, owner }))(e)}>
      <input aria-label="name" {...register('name')} />
      <select aria-label="kind" {...register('kind')}>
        <option value="digital">digital</option>
        <option value="dial">dial</option>
      </select>
      <input type="checkbox" aria-label="lid" {...register('lid')} />
      <textarea aria-label="note" {...register('note')} />
      <FigureInput label="supply" units={['mbar', 'psi']} value={supply} onChange={setSupply} />
      <SelectField
        label="owner"
        value={owner}
        options={[
          { id: 'network', title: 'network' },
          { id: 'house', title: 'house' },
        ]}
        onChange={setOwner}
      />
      <button type="submit">Save</button>
      <button type="button" aria-label="more" onClick={() => setMore((n) => n + 1)}>
        {more}
      </button>
    </form>
  );
}
const field = <E extends HTMLElement>(label: string): E =>
  document.querySelector<E>(`[aria-label="${label}"]`)!;
const owner = () => document.querySelector<HTMLSelectElement>('div > select[id]')!;
const send = () => document.querySelector('button')!.click();
/** As the browser does it: past whatever the framework has put in the way of `value`. */
const put = (node: HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement, value: string) => {
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(node) as object, 'value')!.set!.call(node, value);
  node.dispatchEvent(new Event(node instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }));
};
const pauses = (n: number) => act(async () => void jest.advanceTimersByTime(n * 60));

beforeAll(() => {
  jest.useFakeTimers();
  keepUntilScriptsRun();
});
/** The page as the server sends it, what a person does before the scripts run, and the scripts. */
async function open(before: () => void, meanwhile: () => void = () => undefined): Promise<void> {
  saved = [];
  document.body.innerHTML = `<div id="root">${renderToString(<View />)}</div>`;
  before();
  await pauses(3);
  await act(async () => void hydrateRoot(document.getElementById('root')!, <View />));
  await act(async () => meanwhile());
  await pauses(3);
}
/** A page of which a part is still on its way when the framework takes it up: all of it is put off. */
async function putOff(before: () => void = () => undefined): Promise<{ come: (words: string) => void }> {
  saved = [];
  const there = Object.assign(Promise.resolve(''), { status: 'fulfilled', value: '' });
  let come: (words: string) => void = () => undefined;
  const coming = new Promise<string>((done) => void (come = done));
  const Late = ({ words }: { words: Promise<string> }) => <i>{use(words)}</i>;
  const page = (words: Promise<string>) => (
    <Suspense fallback={null}>
      <View />
      <Late words={words} />
    </Suspense>
  );
  document.body.innerHTML = `<div id="root">${renderToString(page(there))}</div>`;
  before();
  await act(async () => void hydrateRoot(document.getElementById('root')!, page(coming)));
  return { come };
}
/** Where a form goes by itself, the page of a test says that it cannot. */
const goneByItself = () => jest.spyOn(console, 'error').mockClear();
const AS_SENT = { ...SENT, supply: '21 mbar', owner: 'network' };

test('values stand in the HTML and are what is sent', async () => {
  await open(() => {
    const shown = ['name', 'kind', 'supply'].map((l) => field<HTMLInputElement>(l).value);
    expect(shown).toEqual(['Oven', 'dial', '21']);
  });
  await act(async () => send());
  expect(saved).toEqual([AS_SENT]);
});
test('what was typed, chosen or unticked before the scripts ran stands there and is what is sent', async () => {
  await open(() => {
    put(field<HTMLInputElement>('name'), 'Deck oven');
    put(field<HTMLSelectElement>('kind'), 'digital');
    put(field<HTMLTextAreaElement>('note'), 'lid is bent');
    put(field<HTMLInputElement>('supply'), '75');
    put(field<HTMLSelectElement>('Unit of supply'), 'psi');
    put(owner(), 'house');
    field<HTMLInputElement>('lid').click();
  });
  expect(field<HTMLInputElement>('supply').value).toBe('75');
  expect(field<HTMLTextAreaElement>('note').value).toBe('lid is bent');
  expect(owner().value).toBe('house');
  await act(async () => send());
  expect(saved).toEqual([
    { name: 'Deck oven', kind: 'digital', lid: false, note: 'lid is bent', supply: '75 psi', owner: 'house' },
  ]);
});
test('typed on while the scripts take the page up: the newest stands', async () => {
  await open(
    () => put(field<HTMLInputElement>('supply'), '7'),
    () => put(field<HTMLInputElement>('supply'), '75'),
  );
  await act(async () => send());
  expect(saved).toMatchObject([{ supply: '75 mbar' }]);
});
test('sent before the scripts ran: it does not go by itself, and goes once, with what was typed', async () => {
  const gone = goneByItself();
  await open(() => {
    put(field<HTMLInputElement>('supply'), '75');
    send();
    expect(saved).toEqual([]);
  });
  await pauses(3);
  expect(saved).toEqual([{ ...AS_SENT, supply: '75 mbar' }]);
  expect(gone).not.toHaveBeenCalled();
});
test('taken up, but what stands beside it is still on its way: nothing is lost, nothing goes by itself, and all is done once', async () => {
  const { come } = await putOff(() => {
    put(field<HTMLInputElement>('supply'), '7');
    put(field<HTMLSelectElement>('kind'), 'digital');
  });
  // the framework has been at the fields, and has put all of it off
  expect(Object.keys(field('supply')).join()).toContain('__reactProps');
  await pauses(9);
  await act(async () => {
    put(field<HTMLInputElement>('name'), 'Deck oven');
    put(field<HTMLInputElement>('supply'), '75');
    field<HTMLInputElement>('lid').click();
    field('more').click();
  });
  const gone = goneByItself();
  await act(async () => send());
  expect(gone).not.toHaveBeenCalled();
  await pauses(9);
  expect([saved, field('more').textContent]).toEqual([[], '0']);
  await act(async () => come(''));
  await pauses(9);
  expect(saved).toEqual([{ ...AS_SENT, name: 'Deck oven', kind: 'digital', lid: false, supply: '75 mbar' }]);
  expect(field('more').textContent).toBe('1');
});
test('what is done while the scripts begin makes the framework take the page up at once: it is done once', async () => {
  saved = [];
  document.body.innerHTML = `<div id="root">${renderToString(<View />)}</div>`;
  await act(async () => {
    hydrateRoot(document.getElementById('root')!, <View />);
    put(field<HTMLInputElement>('supply'), '75');
    field('more').click();
    send();
  });
  await pauses(9);
  expect(saved).toEqual([{ ...AS_SENT, supply: '75 mbar' }]);
  expect(field('more').textContent).toBe('1');
});
test('so it is where a part was put off and could be taken up now', async () => {
  const { come } = await putOff();
  await act(async () => {
    come('');
    await Promise.resolve();
    field('more').click();
    send();
  });
  await pauses(9);
  expect([saved, field('more').textContent]).toEqual([[AS_SENT], '1']);
});
test('typed before, sent as soon as the scripts have taken the page up: it goes with what was typed', async () => {
  await open(
    () => put(field<HTMLInputElement>('supply'), '75'),
    () => send(),
  );
  await pauses(3);
  expect(saved).toEqual([{ ...AS_SENT, supply: '75 mbar' }]);
});
test('pressed, again and again, before the scripts ran: done once', async () => {
  await open(() => {
    for (let i = 0; i < 3; i++) field('more').click();
  });
  expect(field('more').textContent).toBe('1');
  await act(async () => field('more').click());
  expect(field('more').textContent).toBe('2');
  expect(saved).toEqual([]);
});
test('what is taken off the page again, or is no field, is left alone', async () => {
  await open(() => {
    const gone = document.body.appendChild(document.createElement('input'));
    const text = document.body.appendChild(document.createElement('p'));
    put(gone, 'x');
    text.dispatchEvent(new Event('input', { bubbles: true }));
    gone.remove();
    put(field<HTMLInputElement>('name'), 'Deck oven');
  });
  await act(async () => send());
  expect(saved).toMatchObject([{ name: 'Deck oven' }]);
});
test('a search that needs no script goes by itself', async () => {
  document.body.innerHTML = '<form action="/places"><input name="find"><button>Find</button></form>';
  const gone = jest.fn((e: Event) => {
    const held = e.defaultPrevented;
    e.preventDefault();
    return held;
  });
  addEventListener('submit', gone);
  send();
  expect(gone).toHaveReturnedWith(false);
  removeEventListener('submit', gone);
});
