/** Why a pack was refused, with the path of the offending place. */
export class PackError extends Error {
  constructor(
    readonly path: string,
    text: string,
  ) {
    super(text);
    this.name = 'PackError';
  }
}
