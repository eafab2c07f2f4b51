/** Where a place is, with its name; what is not entered leaves no comma behind. */
export const placeLine = (site: { readonly name: string; readonly address: string }): string =>
  [site.name, site.address].filter(Boolean).join(', ');
