import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { DESK_LINES } from '@/core/desk';
import { TOPICS } from '@/core/guide';
import { DeskFrame } from '@/ui/desk/frame';
import { Guide } from '@/ui/guide/guide';

export const metadata: Metadata = { title: 'Guide' };
/** For everyone, signed in or not: the same page, so that it can be kept on the device. What is shown stands behind #. */
export default async function GuidePage() {
  await headers();
  return (
    <DeskFrame>
      <Guide
        topics={TOPICS}
        lines={DESK_LINES.map(({ id, group, title, answers, formula, source, note = '' }) => ({
          id,
          group,
          title,
          answers,
          formula,
          source,
          note,
        }))}
      />
    </DeskFrame>
  );
}
