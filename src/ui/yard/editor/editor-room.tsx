'use client';
import { orMissing } from '@/ui/kit/by-need';
import dynamic from 'next/dynamic';

/** The editor of a scenario: the server draws it, its script is asked for with the first. */
export const EditorRoom = dynamic(() => orMissing(import('./scenario-editor').then((m) => m.ScenarioEditor)));
