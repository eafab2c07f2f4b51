/** Until the run is here. */
export const Opening = () => (
  <p className="p-8 text-lg" aria-live="polite">
    Opening the run …
  </p>
);
