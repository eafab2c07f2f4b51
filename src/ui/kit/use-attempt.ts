'use client';
import type { OfficeError } from '@/device/office';
import { useState } from 'react';

/** Something that may be refused: busy while it is tried, what was wrong in words, and nothing wrong once it is tried again. */
export function useAttempt() {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setTrouble('');
    try {
      await work();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    setBusy(false);
  };
  return { busy, trouble, attempt };
}
