'use client';
import { buttonClass } from '@/ui/kit/button-class';
import type { ReactNode } from 'react';

export const PrintButton = ({ children }: { children: ReactNode }) => (
  <button type="button" className={buttonClass('plain', 'mt-3 w-full')} onClick={() => print()}>
    {children}
  </button>
);
