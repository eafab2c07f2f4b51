import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { DESK_LINES } from '@/core/desk';
import { Desk } from '@/ui/desk/desk';
import { DeskFrame } from '@/ui/desk/frame';

export const metadata: Metadata = { title: 'Desk' };
/** For everyone, signed in or not: the same page, so that it can be kept on the device. */
export default async function DeskPage() {
  await headers();
  return (
    <DeskFrame>
      <Desk
        lines={DESK_LINES.map(({ id, group, title, answers, formula }) => ({
          id,
          group,
          title,
          answers,
          formula,
        }))}
      />
    </DeskFrame>
  );
}
