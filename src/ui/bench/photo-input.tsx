/** A photo by camera or from a file; the same one can be chosen again. */
export function PhotoInput({
  children,
  busy,
  className,
  onFile,
}: {
  children: React.ReactNode;
  busy: boolean;
  className: string;
  onFile: (file: File | undefined) => void;
}) {
  return (
    <label className={className}>
      {children}
      <input
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        className="mt-1 block min-h-14 w-full border border-edge bg-panel p-2"
        disabled={busy}
        onChange={(e) => {
          onFile(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
    </label>
  );
}
