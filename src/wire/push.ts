/** A device that can be rung while its page is shut: what its browser says of its push service, and when it is to ring. */
import * as yup from 'yup';
import { list, shape, text } from './figure';

const base64url = (least: number, most: number) =>
  text(most).matches(new RegExp(`^[A-Za-z0-9_-]{${least},${most}}=*$`), 'is not a key of a push service');
export const pushDeviceSchema = shape({
  endpoint: text(1000).matches(/^https?:\/\/\S+$/, 'is not an address'),
  keys: shape({ p256dh: base64url(86, 90), auth: base64url(22, 26) }),
  /** Minutes before the end; 0 is the end. */
  minutes: list(yup.number().strict(true).integer().min(0).max(60).required(), 6),
});
export type PushDevice = yup.InferType<typeof pushDeviceSchema>;
export const pushEndpointSchema = shape({ endpoint: text(1000) });
/** What the service worker shows. */
export interface PushMessage {
  readonly title: string;
  readonly body: string;
  readonly tag: string;
  readonly path: string;
}
