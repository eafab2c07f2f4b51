'use client';
import dynamic from 'next/dynamic';
import { orMissing } from '@/ui/kit/by-need';

/** The form of a system on its own page: the server draws it, its script is asked for with the first. */
export const SystemToChange = dynamic(() => orMissing(import('./system-form').then((m) => m.SystemFormView)));
