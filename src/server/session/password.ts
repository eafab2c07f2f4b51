import 'server-only';
import { hash } from '@node-rs/argon2';

/** argon2id (the library's default kind), 19 MiB, two passes. */
export const ARGON2 = { memoryCost: 19456, timeCost: 2, parallelism: 1 };
export const hashPassword = (password: string): Promise<string> => hash(password, ARGON2);
