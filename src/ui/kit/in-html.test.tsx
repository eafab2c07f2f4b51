/** @jest-environment jsdom */
import { act } from 'react';
import { hydrateRoot } from 'react-dom/client';
import { useForm } from 'react-hook-form';
import { inHtml } from './in-html';

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });
/** What the server sends for the form below. */
const SENT = `<form><input aria-label="name" name="name" value="Oven">
<select aria-label="kind" name="kind"><option value="digital">digital</option><option value="dial" selected>dial</option></select>
<input type="checkbox" aria-label="lid" name="lid" checked><button type="submit">Save</button></form>`.replace(
  /\n/g,
  '',
);

interface Form {
  name: string;
  kind: string;
  lid: boolean;
}
let sent: Form | null = null;
function View() {
  const form = useForm<Form>({ defaultValues: { name: 'Oven', kind: 'dial', lid: true } });
  const register = inHtml(form);
  return (
    <form onSubmit={(e) => void form.handleSubmit((v) => void (sent = v))(e)}>
      <input aria-label="name" {...register('name')} />
      <select aria-label="kind" {...register('kind')}>
        <option value="digital">digital</option>
        <option value="dial">dial</option>
      </select>
      <input type="checkbox" aria-label="lid" {...register('lid')} />
      <button type="submit">Save</button>
    </form>
  );
}
const field = <E extends HTMLElement>(label: string): E =>
  document.querySelector<E>(`[aria-label=${label}]`)!;
/** The page as the server sends it, what a person does before the scripts run, and the scripts. */
async function open(before: () => void): Promise<Form> {
  document.body.innerHTML = `<div id="root">${SENT}</div>`;
  const shown = [field<HTMLInputElement>('name').value, field<HTMLSelectElement>('kind').value];
  expect(shown).toEqual(['Oven', 'dial']);
  before();
  await act(async () => void hydrateRoot(document.getElementById('root')!, <View />));
  await act(async () => document.querySelector('button')!.click());
  return sent!;
}

test('values stand in the HTML and are what is sent', async () => {
  expect(await open(() => undefined)).toEqual({ name: 'Oven', kind: 'dial', lid: true });
});
test('what was typed, chosen or unticked before the scripts ran stays, and is what is sent', async () => {
  const form = await open(() => {
    field<HTMLInputElement>('name').value = 'Deck oven';
    field<HTMLSelectElement>('kind').value = 'digital';
    field<HTMLInputElement>('lid').checked = false;
  });
  expect(form).toEqual({ name: 'Deck oven', kind: 'digital', lid: false });
  expect(field<HTMLInputElement>('name').value).toBe('Deck oven');
});
