import { base64 } from '@scure/base';

/** Bytes of a text in base64 (RFC 4648). */
export const base64Bytes = (text: string): Uint8Array => base64.decode(text);
