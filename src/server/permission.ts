import 'server-only';
import { may, MAY, type Action, type Role } from '@/wire/role';
import { TroubleError } from './trouble';

/** Refuses whoever may not do this by the one table of roles. @throws TroubleError 403 */
export function demand(who: { readonly role: Role }, action: Action): void {
  if (!may(who.role, action)) throw new TroubleError(403, 'role', MAY[action].refusal);
}
