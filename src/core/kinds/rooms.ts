/** What kinds of stage keep of a run beside its readings. A new kind that keeps something adds its own. */
import { newBuckets, type BucketReading } from './bucket/state';
import { newCures, type Cure } from './cure/state';
import { newCylinders, type Cylinder } from './cylinder/state';
import { newFan, type FanState } from './fan/state';
import { newListen, type ListenState } from './listen/state';
import { newMap, type MapState } from './map/state';
import { newPlugs, type PlugState } from './plugs/state';
import { newSmoke, type SmokeState } from './smoke/state';

export interface Rooms {
  readonly map: MapState;
  readonly plugs: PlugState;
  readonly buckets: BucketReading[];
  readonly cures: Cure[];
  readonly listen: ListenState;
  readonly cylinders: Cylinder[];
  readonly fan: FanState;
  readonly smoke: SmokeState;
}
export const newRooms = (): Rooms => ({
  map: newMap(),
  plugs: newPlugs(),
  buckets: newBuckets(),
  cures: newCures(),
  listen: newListen(),
  cylinders: newCylinders(),
  fan: newFan(),
  smoke: newSmoke(),
});
