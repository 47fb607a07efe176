import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import { useId, useState } from 'react';
import { data, Link, useFetcher } from 'react-router';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { discreetGoal } from '~/core/goals/discreet';
import { retirementInput } from '~/core/goals/retirement-input';
import { criterionSentence } from '~/core/progress/mastery';
import { deleteGoal, deletionInput } from '~/server/goals/delete';
import { arrangeGoals, bringGoalBack, retireGoal } from '~/server/goals/edit';
import { type Goal, goalsOf, recordedGoals } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { IconButton } from '../platform/ui/icon-button';
import { MarginTitle, Page } from '../platform/ui/page';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/arrange';
import { DeleteDialog } from './delete';
import { RetireDialog, RetiredLine } from './retire';
import { arrangeWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'editGoals');
  const all = await goalsOf(database(), [student.id]);
  const shown = discreet ? all.map(discreetGoal) : all;
  const numbers = new Map(all.map(({ id, number }) => [id, number]));
  const recorded = await recordedGoals(
    database(),
    all.map((goal) => goal.id),
  );
  const { id, shortName } = headerStudent(student, { discreet });
  return {
    student: { id, shortName },
    goals: shown.map((goal) => ({
      ...lineOf(goal),
      // It is deleted by its name: not while names are hidden.
      mayDelete: !discreet && !recorded.has(goal.id),
      hasScore: recorded.get(goal.id) ?? false,
      retired: goal.retired && {
        ...goal.retired,
        replacedBy: goal.retired.replacedBy && (numbers.get(goal.retired.replacedBy) ?? null),
      },
    })),
    today: actor.today,
  };
});

const lineOf = (goal: Goal) => ({
  id: goal.id,
  number: goal.number,
  shortName: goal.shortName,
  criterion: criterionSentence(goal),
});

const order = z.object({
  ids: z
    .string()
    .transform((text) => text.split(' '))
    .pipe(z.array(z.uuid()).max(200)),
});
const bringBack = z.object({ goalId: z.uuid() });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'editGoals');
  const form = await formOf(request);
  const intent = form.get('intent');
  const { refused } =
    intent === 'arrange'
      ? await submitted(form, order, ({ ids }) => arrangeGoals(database(), actor, studentId, ids))
      : intent === 'bringBack'
        ? await submitted(form, bringBack, ({ goalId }) => bringGoalBack(database(), actor, studentId, goalId, now))
        : intent === 'delete'
          ? await submitted(form, deletionInput, (input) => deleteGoal(database(), actor, studentId, input, now))
          : await submitted(form, retirementInput, (input) => retireGoal(database(), actor, studentId, input, now));
  if (refused) return refused;
  if (intent !== 'retire' && intent !== 'delete') return { result: undefined };
  const text = intent === 'delete' ? arrangeWords.deleted : arrangeWords.theGoalIsRetiredAll;
  return data({ result: undefined }, { headers: await sayNext({ text }) });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: arrangeWords.pageTitle(loaderData?.student.shortName ?? 'a student') },
];

export type Line = Route.ComponentProps['loaderData']['goals'][number];

export default function Arrange({ loaderData: { student, goals, today } }: Route.ComponentProps) {
  const fetcher = useFetcher<typeof action>();
  const stored = goals.filter(({ retired }) => retired === null);
  const sent = String(fetcher.formData?.get('ids') ?? '').split(' ');
  const current = fetcher.formData ? sent.flatMap((id) => stored.find((goal) => goal.id === id) ?? []) : stored;
  const retired = goals.filter((goal) => goal.retired !== null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const move = (from: number, to: number) => {
    const ids = arrayMove(current, from, to).map(({ id }) => id);
    void fetcher.submit({ intent: 'arrange', ids: ids.join(' ') }, { method: 'post' });
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const [from, to] = [active.id, over?.id].map((id) => current.findIndex((goal) => goal.id === id));
    if (from !== undefined && to !== undefined && to >= 0 && from !== to) move(from, to);
  };
  const context = useId();
  const placeOf = (id: UniqueIdentifier) => {
    const goal = current.find((one) => one.id === id);
    return goal ? `${goal.number} ${goal.shortName}` : arrangeWords.theGoal;
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => arrangeWords.isPickedUpArrowKeys(placeOf(active.id)),
    onDragOver: ({ active, over }) =>
      over ? arrangeWords.isAtThePlaceOf(placeOf(active.id), placeOf(over.id)) : undefined,
    onDragEnd: ({ active }) => arrangeWords.isPutDown(placeOf(active.id)),
    onDragCancel: ({ active }) => arrangeWords.staysWhereItWas(placeOf(active.id)),
  };
  return (
    <Page
      marginName={arrangeWords.aboutTheOrder}
      margin={
        <>
          <MarginTitle>{arrangeWords.aboutTheOrder}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{arrangeWords.everyoneOnTheTeamSees}</p>
            <p>{arrangeWords.aRetiredGoalIsNo}</p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to={`/students/${student.id}`} className="text-ink-2 link">
          {student.shortName}
        </Link>
      </p>
      <header className="mt-1 flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-3xl">{arrangeWords.goalsInOrder}</h1>
        <Link to={`/students/${student.id}/goals/new`} className="btn btn-primary px-5 text-base">
          {arrangeWords.addAGoal}
        </Link>
      </header>
      {current.length === 0 && <p className="py-8 text-ink-2">{arrangeWords.noGoalIsWorkedOn}</p>}
      <DndContext
        id={context}
        accessibility={{ announcements }}
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
      >
        <SortableContext items={current.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <ol className="mt-5">
            {current.map((goal, at) => (
              <GoalLine
                key={goal.id}
                goal={goal}
                studentId={student.id}
                today={today}
                others={current.filter(({ id }) => id !== goal.id)}
                isFirst={at === 0}
                isLast={at === current.length - 1}
                onMove={(by) => move(at, at + by)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {retired.length > 0 && (
        <section className="mt-10 pb-16">
          <h2 className="border-b border-rule pb-2 text-lg">{arrangeWords.retired}</h2>
          <ul>
            {retired.map((goal) => (
              <RetiredLine key={goal.id} goal={goal} studentId={student.id} />
            ))}
          </ul>
        </section>
      )}
    </Page>
  );
}

interface GoalLineProps {
  goal: Line;
  studentId: string;
  today: IsoDate;
  others: Line[];
  isFirst: boolean;
  isLast: boolean;
  /** By so many places; up is below 0. */
  onMove: (by: number) => void;
}

function GoalLine({ goal, studentId, today, others, isFirst, isLast, onMove }: GoalLineProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: goal.id,
  });
  const [asked, setAsked] = useState<'retire' | 'delete' | null>(null);
  const close = () => setAsked(null);
  const named = `${goal.number} ${goal.shortName}`;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper py-3 ${isDragging ? 'relative z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={arrangeWords.drag(named)}
        className="grid tap-square touch-none cursor-grab place-items-center rounded-field text-ink-3 hover:bg-wash"
      >
        <GripVertical size={18} aria-hidden />
      </button>
      <span className="display w-10 text-xl text-ink-3">{goal.number}</span>
      <span className="min-w-0 grow basis-60">
        <Link to={`/students/${studentId}/goals/${goal.id}/edit`} className="display text-lg hover:underline">
          {goal.shortName}
        </Link>
        <span className="block text-small text-ink-2">{goal.criterion}</span>
      </span>
      <span className="flex gap-1">
        <IconButton label={arrangeWords.moveUp(named)} isOff={isFirst} onPress={() => onMove(-1)}>
          <ArrowUp size={16} aria-hidden />
        </IconButton>
        <IconButton label={arrangeWords.moveDown(named)} isOff={isLast} onPress={() => onMove(1)}>
          <ArrowDown size={16} aria-hidden />
        </IconButton>
        <button
          type="button"
          aria-label={arrangeWords.retireNamed(named)}
          onClick={() => setAsked('retire')}
          className="btn"
        >
          {arrangeWords.retire}
        </button>
        {goal.mayDelete && (
          <button
            type="button"
            aria-label={arrangeWords.deleteNamed(named)}
            onClick={() => setAsked('delete')}
            className="btn"
          >
            {arrangeWords.delete}
          </button>
        )}
      </span>
      {asked === 'retire' && <RetireDialog goal={goal} others={others} today={today} onClose={close} />}
      {asked === 'delete' && <DeleteDialog goal={goal} onClose={close} />}
    </li>
  );
}
