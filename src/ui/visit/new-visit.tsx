'use client';
import { useState } from 'react';
import { deviceZone, now } from '@/device/clock';
import { enterVisit } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { TextField } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';

/** A new visit: what, which day, from when. Tests are put on it afterwards. */
export function NewVisitForm({ today }: { today: string }) {
  // asked again after a lost answer, the same visit is meant
  const [id] = useState(() => uuid7(now()));
  const [title, setTitle] = useState('');
  const [day, setDay] = useState(today);
  const [start, setStart] = useState('08:30');
  const [trouble, setTrouble] = useState('');
  const make = async () => {
    setTrouble('');
    if (!title.trim()) {
      setTrouble('Give the visit a title, like the name of the place.');
      return;
    }
    try {
      await enterVisit({ id, title: title.trim(), day, start, zone: deviceZone() });
      location.assign(`/plan/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section className="grid gap-3 border border-seam bg-panel p-4">
      <h2 className="text-lg font-semibold">New visit</h2>
      <TextField label="Title" maxLength={100} value={title} onChange={(v) => setTitle(v)} />
      <div className="grid grid-cols-2 gap-3">
        <TextField label="Day" type="date" value={day} onChange={(v) => setDay(v)} />
        <TextField label="Begins at" type="time" value={start} onChange={(v) => setStart(v)} />
      </div>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      <Button tone="act" onClick={() => void make()}>
        Make the visit
      </Button>
    </section>
  );
}
