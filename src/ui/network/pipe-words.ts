import type { Pipe } from '@/core/installation/pipe';
import type { Join } from '@/core/network/network';
import { showExact } from '@/core/quantity/exact';
import type { PipeForm } from '@/wire/pipe';

/** A pipe of a kept network in few letters: its size and length. */
export const pipeLabels = (link: Join & { readonly pipe?: Pipe }): string =>
  link.pipe ? [link.pipe.nominal ?? showExact(link.pipe.size), showExact(link.pipe.length)].join(', ') : '';
/** A pipe of a drawing being made in few letters. */
export const pipeWords = (pipe: Pick<PipeForm, 'nominal' | 'size' | 'length'> | undefined): string =>
  pipe ? [pipe.nominal || pipe.size, pipe.length].filter(Boolean).join(', ') : '';
