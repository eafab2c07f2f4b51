/** The drawing of a section as records sealed before there were networks keep it, beside their lists. */
export interface Schematic {
  readonly nodes: readonly {
    readonly id: string;
    readonly kind: 'source' | 'valve' | 'meter' | 'regulator' | 'appliance' | 'point' | 'tee' | 'cap';
    readonly name: string;
    readonly x: number;
    readonly y: number;
    readonly position?: 'open' | 'closed';
  }[];
  readonly links: readonly {
    readonly id: string;
    readonly from: string;
    readonly to: string;
    /** The id of the pipe that runs here, in the list. */
    readonly pipe?: string;
  }[];
}
