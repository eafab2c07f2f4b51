'use client';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';

/** Makes a statement of what was practised so far, and leads to it. */
export function NewStatement({ person }: { person: string }) {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const make = async () => {
    setBusy(true);
    setTrouble('');
    const id = uuid7(now());
    try {
      await office('/api/yard/statements', { body: { id, person } });
      location.assign(`/yard/statements/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  return (
    <div className="mt-3">
      <Button tone="act" disabled={busy} onClick={() => void make()}>
        {busy ? 'Making it …' : 'Make one as of today'}
      </Button>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </div>
  );
}
