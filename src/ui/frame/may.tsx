'use client';
import { createContext, useContext, type ReactNode } from 'react';
import { may, type Action, type Role } from '@/wire/role';

const RoleHere = createContext<Role | null>(null);
/** Tells everything below as whom the person works here. */
export const RoleProvider = ({ role, children }: { role: Role; children: ReactNode }) => (
  <RoleHere value={role}>{children}</RoleHere>
);
/** Whether the person here may do something, by the one table of roles; what they may not is not offered. */
export function useMay(action: Action): boolean {
  const role = useContext(RoleHere);
  return role !== null && may(role, action);
}
