import { v5 as nameId } from 'uuid';

const MESSAGES = '3a6b1d2e-7c55-4c0b-9b0e-5d1f0b6f6a11';

/**
 * The id of the message that something is told by. It follows from what the message is about: whoever makes one a second time makes the
 * same, and it leaves once.
 *
 * @example messageId('invitation:…') === messageId('invitation:…')
 */
export const messageId = (key: string): string => nameId(key, MESSAGES);
