import Papa from 'papaparse';
import { useCallback, useEffect, useMemo, useReducer, useState } from 'react';
import { data, Link, useNavigate } from 'react-router';
import { defined } from '~/core/defined';
import { tableInput } from '~/core/entries/observation';
import { pasteInto, readRow, tableColumns } from '~/core/entries/table/table';
import { discreetGoal } from '~/core/goals/discreet';
import { outcomeSentence } from '~/core/individual-report/report';
import { counted } from '~/core/words/counting';
import { readable } from '~/core/words/readable';
import { recordTable } from '~/server/entries/record-table';
import { goalOf } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { locationsOf } from '~/server/school/school';
import { requireStudent, supportTeam } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { draftStore } from '../platform/offline/device-store';
import { MarginTitle, Page } from '../platform/ui/page';
import { saveOrStay, useRetry, useSaving } from '../platform/ui/use-saving';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/table-entry';
import { CellBox } from './cell-box';
import { Photographs } from './evidence/photographs';
import { usePhotographs } from './evidence/use-photographs';
import { blankLines, isBlank, type Line, type Sheet, sheetReducer, useKeptSheet } from './sheet';
import { tableEntryWords } from './words';

/** What the photographs are of. */
const SHEET = 'sheet';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, person, wall, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'observe');
  const stored = await goalOf(database(), student.id, idFrom(params.goalId));
  const goal = discreet ? discreetGoal(stored) : stored;
  const [team, locations] = await Promise.all([
    supportTeam(database(), student.id, actor.today),
    locationsOf(database(), actor.schoolId),
  ]);
  const { id, shortName } = headerStudent(student, { discreet });
  return {
    student: { id, shortName },
    goal: { id: goal.id, number: goal.number, shortName: goal.shortName, measure: goal.measure, version: goal.version },
    people: team.map((member) => ({ id: member.id, name: member.shortName })),
    locations,
    personId: person.id,
    wall,
    discreet,
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, wall, now } = personOf(context);
  const ids = { studentId: idFrom(params.studentId), goalId: idFrom(params.goalId) };
  const parsed = readable(tableInput).safeParse(await jsonOf(request));
  if (!parsed.success) {
    await requireStudent(database(), actor, ids.studentId, 'observe');
    const messages = Object.fromEntries(parsed.error.issues.map(({ path, message }) => [path.join('.'), message]));
    return refusedWith(messages);
  }
  try {
    const saved = await recordTable(database(), actor, ids, parsed.data, { wall, now });
    const text = `Saved: ${counted(saved.length, 'entry', 'entries')}.`;
    return data({ savedTo: `/students/${ids.studentId}/goals/${ids.goalId}` }, { headers: await sayNext({ text }) });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: tableEntryWords.pageTitle(loaderData?.goal.number ?? '') },
];

export default function TableEntry({ loaderData }: Route.ComponentProps) {
  return <Table key={loaderData.goal.id} {...loaderData} />;
}

function Table({ student, goal, people, locations, personId, wall, discreet }: Route.ComponentProps['loaderData']) {
  const { measure } = goal;
  const columns = useMemo(() => tableColumns(measure), [measure]);
  const empty = (): Sheet => ({ lines: blankLines(5), observerId: personId, locationId: null, time: '10:00' });
  const [sheet, change] = useReducer(sheetReducer, undefined, empty);
  const [pasteMessage, setPasteMessage] = useState<string | null>(null);
  const [isChecked, setChecked] = useState(false);
  const back = `/students/${student.id}/goals/${goal.id}`;
  const draftKey = `${personId} table ${goal.id}`;
  const saving = useSaving<{ savedTo?: string; messages?: Record<string, string> }>(`${back}/table`);
  const isKept = useKeptSheet(draftKey, sheet, change);
  const taken = usePhotographs(draftKey);

  const read = useMemo(
    () => sheet.lines.map(({ cells }) => readRow(measure, cells, { today: wall.on, time: sheet.time })),
    [sheet, measure, wall.on],
  );
  const rows = read.flatMap((one, i) => (one.is === 'row' ? [{ id: defined(sheet.lines[i]?.id), ...one.row }] : []));
  const wrong = read.filter(({ is }) => is === 'wrong').length;
  // The server names rows by their place among those that were sent.
  const sentAt = new Map(rows.map(({ id }, at) => [id, at]));
  const { observerId, locationId } = sheet;
  const save = useCallback(() => {
    setChecked(true);
    if (wrong > 0 || rows.length === 0) return;
    const photographs = taken.of(SHEET);
    saving.save({
      ...{ goalVersion: goal.version, observerId, locationId, rows },
      ...(photographs.length > 0 && { photographs: [...photographs] }),
    });
  }, [saving.save, wrong, rows, goal.version, observerId, locationId, taken.of]);
  useRetry(saving, save);
  const navigate = useNavigate();
  const savedTo = saving.answer?.savedTo;
  useEffect(() => {
    if (savedTo)
      void draftStore
        .forget(draftKey)
        .catch(() => {})
        .then(() => {
          taken.forget([SHEET]);
          return navigate(savedTo);
        });
  }, [savedTo, draftKey, navigate, taken.forget]);

  const messageAt = (line: Line, at: number, key: string): string | undefined => {
    const one = read[at];
    if (one?.is === 'wrong' && (isChecked || line.cells[key])) return one.messages[key];
    const said = (field: string) => saving.answer?.messages?.[`rows.${sentAt.get(line.id)}.${field}`];
    if (one?.is !== 'row') return undefined;
    return said(key) ?? (key === columns[2]?.key ? said('outcome') : undefined);
  };
  const paste = (at: number, key: string) => (event: React.ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    const { data: block } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), {
      delimiter: text.includes('\t') ? '\t' : '',
    });
    if (block.length < 2 && (block[0]?.length ?? 0) < 2) return;
    event.preventDefault();
    const pasted = pasteInto(columns, block, key);
    setPasteMessage(pasted.ok ? null : pasted.message);
    if (pasted.ok) change({ type: 'paste', at, rows: pasted.rows });
  };

  return (
    <Page
      marginName={tableEntryWords.whatWillBeSaved}
      margin={
        <div className="lg:sticky lg:top-6">
          <MarginTitle about={tableEntryWords.allRowsAreSavedTogether}>{tableEntryWords.whatWillBeSaved}</MarginTitle>
          {rows.length === 0 && <p className="text-small text-ink-2">{tableEntryWords.nothingYetEmptyRowsAre}</p>}
          <ol className="grid max-h-[55dvh] gap-2 overflow-y-auto">
            {rows.map(({ id, on, time, outcome }) => (
              <li key={id} className="border-l-2 border-fern pl-3 text-small">
                <span className="text-ink-2">
                  {on} · {time}
                </span>
                <span className="block">{outcomeSentence(measure, outcome)}</span>
              </li>
            ))}
          </ol>
          <div className="mt-4 grid gap-2">
            {saving.isUnreachable && (
              <p role="status" className="text-small font-semibold text-clay-deep">
                {tableEntryWords.theServerCannotBeReached}
              </p>
            )}
            {isChecked && wrong > 0 && (
              <p role="alert" className="text-small font-semibold text-clay-deep">
                {tableEntryWords.anotherLookNothingHasBeen(
                  counted(wrong, tableEntryWords.rowNeeds, tableEntryWords.rowsNeed),
                )}
              </p>
            )}
            {isChecked && wrong === 0 && rows.length === 0 && (
              <p role="alert" className="text-small font-semibold text-clay-deep">
                {tableEntryWords.thereIsNoRowTo}
              </p>
            )}
            <button
              type="button"
              onClick={save}
              disabled={saving.isBusy}
              className="btn btn-primary btn-lg w-full text-base"
            >
              {saving.isBusy
                ? tableEntryWords.saving
                : rows.length > 0
                  ? tableEntryWords.saveRows(counted(rows.length, 'entry', 'entries'))
                  : tableEntryWords.save}
            </button>
            <p role="status" className="text-small text-ink-2">
              {isKept && tableEntryWords.keptOnThisDevice}
            </p>
          </div>
        </div>
      }
    >
      <p className="text-small">
        <Link to={back} className="text-ink-2 link">
          {student.shortName} · {goal.number} {goal.shortName}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl">{tableEntryWords.fromPaperInATable}</h1>
      <p className="mt-1 max-w-3xl text-small text-ink-2">{tableEntryWords.oneRowForEachSession}</p>
      <BlankSheet to={`${back}/sheet`} />
      <div className="mt-4 flex flex-wrap gap-4">
        <Choice
          label={tableEntryWords.observedBy}
          value={observerId}
          options={people}
          onChoose={(id) => change({ type: 'fields', fields: { observerId: id } })}
        />
        <Choice
          label={tableEntryWords.location}
          value={locationId ?? ''}
          none={tableEntryWords.notSaid}
          options={locations}
          onChoose={(id) => change({ type: 'fields', fields: { locationId: id || null } })}
        />
        <label className="grid gap-1 text-small font-semibold">
          {tableEntryWords.timeWhereARowSays}
          <input
            type="time"
            value={sheet.time}
            onChange={(event) => change({ type: 'fields', fields: { time: event.target.value || '10:00' } })}
            className="input w-36 font-normal"
          />
        </label>
      </div>
      <div className="mt-4">
        <p className="mb-1 text-small font-semibold">{tableEntryWords.photographOfTheSheet}</p>
        <Photographs
          of={tableEntryWords.theSheet}
          photographs={taken.of(SHEET)}
          onChange={(photographs) => taken.change(SHEET, photographs)}
          hasRoomFor={taken.hasRoomFor}
          discreet={discreet}
        />
      </div>
      {pasteMessage && (
        <p role="alert" className="mt-3 alert alert-error alert-soft block font-semibold">
          {tableEntryWords.nothingWasChanged(pasteMessage)}
        </p>
      )}
      <div className="mt-4 overflow-x-auto pb-24">
        <table className="border-separate border-spacing-0 text-small">
          <thead>
            <tr>
              {columns.map(({ key, label }) => (
                <th key={key} scope="col" className="px-1 pb-1 text-left align-bottom font-semibold">
                  {label}
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">{tableEntryWords.takeAway}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sheet.lines.map((line, at) => (
              <tr key={line.id}>
                {columns.map(({ key, label, example }) => (
                  <td key={key} className="px-0.5 py-0.5 align-top">
                    <CellBox
                      name={tableEntryWords.row(label, at + 1)}
                      isWide={key === 'note'}
                      text={line.cells[key] ?? ''}
                      placeholder={at === 0 ? example : ''}
                      message={messageAt(line, at, key)}
                      onChange={(text) => change({ type: 'cell', at, key, text })}
                      onPaste={paste(at, key)}
                    />
                  </td>
                ))}
                <td className="align-top">
                  {!isBlank(line) && (
                    <button
                      type="button"
                      aria-label={tableEntryWords.takeAwayRow(at + 1)}
                      onClick={() => change({ type: 'remove', at })}
                      className="grid size-10 place-items-center rounded-field text-ink-2 hover:bg-wash"
                    >
                      ×
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Page>
  );
}

/** A sheet to write on, whose columns this table takes in the same order. */
function BlankSheet({ to }: { to: string }) {
  return (
    <form action={to} className="no-print mt-3 flex flex-wrap items-end gap-2 text-small">
      <label className="grid gap-1 font-semibold">
        {tableEntryWords.sessionsOnASheet}
        <input
          type="number"
          name="rows"
          min={1}
          max={60}
          defaultValue={15}
          inputMode="numeric"
          className="input w-24 font-normal"
        />
      </label>
      <button type="submit" className="btn">
        {tableEntryWords.blankSheet}
      </button>
    </form>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  none?: string;
  options: { id: string; name: string }[];
  onChoose: (id: string) => void;
}

function Choice({ label, value, none, options, onChoose }: ChoiceProps) {
  return (
    <label className="grid gap-1 text-small font-semibold">
      {label}
      <select value={value} onChange={(event) => onChoose(event.target.value)} className="select w-44 font-normal">
        {none && <option value="">{none}</option>}
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
