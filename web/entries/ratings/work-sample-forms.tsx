import { Form, useNavigation } from 'react-router';
import type { IsoDate } from '~/core/calendar/iso-date';
import { RATING_LINK_HOURS } from '~/core/entries/ratings/ratings';
import { FieldMessage } from '../../platform/ui/fields';
import { useFreshId } from '../../platform/ui/use-fresh-id';
import { workSampleFormsWords } from './words';

interface Problem {
  field: string;
  text: string;
}

/** What the server answers when somebody is asked. */
interface AskAnswer {
  problem: Problem | null;
  link: string | null;
}

/** Begins a work sample that is to be rated. */
export function WorkSampleForm({ today, problem }: { today: IsoDate; problem: Problem | null }) {
  const id = useFreshId();
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" className="grid gap-4">
      <input type="hidden" name="intent" value="workSample" />
      <input type="hidden" name="id" value={id} />
      <label className="grid gap-1">
        <span className="text-small font-semibold">{workSampleFormsWords.whatIsRated}</span>
        <input
          name="title"
          maxLength={120}
          className="input w-full"
          placeholder={workSampleFormsWords.theBirdHouseFirstCoat}
          autoComplete="off"
        />
      </label>
      <FieldMessage messages={problem?.field === 'title' ? [problem.text] : undefined} />
      <label className="grid gap-1">
        <span className="text-small font-semibold">{workSampleFormsWords.madeOn}</span>
        <input name="madeOn" type="date" max={today} defaultValue={today} className="input w-full" />
      </label>
      <FieldMessage messages={problem?.field === 'madeOn' ? [problem.text] : undefined} />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {workSampleFormsWords.begin}
      </button>
    </Form>
  );
}

/** Asks a peer or the student for a rating, by a link. */
export function AskForm({ workSampleId: of, answer }: { workSampleId: string; answer: AskAnswer | undefined }) {
  const id = useFreshId();
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" className="mt-2 grid max-w-xl gap-3">
      <input type="hidden" name="intent" value="ask" />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="workSampleId" value={of} />
      {answer?.link && (
        <div className="rounded-box border border-fern bg-fern-wash p-3">
          <p className="text-small">{workSampleFormsWords.theLinkWorksOnceFor(RATING_LINK_HOURS)}</p>
          <input
            readOnly
            aria-label={workSampleFormsWords.theRatersLink}
            value={answer.link}
            onFocus={(event) => event.target.select()}
            className="input mt-2 w-full"
          />
        </div>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{workSampleFormsWords.who}</span>
          <select name="kind" className="select w-40">
            <option value="peer">{workSampleFormsWords.aPeer}</option>
            <option value="student">{workSampleFormsWords.theStudent}</option>
          </select>
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{workSampleFormsWords.ratersNameOnlyPeopleWho}</span>
          <input name="label" maxLength={60} className="input w-48" autoComplete="off" />
        </label>
        <button type="submit" className="btn" disabled={isBusy || id === ''}>
          {workSampleFormsWords.makeTheLink}
        </button>
      </div>
      <FieldMessage messages={answer?.problem ? [answer.problem.text] : undefined} />
    </Form>
  );
}

/** Makes one entry of all ratings. */
export function EntryForm({ workSampleId: of, title }: { workSampleId: string; title: string }) {
  const id = useFreshId();
  const isBusy = useNavigation().state !== 'idle';
  return (
    <Form method="post" className="flex flex-wrap items-center gap-3">
      <input type="hidden" name="intent" value="entry" />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="workSampleId" value={of} />
      <button type="submit" className="btn" disabled={isBusy || id === ''}>
        {workSampleFormsWords.makeItAnEntry}
        <span className="sr-only">: {title}</span>
      </button>
      <span className="text-small text-ink-2">{workSampleFormsWords.thenItCountsForThe}</span>
    </Form>
  );
}
