/** What every kind of entry does to a run. A new kind of stage adds its own. */
import { bucketFold } from '@/core/kinds/bucket/fold';
import { cureFold } from '@/core/kinds/cure/fold';
import { cylinderFold } from '@/core/kinds/cylinder/fold';
import { checksFold } from '@/core/kinds/checks/fold';
import { dialFold } from '@/core/kinds/dial/fold';
import { drawDownFold } from '@/core/kinds/draw-down/fold';
import { fanFold } from '@/core/kinds/fan/fold';
import { fillFold } from '@/core/kinds/fill/fold';
import { holdFold } from '@/core/kinds/hold/fold';
import { inventoryFold } from '@/core/kinds/inventory/fold';
import { jointsFold } from '@/core/kinds/joints/fold';
import { listenFold } from '@/core/kinds/listen/fold';
import { mapFold } from '@/core/kinds/map/fold';
import { observeFold } from '@/core/kinds/observe/fold';
import { plugsFold } from '@/core/kinds/plugs/fold';
import { pumpFold } from '@/core/kinds/pump/fold';
import { smokeFold } from '@/core/kinds/smoke/fold';
import { volumeFold } from '@/core/kinds/volume/fold';
import { zeroFold } from '@/core/kinds/zero/fold';
import { closingFold } from './closing';
import type { RunEvent } from './events';
import type { EntryRule, Fold } from './fold';
import { generalFold } from './general';
import { isolationFold } from './isolations';

const FOLDS: Fold<RunEvent['kind']> = {
  ...generalFold,
  ...closingFold,
  ...isolationFold,
  ...checksFold,
  ...zeroFold,
  ...fillFold,
  ...holdFold,
  ...pumpFold,
  ...drawDownFold,
  ...jointsFold,
  ...inventoryFold,
  ...volumeFold,
  ...dialFold,
  ...observeFold,
  ...mapFold,
  ...plugsFold,
  ...bucketFold,
  ...cureFold,
  ...cylinderFold,
  ...fanFold,
  ...smokeFold,
  ...listenFold,
};
/** What this entry says of itself. */
export const foldOf = (event: RunEvent): EntryRule<RunEvent> =>
  FOLDS[event.kind] as unknown as EntryRule<RunEvent>;
/** Whether entries of this kind change the step and must be meant for the present one. */
export const isTransition = (kind: RunEvent['kind']): boolean => FOLDS[kind].transition === true;
