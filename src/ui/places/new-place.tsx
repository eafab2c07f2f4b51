import { may, type Role } from '@/wire/role';
import { SiteFormView } from './site-form';

/** A new place, for those who may enter one. */
export const NewPlace = ({ role }: { role: Role }) => (
  <>
    <h1 className="text-2xl font-bold">New place</h1>
    {may(role, 'plan') ? (
      <SiteFormView />
    ) : (
      <p className="mt-4">An apprentice does not enter places. Ask a tester or the office.</p>
    )}
  </>
);
