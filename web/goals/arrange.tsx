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
import { type IsoDate, longDate } from '~/core/calendar/iso-date';
import { discreetGoal } from '~/core/discreet/discreet';
import { retirementInput } from '~/core/goals/retirement-input';
import { retirementWords } from '~/core/goals/retirement-words';
import { criterionSentence } from '~/core/progress/criterion';
import { database } from '~/server/db/current';
import { Invalid } from '~/server/failures';
import { arrangeGoals, bringGoalBack, retireGoal } from '~/server/goals/edit';
import { type Goal, goalsOf } from '~/server/goals/goals';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
import { sayNext } from '../http/cookies';
import { headerStudent } from '../students/header-student';
import { Dialog } from '../ui/dialog';
import { FieldMessage } from '../ui/fields';
import { MarginTitle, Page } from '../ui/page';
import { readForm } from '../ui/read-form';
import type { Route } from './+types/arrange';

export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'setUp');
  const all = await goalsOf(database(), [student.id]);
  const shown = discreet ? all.map(discreetGoal) : all;
  const numbers = new Map(all.map(({ id, number }) => [id, number]));
  const { id, shortName } = headerStudent(student, { discreet });
  return {
    student: { id, shortName },
    goals: shown.map((goal) => ({
      ...lineOf(goal),
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
  area: goal.area,
  criterion: criterionSentence(goal),
});

const order = z.object({
  ids: z
    .string()
    .transform((text) => text.split(' '))
    .pipe(z.array(z.uuid()).max(200)),
});

export const action = answering(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = askerOf(context);
  const studentId = idFrom(params.studentId);
  await studentFor(database(), actor, studentId, 'setUp');
  const form = await request.formData();
  try {
    if (form.get('intent') === 'arrange') {
      const parsed = order.safeParse(Object.fromEntries(form));
      if (parsed.success) await arrangeGoals(database(), actor, studentId, parsed.data.ids);
      return { messages: {} };
    }
    if (form.get('intent') === 'bringBack') {
      await bringGoalBack(database(), actor, studentId, idFrom(String(form.get('goalId'))), now);
      return { messages: {} };
    }
    const submission = readForm(form, retirementInput);
    if (submission.status !== 'success') return data({ messages: submission.error ?? {} }, { status: 400 });
    await retireGoal(database(), actor, studentId, submission.value, now);
    const text = 'The goal is retired. All that was recorded stays, and it can be brought back.';
    return data({ messages: {} }, { headers: await sayNext({ text }) });
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    const messages = Object.fromEntries(Object.entries(error.fields).map(([field, text]) => [field, [text]]));
    return data({ messages }, { status: 400 });
  }
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Goals of ${loaderData?.student.shortName ?? 'a student'}, arranged · Gentle Margin` },
];

type Line = Route.ComponentProps['loaderData']['goals'][number];

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
    fetcher.submit({ intent: 'arrange', ids: ids.join(' ') }, { method: 'post' });
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const [from, to] = [active.id, over?.id].map((id) => current.findIndex((goal) => goal.id === id));
    if (from !== undefined && to !== undefined && to >= 0 && from !== to) move(from, to);
  };
  const context = useId();
  const placeOf = (id: UniqueIdentifier) => {
    const goal = current.find((one) => one.id === id);
    return goal ? `${goal.number} ${goal.shortName}` : 'the goal';
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${placeOf(active.id)} is picked up. Arrow keys move it, Space puts it down.`,
    onDragOver: ({ active, over }) =>
      over ? `${placeOf(active.id)} is at the place of ${placeOf(over.id)}.` : undefined,
    onDragEnd: ({ active }) => `${placeOf(active.id)} is put down.`,
    onDragCancel: ({ active }) => `${placeOf(active.id)} stays where it was.`,
  };
  return (
    <Page
      marginName="About the order"
      margin={
        <>
          <MarginTitle>About the order</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>Everyone on the team sees the goals in this order, when they look and when they observe.</p>
            <p>
              A retired goal is no longer observed and no longer due. Its entries stay in the report, and it can be
              brought back.
            </p>
          </div>
        </>
      }
    >
      <p className="text-small">
        <Link to={`/students/${student.id}`} className="text-ink-2 underline underline-offset-2">
          {student.shortName}
        </Link>
      </p>
      <header className="mt-1 flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-3xl">Goals, in order</h1>
        <Link to={`/students/${student.id}/goals/new`} className="btn btn-primary h-11 px-5 text-base">
          Add a goal
        </Link>
      </header>
      {current.length === 0 && <p className="py-8 text-ink-2">No goal is worked on.</p>}
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
                onUp={at > 0 ? () => move(at, at - 1) : null}
                onDown={at < current.length - 1 ? () => move(at, at + 1) : null}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {retired.length > 0 && (
        <section className="mt-10 pb-16">
          <h2 className="border-b border-rule pb-2 text-lg">Retired</h2>
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
  onUp: (() => void) | null;
  onDown: (() => void) | null;
}

function GoalLine({ goal, studentId, today, others, onUp, onDown }: GoalLineProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: goal.id,
  });
  const [isRetiring, setRetiring] = useState(false);
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
        aria-label={`Drag ${named}`}
        className="grid size-10 touch-none cursor-grab place-items-center rounded-field text-ink-3 hover:bg-wash pointer-coarse:size-11"
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
        <Small label={`Move ${named} up`} onPress={onUp}>
          <ArrowUp size={16} aria-hidden />
        </Small>
        <Small label={`Move ${named} down`} onPress={onDown}>
          <ArrowDown size={16} aria-hidden />
        </Small>
        <button type="button" aria-label={`Retire ${named}`} onClick={() => setRetiring(true)} className="btn h-10">
          Retire
        </button>
      </span>
      {isRetiring && <RetireDialog goal={goal} others={others} today={today} onClose={() => setRetiring(false)} />}
    </li>
  );
}

function Small(props: { label: string; onPress: (() => void) | null; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-label={props.label}
      title={props.label}
      disabled={props.onPress === null}
      onClick={props.onPress ?? undefined}
      className="grid size-10 place-items-center rounded-field text-ink-2 hover:bg-wash disabled:opacity-30 pointer-coarse:size-11"
    >
      {props.children}
    </button>
  );
}

interface RetireDialogProps {
  goal: Line;
  others: Line[];
  today: IsoDate;
  onClose: () => void;
}

function RetireDialog({ goal, others, today, onClose }: RetireDialogProps) {
  const fetcher = useFetcher<typeof action>();
  const [how, setHow] = useState<keyof typeof retirementWords>('met');
  const messages = (fetcher.data?.messages ?? {}) as Record<string, string[]>;
  const id = useId();
  return (
    <Dialog title={`Retire ${goal.shortName}`} onClose={onClose}>
      <fetcher.Form method="post" className="grid gap-4 p-6">
        <h2 className="text-xl">
          Retire {goal.number} {goal.shortName}
        </h2>
        <input type="hidden" name="goalId" value={goal.id} />
        <fieldset className="grid gap-1">
          <legend className="sr-only">Why</legend>
          {Object.entries(retirementWords).map(([key, words]) => (
            <label key={key} className="flex min-h-9 items-center gap-2.5">
              <input
                type="radio"
                name="how"
                value={key}
                checked={how === key}
                disabled={key === 'replaced' && others.length === 0}
                onChange={() => setHow(key as typeof how)}
                className="radio radio-sm"
              />
              {words}
            </label>
          ))}
        </fieldset>
        {how === 'replaced' && (
          <div className="grid gap-1">
            <label htmlFor={`${id}-by`} className="text-small font-semibold">
              The goal that takes its place
            </label>
            <select id={`${id}-by`} name="replacedBy" className="select w-full">
              {others.map((other) => (
                <option key={other.id} value={other.id}>
                  {other.number} {other.shortName}
                </option>
              ))}
            </select>
            <FieldMessage messages={messages.replacedBy} />
          </div>
        )}
        <div className="grid gap-1">
          <label htmlFor={`${id}-on`} className="text-small font-semibold">
            On
          </label>
          <input id={`${id}-on`} type="date" name="on" defaultValue={today} max={today} className="input w-44" />
          <FieldMessage messages={messages.on} />
        </div>
        <div className="grid gap-1">
          <label htmlFor={`${id}-note`} className="text-small font-semibold">
            A word about it
          </label>
          <input id={`${id}-note`} name="note" maxLength={400} className="input w-full" />
        </div>
        <div className="flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            Keep it
          </button>
          <button type="submit" className="btn btn-primary" disabled={fetcher.state !== 'idle'}>
            Retire
          </button>
        </div>
      </fetcher.Form>
    </Dialog>
  );
}

function RetiredLine({ goal, studentId }: { goal: Line; studentId: string }) {
  const fetcher = useFetcher<typeof action>();
  const { id, number, shortName, retired } = goal;
  if (!retired) return null;
  const messages = (fetcher.data?.messages ?? {}) as Record<string, string[]>;
  const how = retired.replacedBy ? `replaced by ${retired.replacedBy}` : retirementWords[retired.how].toLowerCase();
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-3">
      <span className="display w-10 text-xl text-ink-3">{number}</span>
      <span className="min-w-0 grow basis-60">
        <Link to={`/students/${studentId}/goals/${id}`} className="display text-lg hover:underline">
          {shortName}
        </Link>
        <span className="block text-small text-ink-2">
          {[`${how} on ${longDate(retired.on)}`, retired.note].filter(Boolean).join(' · ')}
        </span>
        <FieldMessage messages={messages.goalId} />
      </span>
      <fetcher.Form method="post">
        <input type="hidden" name="goalId" value={id} />
        <button
          type="submit"
          name="intent"
          value="bringBack"
          aria-label={`Bring back ${number} ${shortName}`}
          className="btn h-10"
        >
          Bring back
        </button>
      </fetcher.Form>
    </li>
  );
}
