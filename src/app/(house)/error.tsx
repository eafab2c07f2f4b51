'use client';
import { Trouble } from '@/ui/frame/trouble';
import { DATABASE_TROUBLE, faultOf } from '@/wire/database-trouble';

export default function HouseError({
  error,
  reset,
}: {
  error: Error & { digest?: string };
  reset: () => void;
}) {
  const { kind, number } = faultOf(error.digest);
  return (
    <Trouble
      title={kind ? DATABASE_TROUBLE[kind].page : 'This page could not be made'}
      text="What was entered on a bench stays on this device and is sent by itself; a bench that was opened here before still opens. What you were typing on another page is offered again when you come back to it."
      number={number}
      again={reset}
    />
  );
}
