'use client';
import dynamic from 'next/dynamic';
import { orMissing } from '@/ui/kit/by-need';

/** The organisation's page: the server draws it, its script is asked for with the first. */
export const OrganisationRoom = dynamic(() =>
  orMissing(import('./organisation-view').then((m) => m.OrganisationView)),
);
