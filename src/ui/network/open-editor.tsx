'use client';
import dynamic from 'next/dynamic';
import { orMissing } from '@/ui/kit/by-need';

/** The drawing on its own page: the server draws it, its script is asked for with the first. */
export const OpenEditor = dynamic(() => orMissing(import('./editor').then((m) => m.NetworkEditor)));
