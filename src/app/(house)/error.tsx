'use client';
import { Trouble } from '@/ui/frame/trouble';

export default function HouseError({ reset }: { error: Error; reset: () => void }) {
  return (
    <Trouble
      title="The office’s records cannot be reached just now"
      text="What was entered on a bench stays on this device and is sent by itself; a bench that was opened here before still opens. What you were typing on another page is offered again when you come back to it."
      again={reset}
    />
  );
}
