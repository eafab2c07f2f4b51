'use client';
import { Trouble } from '@/ui/frame/trouble';

export default function HouseError({ reset }: { error: Error; reset: () => void }) {
  return (
    <Trouble
      title="The office’s records cannot be reached just now"
      text="Nothing you entered is lost: it stays on this device and is sent by itself. A bench that was opened here before still opens."
      again={reset}
    />
  );
}
