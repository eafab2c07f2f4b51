'use client';
import { useEffect, useState } from 'react';
import type { BenchEngine } from '@/device/bench';
import { Photos } from '@/ui/kit/photos';

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
    <Photos
      className="inline-block"
      small="h-24"
      photos={[
        {
          key: hash,
          small: address,
          // on this device it is whole already
          large: address.replace(/\?small=1$/, ''),
          words,
          when: '',
          at: 0,
          thing: hash,
        },
      ]}
    />
  ) : (
    <span className="block h-24 w-24 border border-seam bg-block" />
  );
}
