'use client';
import { orMissing } from '@/ui/kit/by-need';
import dynamic from 'next/dynamic';

/** Why it is so: the server draws it, its script is asked for with the first. */
export const ShownRoom = dynamic(() => orMissing(import('./shown').then((m) => m.ShownAll)));
