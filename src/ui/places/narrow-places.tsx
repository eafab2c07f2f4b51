import { buttonClass } from '@/ui/kit/button-class';

/** So many places stand in a choice at most; more than that nobody looks through. */
export const MOST_PLACES = 200;

/** Where there are more places than stand in a choice: words that narrow it. */
export function NarrowPlaces({
  action,
  find,
  shown,
  all,
  keep = {},
}: {
  action: string;
  find: string;
  shown: number;
  all: number;
  /** What else stands in the address. */
  keep?: Readonly<Record<string, string>>;
}) {
  if (all <= shown && !find) return null;
  return (
    <form action={action} role="search" className="mt-3 flex max-w-xl items-end gap-3">
      {Object.entries(keep).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <label className="flex-1 text-sm">
        {all > shown ? `${shown} of ${all} places stand here. ` : ''}Name, address or customer of the one you
        mean
        <input
          name="find"
          defaultValue={find}
          className="mt-1 block min-h-12 w-full border border-edge bg-panel px-3 text-base"
        />
      </label>
      <button type="submit" className={buttonClass('plain', 'min-h-12')}>
        Find
      </button>
    </form>
  );
}
