import { defined } from '~/core/defined';
import { answersSentence } from '~/core/entries/forms/form';
import { textsIn } from '~/core/entries/forms/typed-answers';
import { discreetStudent } from '~/core/goals/discreet';
import { feedbackAnswers, presentationOf } from '~/server/desk/presentations';
import type { Database } from '~/server/platform/db/database';
import { rosterFinder } from '~/server/sharing/other-children';
import { studentsOf } from '~/server/students/students';
import type { RequestPerson } from '../../platform/http/request-person';

/**
 * A presentation as its teacher runs it: each who presents, with what was said to them, by whom, and who has not answered.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function presentationView(db: Database, { actor, discreet }: RequestPerson, id: string) {
  const { title, members, form, looksThrough, showsNames, isClosed } = await presentationOf(db, actor, id);
  const all = await feedbackAnswers(db, actor, id);
  const students = await studentsOf(db, actor);
  const names = new Map<string, string>(
    students.map((student) => [student.id, (discreet ? discreetStudent(student) : student).firstName]),
  );
  // Somebody who has left one's teams meanwhile is not named.
  const nameOf = (studentId: string) => names.get(studentId) ?? '–';
  const [first] = students;
  const find = first && (await rosterFinder(db, first.id));
  const namedIn = (presenterId: string, text: string) =>
    discreet ? [] : [...new Set((find?.(text, presenterId) ?? []).map((one) => one.text))];
  return {
    ...{ id, title, looksThrough, showsNames, isClosed, discreet, formTitle: form.title },
    onSeveral: members.filter(({ seats }) => seats > 1).map(({ studentId }) => nameOf(studentId)),
    presenters: members
      .filter(({ place }) => place !== null)
      .map(({ studentId, place }) => {
        const answers = all.filter(({ presenterId }) => presenterId === studentId);
        const said = new Set(answers.map(({ giverId }) => giverId));
        const givers = members.filter((member) => member.studentId !== studentId);
        return {
          ...{
            studentId,
            place: defined(place),
            name: nameOf(studentId),
            isMine: names.has(studentId),
            of: givers.length,
          },
          missing: givers.filter((giver) => !said.has(giver.studentId)).map((giver) => nameOf(giver.studentId)),
          waiting: answers.filter((one) => !one.isHandedOn && !one.isHeld && !one.isWithdrawn).length,
          answers: answers.map((one) => ({
            ...{ id: one.id, from: nameOf(one.giverId), times: one.times, isHeld: one.isHeld },
            ...{ isHandedOn: one.isHandedOn, isWithdrawn: one.isWithdrawn },
            sentence: answersSentence(form.questions, one.answers, { words: !discreet }),
            names: namedIn(studentId, textsIn(form.questions, one.answers)),
          })),
        };
      }),
  };
}
export type PresentationView = Awaited<ReturnType<typeof presentationView>>;
