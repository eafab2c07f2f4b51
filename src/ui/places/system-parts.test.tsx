/** @jest-environment jsdom */
import { HEIGHT_FACTS, WHOLE_FACTS } from '@/core/installation/whole';
import { cellsOf, PART_LIST_KEYS } from '@/core/network/lists';
import type { Dimension } from '@/core/quantity/unit';
import { unitsOf } from '@/ui/kit/field';
import { bakery } from '@/core/testing/bakery';
import { TRADES } from '@/core/trades';
import type { SystemForm } from '@/wire/places';
import { emptySystem, formOfSystem } from '@/wire/system-form';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { FormProvider, useForm, type UseFormReturn } from 'react-hook-form';
import { PartLists } from './system-parts';

afterEach(cleanup);
let form: UseFormReturn<SystemForm>;
function Form({ trade, values }: { trade: string; values: SystemForm }) {
  form = useForm<SystemForm>({ defaultValues: values });
  return (
    <FormProvider {...form}>
      <PartLists trade={TRADES.find((t) => t.name === trade)!} />
    </FormProvider>
  );
}
const headings = (within_: HTMLElement) =>
  within(within_)
    .getAllByRole('heading', { level: 2, hidden: true })
    .map((h) => h.textContent);

test.each(TRADES.map((t) => [t.name] as const))(
  'of %s every list of parts can be entered, what is rare there lies folded',
  (trade) => {
    const { container } = render(<Form trade={trade} values={emptySystem()} />);
    const folded = container.querySelector('details');
    const rare = folded ? headings(folded) : [];
    expect(headings(container)).toHaveLength(PART_LIST_KEYS.length);
    expect(rare.includes('Appliances')).toBe(!['gas', 'propane', 'water'].includes(trade));
    expect(rare.includes('Free surfaces at the level')).toBe(trade !== 'drain');
  },
);
test('what a place has stands open, whatever its trade', () => {
  const { container } = render(<Form trade="drain" values={formOfSystem(bakery())} />);
  expect(headings(container.querySelector('details')!)).not.toContain('Appliances');
  expect(screen.getByRole('group', { name: 'Appliance 1' })).toBeTruthy();
});
test('a part is added with what is usual, changed, and taken away again', () => {
  render(<Form trade="gas" values={emptySystem()} />);
  fireEvent.click(screen.getByRole('button', { name: 'Add an appliance' }));
  const row = screen.getByRole('group', { name: 'Appliance 1' });
  expect(form.getValues('appliances')[0]).toMatchObject({
    name: '',
    valve: 'isolating valve',
    volume: '0.3 l',
    hasPilot: false,
  });
  fireEvent.change(within(row).getByLabelText('Appliance'), { target: { value: 'Hob' } });
  fireEvent.click(within(row).getByLabelText('Has a pilot'));
  expect(form.getValues('appliances')[0]).toMatchObject({ name: 'Hob', hasPilot: true });
  void act(() => fireEvent.click(screen.getByRole('button', { name: 'Remove appliance 1' })));
  expect(form.getValues('appliances')).toEqual([]);
});
test('a water appliance is not asked for what only a flame has', () => {
  render(<Form trade="water" values={emptySystem()} />);
  fireEvent.click(screen.getByRole('button', { name: 'Add an appliance' }));
  expect(screen.queryByLabelText('Has a pilot')).toBeNull();
  expect(screen.queryByText('Heat input')).toBeNull();
  expect(form.getValues('appliances')[0]!.volume).toBe('0 l');
});
test('every figure that is asked of a place has units to be entered in', () => {
  const asked = [
    ...Object.values(WHOLE_FACTS),
    ...Object.values(HEIGHT_FACTS),
    ...PART_LIST_KEYS.flatMap((key) =>
      cellsOf(key).flatMap((c) => (c.rule.kind === 'figure' ? [c.rule] : [])),
    ),
  ] as readonly { readonly dimension: Dimension }[];
  const silent = asked.filter((f) => unitsOf(f.dimension).length === 0);
  expect([silent, asked.length > 20]).toEqual([[], true]);
});
