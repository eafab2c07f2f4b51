'use client';
import { useEffect, useState } from 'react';
import type { BenchEngine } from '@/device/bench';

/** A photo of the run in small: from this device while it waits for a signal, from the office afterwards. */
export function Thumbnail({ engine, hash, words }: { engine: BenchEngine; hash: string; words: string }) {
  const [address, setAddress] = useState('');
  useEffect(() => {
    let gone = false;
    let made = '';
    void engine.photoAddress(hash).then((a) => {
      made = a;
      if (gone) URL.revokeObjectURL(a);
      else setAddress(a);
    });
    return () => {
      gone = true;
      if (made.startsWith('blob:')) URL.revokeObjectURL(made);
    };
  }, [engine, hash]);
  return address ? (
    <img src={address} alt={words} className="h-24 border border-seam bg-block object-contain" />
  ) : (
    <span className="block h-24 w-24 border border-seam bg-block" />
  );
}
