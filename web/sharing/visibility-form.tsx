import { useEffect, useRef } from 'react';
import { Form, useFetcher, useNavigation } from 'react-router';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { type ReaderKind, readerKinds, readerWords } from '~/core/sharing/reader-kind';
import { fieldWords, groupings, layouts, reportFields, type VisibilityRule } from '~/core/sharing/visibility-rule';
import { visibilityFormWords } from './words';

const layoutWords = { sentences: 'Sentences', table: visibilityFormWords.aTable, cards: 'Cards' };
const groupingWords = {
  week: visibilityFormWords.byWeek,
  goal: visibilityFormWords.byGoal,
  none: visibilityFormWords.notGrouped,
};

interface RulesFormProps {
  rules: Record<ReaderKind, VisibilityRule>;
  /** Which kinds have a rule of this student’s own. */
  own: readonly ReaderKind[];
  /** Called with what stands in the form, whenever something is changed. */
  onChange?: (form: FormData) => void;
}

/** Reader kinds × fields, and how each kind gets the report. */
export function RulesForm({ rules, own, onChange }: RulesFormProps) {
  const form = useRef<HTMLFormElement>(null);
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form
      method="post"
      ref={form}
      className="mt-5"
      onChange={() => form.current && onChange?.(new FormData(form.current))}
    >
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard */}
      <section tabIndex={0} aria-label={visibilityFormWords.whatEachReaderSees} className="overflow-x-auto">
        <table className="table table-sm">
          <thead>
            <tr className="align-top text-ink-2">
              <td />
              {readerKinds.map((kind) => (
                <th key={kind} scope="col" className="min-w-28 text-ink">
                  {readerWords[kind].label}
                  {own.includes(kind) && (
                    <span className="block text-xs font-normal text-clay-deep">
                      {visibilityFormWords.thisStudentsOwn}
                    </span>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {reportFields.map((field) => (
              <tr key={field}>
                <th scope="row" className="min-w-44 font-semibold">
                  {fieldWords[field].label}
                  <span className="block text-xs font-normal text-ink-2">{fieldWords[field].about}</span>
                </th>
                {readerKinds.map((kind) => (
                  <td key={kind}>
                    <label className="grid size-11 place-items-center">
                      <span className="sr-only">
                        {visibilityFormWords.for(fieldWords[field].label, readerWords[kind].label)}
                      </span>
                      <input
                        type="checkbox"
                        name={`${kind}.shows`}
                        value={field}
                        defaultChecked={rules[kind].shows.includes(field)}
                        className="checkbox checkbox-sm"
                      />
                    </label>
                  </td>
                ))}
              </tr>
            ))}
            <ChoiceRow
              name="layout"
              label={visibilityFormWords.as}
              options={layouts}
              words={layoutWords}
              value={(kind) => rules[kind].layout}
            />
            <ChoiceRow
              name="grouping"
              label={visibilityFormWords.grouped}
              options={groupings}
              words={groupingWords}
              value={(kind) => rules[kind].grouping}
            />
            <tr>
              <th scope="row" className="font-semibold">
                {visibilityFormWords.oldestFirst}
              </th>
              {readerKinds.map((kind) => (
                <td key={kind}>
                  <label className="grid size-11 place-items-center">
                    <span className="sr-only">{visibilityFormWords.oldestFirstFor(readerWords[kind].label)}</span>
                    <input
                      type="checkbox"
                      name={`${kind}.oldestFirst`}
                      defaultChecked={rules[kind].oldestFirst}
                      className="checkbox checkbox-sm"
                    />
                  </label>
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </section>
      <button type="submit" className="btn btn-primary mt-5 px-6" disabled={isBusy}>
        {visibilityFormWords.saveWhatEachReaderSees}
      </button>
    </Form>
  );
}

interface ChoiceRowProps {
  name: 'layout' | 'grouping';
  label: string;
  options: readonly string[];
  words: Record<string, string>;
  value: (kind: ReaderKind) => string;
}

function ChoiceRow({ name, label, options, words, value }: ChoiceRowProps) {
  return (
    <tr>
      <th scope="row" className="font-semibold">
        {label}
      </th>
      {readerKinds.map((kind) => (
        <td key={kind}>
          <select
            name={`${kind}.${name}`}
            defaultValue={value(kind)}
            aria-label={visibilityFormWords.for(label, readerWords[kind].label)}
            className="select select-sm w-full min-w-28"
          >
            {options.map((option) => (
              <option key={option} value={option}>
                {words[option]}
              </option>
            ))}
          </select>
        </td>
      ))}
    </tr>
  );
}

/** An entry as a reader of this kind would see it. */
export interface PreviewEntry {
  id: string;
  on: IsoDate;
  title: string;
  about: string;
  sentence: string;
  note: string | null;
}

export interface Preview {
  kind: ReaderKind;
  entries: PreviewEntry[];
}

/** The report as one kind of reader sees it, with the choices as they stand in the form, saved or not. */
export function PreviewMargin({ first, form }: { first: Preview; form: FormData | null }) {
  const fetcher = useFetcher<{ preview: Preview }>();
  const kind = useRef<ReaderKind>(first.kind);
  const load = () => {
    const shows = form ? form.getAll(`${kind.current}.shows`).map(String) : null;
    const search = new URLSearchParams({ as: kind.current });
    if (shows) search.set('shows', shows.join(' '));
    void fetcher.load(`?${search}`);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: another choice asks again
  useEffect(() => {
    if (form) load();
  }, [form]);
  const preview = fetcher.data?.preview ?? first;
  return (
    <>
      <label className="mb-4 grid gap-1">
        <span className="display text-lg">{visibilityFormWords.asAReaderSeesIt}</span>
        <select
          className="select w-full"
          defaultValue={first.kind}
          onChange={(event) => {
            kind.current = event.target.value as ReaderKind;
            load();
          }}
        >
          {readerKinds.map((one) => (
            <option key={one} value={one}>
              {readerWords[one].label}
            </option>
          ))}
        </select>
      </label>
      <div aria-live="polite">
        {preview.entries.length === 0 && <p className="text-ink-2">{visibilityFormWords.nothingOfTheReport}</p>}
        <ol aria-label={visibilityFormWords.theNewestEntriesAsSeen(readerWords[preview.kind].label)}>
          {preview.entries.map((entry) => (
            <li key={entry.id} className="border-b border-dotted border-ink-3/50 py-3 first:pt-0">
              <p className="text-small text-ink-2">{[shortDate(entry.on), entry.about].filter(Boolean).join(' · ')}</p>
              <p className="font-bold">{entry.title}</p>
              <p className="text-small">{entry.sentence}</p>
              {entry.note && <p className="text-small text-ink-2">{entry.note}</p>}
            </li>
          ))}
        </ol>
      </div>
    </>
  );
}
