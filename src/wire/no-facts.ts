import { meterVolume } from '@/core/installation/meters';
import type { FirstFactsForm } from './first-facts-schema';

/** What most new places are, before anything is entered. */
export const noFacts = (): FirstFactsForm => ({
  name: '',
  medium: 'natural gas',
  duty: '',
  workingPressure: '21 mbar',
  meterKind: 'unknown',
  meterVolume: meterVolume('unknown'),
  table: 'copper-thin',
  nominal: '22 × 0.9',
  length: '',
  counted: [],
  asked: [],
});
