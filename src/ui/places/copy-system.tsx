'use client';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { SelectField, TextField } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';
import { type FormEvent, useState } from 'react';

const NEW = '';
/** An installation like another: its name, and the place it is on. */
export function CopySystemForm({
  system,
  name: like,
  site: here,
  customer: whose,
  sites,
}: {
  system: string;
  name: string;
  site: string;
  customer: string;
  sites: readonly { readonly id: string; readonly title: string }[];
}) {
  const [name, setName] = useState('');
  const [site, setSite] = useState(here);
  const [place, setPlace] = useState('');
  const [address, setAddress] = useState('');
  const [customer, setCustomer] = useState(whose);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  // asked again after a lost answer, the same things are meant
  const [ids] = useState(() => [uuid7(now()), uuid7(now() + 1)] as const);
  const save = async (e: FormEvent) => {
    e.preventDefault();
    const missing = [
      [name, 'its name'],
      [site || place, 'the name of the new place'],
    ].find(([value]) => !value!.trim());
    if (missing) return setTrouble(`Type ${missing[1]!}.`);
    setBusy(true);
    setTrouble('');
    try {
      const [id, newSite] = ids;
      await office(`/api/systems/${system}/copy`, {
        body: {
          id,
          name,
          site: site || newSite,
          ...(site === NEW ? { newSite: { name: place, address, customer } } : {}),
        },
      });
      location.assign(`/places/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  return (
    <form className="mt-4 grid max-w-xl gap-4" noValidate onSubmit={(e) => void save(e)}>
      <TextField label="Its name" hint={`like ${like}`} value={name} onChange={setName} maxLength={80} />
      <SelectField label="Where it is" value={site} none="a new place …" options={sites} onChange={setSite} />
      {site === NEW && (
        <>
          <TextField label="Name of the new place" value={place} onChange={setPlace} maxLength={80} />
          <TextField
            label="Address"
            hint="may follow"
            value={address}
            onChange={setAddress}
            maxLength={160}
          />
          <TextField
            label="Customer"
            hint="may follow"
            value={customer}
            onChange={setCustomer}
            maxLength={120}
          />
        </>
      )}
      <p className="text-sm text-quiet">
        Pipes, parts and the drawing are taken along. Serial numbers, certificates, a measured volume,
        heights, photos, and everything that was seen or tested there are not: they are asked at the new one.
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      <Button type="submit" tone="act" className="min-h-14 text-lg" disabled={busy}>
        Enter it
      </Button>
    </form>
  );
}
