import { role } from '../role';

/** Waiting until temperature and walls have settled; what does not settle is a finding. */
export const settle = role('settle', {
  title: 'stabilisation',
  against: 'band',
  outcomes: () => ['settled'],
  good: () => 'settled',
  outside: true,
  paper: 'inspector',
  adjusts: true,
  words: { settled: 'settled' },
  must: ['falls-early', 'rises'],
});
