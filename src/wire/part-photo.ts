/** A photo that hangs on a part of an installation. */
export interface PartPhoto {
  readonly part: string;
  readonly hash: string;
  /** ms */ readonly at: number;
  readonly by: string;
}
