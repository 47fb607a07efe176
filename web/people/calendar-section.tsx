import { Form } from 'react-router';
import { ownAccountWords } from './entry-words';

interface CalendarSectionProps {
  /** Null where there is no address. */
  current: { hasNames: boolean } | null;
  /** The address that was made just now, the only time it is shown. */
  made: string | null;
}

/** An address at which one's calendar program fetches what falls due. */
export function CalendarSection({ current, made }: CalendarSectionProps) {
  return (
    <>
      <h2 className="mt-8 text-lg">{ownAccountWords.dueDates}</h2>
      <p className="mt-1 max-w-xl text-small text-ink-2">
        {ownAccountWords.dueDatesAre} {current && ownAccountWords.thereIsAnAddress(current.hasNames)}
      </p>
      {made && (
        <div className="mt-2 max-w-xl border-l-2 border-clay pl-3">
          <p className="text-small">{ownAccountWords.addressOnce}</p>
          <input
            readOnly
            aria-label={ownAccountWords.calendarAddress}
            value={made}
            onFocus={(event) => event.target.select()}
            className="input mt-1.5 w-full"
          />
        </div>
      )}
      <Form method="post" className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="submit" name="intent" value="calendar" className="btn">
          {current ? ownAccountWords.anotherAddress : ownAccountWords.makeAddress}
        </button>
        <label className="tap flex items-center gap-2 text-small">
          <input type="checkbox" name="hasNames" className="checkbox checkbox-sm" />
          {ownAccountWords.withNames}
        </label>
        {current && (
          <button type="submit" name="intent" value="endCalendar" className="btn">
            {ownAccountWords.endAddress}
          </button>
        )}
      </Form>
    </>
  );
}
