import { Trouble } from '@/ui/frame/trouble';

export default function NotFound() {
  return (
    <Trouble
      title="There is nothing here"
      text="The link may be old or belong to somebody else. Look for the place in Places, or for the record in Ledger."
    />
  );
}
