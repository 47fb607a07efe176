import type { RouterContextProvider } from 'react-router';
import { type WallTime, wallTime } from '~/core/calendar/zone';
import { shownFields, type VisibilityRule } from '~/core/sharing/visibility-rule';
import { type Goal, goalsOf } from '~/server/goals/goals';
import type { Reader } from '~/server/individual-report/individual-report';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import type { School } from '~/server/school/school';
import type { Door } from '~/server/sharing/doors';
import { type FoundShareLink, findShareLink, hasPass } from '~/server/sharing/share-links';
import { visibilityRules } from '~/server/sharing/visibility';
import { closed } from '../platform/http/at-door';
import { passCookie, readCookie, texts } from '../platform/http/cookies';

interface AtTheDoor {
  params: { token: string };
  request: Request;
  context: Readonly<RouterContextProvider>;
}

export interface Visit {
  way: FoundShareLink;
  school: School;
  wall: WallTime;
  instant: Date;
  /** Whether the report may be shown: the passcode, if there is one, has been given in this browser. */
  isOpen: boolean;
}

/** Who stands at the door: a share link that opens nothing any more is a 404 and is counted. */
export async function visit({ params, request, context }: AtTheDoor, { school }: Door): Promise<Visit> {
  const instant = now();
  const wall = wallTime(instant, school.timeZone);
  const way = await findShareLink(database(), params.token, wall.on);
  if (!way) throw await closed(context);
  const passes = await readCookie(request, passCookie, texts);
  const pass = passes?.[way.id];
  const isOpen =
    !way.isLocked && (!way.needsPasscode || (!!pass && (await hasPass(database(), way.id, pass, instant))));
  return { way, school, wall, instant, isOpen };
}

/** The reader behind a share link, as the rule of their kind has it. */
export async function readerBy(way: FoundShareLink): Promise<{ reader: Reader; goals: Goal[]; rule: VisibilityRule }> {
  const [rule, goals] = await Promise.all([ruleOf(way), goalsOf(database(), [way.studentId])]);
  return { reader: { kind: way.kind, linkId: way.id, shows: shownFields(rule.shows), discreet: false }, goals, rule };
}

const ruleOf = async ({ studentId, kind }: FoundShareLink) =>
  (await visibilityRules(database(), studentId)).rules[kind];
