'use client';
import { papersMissing, withPapers } from '@/core/run/papers';
import { gaugesUsed } from '@/core/run/read';
import { dayOf } from '@/core/plan/plan';
import type { BenchView } from '@/device/bench';
import { Button } from '@/ui/kit/button';
import { TextField } from '@/ui/kit/field';
import { type FormEvent, useState } from 'react';
import type { PanelProps } from './shared';

interface Props {
  readonly view: BenchView;
  readonly act: PanelProps['act'];
}
/**
 * What is missing on the paper, entered while it can be: without it the record is not a certificate. It stands in the run; with
 * it the office keeps it in places and cabinet, where the person may change them (src/server/runs/papers.ts).
 */
export function PapersPart({ view, act }: Props) {
  const { plan, state } = view;
  const missing = papersMissing(plan, state);
  if (plan.practice || !missing.length) return null;
  const whole = withPapers(plan, state);
  const used = gaugesUsed(state);
  const undated = whole.gauges.filter(
    (g) => used.includes(g.id) && (!g.calibrationDue || g.calibrationDue < dayOf(plan)),
  );
  return (
    <section aria-labelledby="papers" className="grid max-w-3xl gap-4 border-l-4 border-ochre pl-3">
      <div>
        <h2 id="papers" className="text-lg font-semibold">
          As it stands this is not a certificate
        </h2>
        <p>
          {missing.join(' ')} Enter it before anybody signs, or leave it: the record is kept all the same.
        </p>
      </div>
      {(!whole.site.customer.trim() || !whole.site.address.trim()) && (
        <PlaceForm key={whole.site.name} site={whole.site} act={act} />
      )}
      {undated.map((g) => (
        <CalibrationForm key={g.id} gauge={g} act={act} />
      ))}
    </section>
  );
}

function PlaceForm({
  site,
  act,
}: Omit<Props, 'view'> & {
  site: { readonly name: string; readonly address: string; readonly customer: string };
}) {
  const [name, setName] = useState(site.name);
  const [address, setAddress] = useState(site.address);
  const [customer, setCustomer] = useState(site.customer);
  const [trouble, setTrouble] = useState('');
  const whole = [name, address, customer].every((x) => x.trim());
  const keep = async (e: FormEvent) => {
    e.preventDefault();
    const said = { name: name.trim(), address: address.trim(), customer: customer.trim() };
    const answer = await act({ kind: 'papers', site: said });
    setTrouble(answer.accepted ? '' : answer.text);
  };
  return (
    <form className="grid items-end gap-3 sm:grid-cols-2" onSubmit={(e) => void keep(e)}>
      <TextField label="Place" value={name} onChange={setName} maxLength={80} />
      <TextField label="Its address" value={address} onChange={setAddress} maxLength={160} />
      <TextField label="Customer" value={customer} onChange={setCustomer} maxLength={120} />
      <Button type="submit" className="min-h-14" disabled={!whole}>
        Keep place and customer
      </Button>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </form>
  );
}
function CalibrationForm({
  gauge,
  act,
}: Omit<Props, 'view'> & { gauge: { readonly id: string; readonly name: string } }) {
  const [on, setOn] = useState('');
  const [due, setDue] = useState('');
  const [trouble, setTrouble] = useState('');
  const keep = async (e: FormEvent) => {
    e.preventDefault();
    if (due <= on) return setTrouble('The next calibration must lie after the last.');
    const answer = await act({ kind: 'papers', calibration: { gauge: gauge.id, on, due } });
    setTrouble(answer.accepted ? '' : answer.text);
  };
  return (
    <form className="grid items-end gap-3 sm:grid-cols-3" onSubmit={(e) => void keep(e)}>
      <TextField label={`${gauge.name}: calibrated on`} type="date" value={on} onChange={setOn} />
      <TextField label="Valid until" type="date" value={due} onChange={setDue} />
      <Button type="submit" className="min-h-14" disabled={!on || !due}>
        Keep its calibration
      </Button>
      <p role="alert" className="text-rust sm:col-span-3">
        {trouble}
      </p>
    </form>
  );
}
