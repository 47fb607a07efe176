import { type IsoDate, longDate } from '../calendar/iso-date';
import { listed } from '../words/counting';
import { type OutsideKind, readerWords } from './reader-kind';
import { fieldWords, reportFields, shownFields, type VisibilityRule } from './visibility-rule';

const small = (label: string) => label.charAt(0).toLowerCase() + label.slice(1);

/** What a rule shows and what it does not, in words: “numbers and breakdown, but no note, observer …”. */
export function shownWords({ shows }: Pick<VisibilityRule, 'shows'>): string {
  const shown = shownFields(shows);
  const words = (isShown: boolean) =>
    reportFields.filter((field) => shown.has(field) === isShown).map((field) => small(fieldWords[field].label));
  const [yes, no] = [words(true), words(false)];
  if (no.length === 0) return 'everything in the report';
  if (yes.length === 0) return 'only on which day each goal was observed';
  return `${listed(yes)}; not ${no.length > 1 ? `${no.slice(0, -1).join(', ')} or ${no.at(-1)}` : no[0]}`;
}

interface MemberWords {
  role: string;
  /** What they may do beside reading. */
  may: readonly string[];
  seesAll: boolean;
  until: IsoDate | null;
}

/**
 * What a member of the team can see and do, in words.
 *
 * @param teamRule  what the report shows to members who only read
 */
export function memberSentence({ role, may, seesAll, until }: MemberWords, teamRule: VisibilityRule): string {
  const sees = seesAll ? 'sees all goals, entries and notes' : `reads the report: ${shownWords(teamRule)}`;
  const does = may.length > 0 ? `, and may ${listed(may)}` : '';
  return `${role}: ${sees}${does}${until ? `; until ${longDate(until)}` : ''}.`;
}

interface ShareLinkWords {
  kind: OutsideKind;
  endsOn: IsoDate;
  hasPasscode: boolean;
  isLocked: boolean;
}

/** What somebody with a share link can see, in words. */
export function shareLinkSentence(
  { kind, endsOn, hasPasscode, isLocked }: ShareLinkWords,
  rule: VisibilityRule,
): string {
  const passcode = hasPasscode ? ', with a passcode' : '';
  const locked = isLocked ? ' It is locked at the moment.' : '';
  return `${readerWords[kind].label}, by a link${passcode}, until ${longDate(endsOn)}: ${shownWords(rule)}.${locked}`;
}
