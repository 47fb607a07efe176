import { randomInt } from 'node:crypto';

/** Letters and figures that are not taken for each other when they are read from a screen. */
const ALPHABET = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const IN_GROUP = 4;

/**
 * A code to be read and typed, in groups of four with hyphens: five random bits a letter.
 *
 * @example newCode(4) // 'K7QD-2MXA-9TRF-HW3C', of 80 random bits
 */
export function newCode(groups: number): string {
  const group = () => Array.from({ length: IN_GROUP }, () => ALPHABET[randomInt(ALPHABET.length)]).join('');
  return Array.from({ length: groups }, group).join('-');
}

/**
 * A code as it is compared: in any case of letters, with or without its hyphens.
 *
 * @example plainCode('k7qd 2mxa') // 'K7QD2MXA'
 */
export const plainCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '');
