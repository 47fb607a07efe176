import { Form, Link } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import type { FoundClosure } from '~/core/school/closures-input';
import { counted } from '~/core/words/counting';
import { newYearWords } from './new-year-words';

interface ClosuresFromFileProps {
  file: { error: string } | { closures: FoundClosure[]; passedOver: number } | null;
}

/** Days on which the school is closed, found in a calendar's file and chosen from it. */
export function ClosuresFromFile({ file }: ClosuresFromFileProps) {
  const error = file && 'error' in file ? file.error : undefined;
  return (
    <section className="mt-10 border-t border-rule pt-6 pb-20">
      <h2 className="text-xl">{newYearWords.closures}</h2>
      <p className="mt-1 max-w-2xl text-small text-ink-2">
        {newYearWords.closuresAre}{' '}
        <Link to="/school" className="link">
          {newYearWords.toSchool}
        </Link>
      </p>
      <Form method="post" encType="multipart/form-data" className="mt-3 flex flex-wrap items-end gap-3">
        <label className="grid gap-1">
          <span className="text-small font-semibold">{newYearWords.file}</span>
          <input
            type="file"
            name="file"
            accept=".ics,text/calendar"
            aria-describedby="calendar-message"
            className="file-input"
          />
        </label>
        <button type="submit" name="intent" value="calendar" className="btn">
          {newYearWords.lookThrough}
        </button>
      </Form>
      <p id="calendar-message" role="alert" className="mt-2 font-semibold text-clay-deep">
        {error}
      </p>
      {file && 'closures' in file && (
        <Form method="post" key={JSON.stringify(file.closures)} className="mt-4 grid gap-3">
          <fieldset className="grid gap-1">
            <legend className="text-small font-semibold">{newYearWords.found}</legend>
            {file.closures.map(({ first, last, label }, at) => (
              <label key={`${first} ${label}`} className="flex tap items-center gap-2.5">
                <input
                  type="checkbox"
                  name={`closures[${at}].isWanted`}
                  defaultChecked
                  className="checkbox checkbox-sm"
                />
                <input type="hidden" name={`closures[${at}].first`} value={first} />
                <input type="hidden" name={`closures[${at}].last`} value={last} />
                <input type="hidden" name={`closures[${at}].label`} value={label} />
                <span>
                  {label} <span className="text-ink-2">{stretch(first, last)}</span>
                </span>
              </label>
            ))}
          </fieldset>
          {file.passedOver > 0 && (
            <p className="text-small text-ink-2">
              {newYearWords.passedOver(counted(file.passedOver, 'event', 'events'))}
            </p>
          )}
          <button type="submit" name="intent" value="closures" className="btn justify-self-start btn-primary">
            {newYearWords.add}
          </button>
        </Form>
      )}
    </section>
  );
}

const stretch = (first: string, last: string) =>
  first === last ? longDate(first) : `${longDate(first)} – ${longDate(last)}`;
