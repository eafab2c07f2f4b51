export type Tone = 'act' | 'plain' | 'danger';
const TONES: Record<Tone, string> = {
  act: 'bg-lake text-on-accent border-lake hover:brightness-110 disabled:bg-block disabled:text-quiet disabled:border-seam disabled:brightness-100',
  plain: 'bg-panel text-ink border-edge hover:border-ink disabled:text-quiet disabled:border-seam',
  danger: 'bg-panel text-rust border-rust hover:bg-rust hover:text-on-accent',
};
export const buttonClass = (tone: Tone = 'plain', extra = ''): string =>
  `inline-flex items-center justify-center gap-2 border px-4 py-2 font-semibold leading-tight text-center min-h-12 ${TONES[tone]} ${extra}`;
