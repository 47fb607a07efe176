import { ByDayAndPerson } from './by-day-and-person';
import type { FidelityShown } from './goal-tables';
import { fidelityWords } from './words';

/** How far the support in place was carried out, and what the student did where it was and where it was not. */
export function Fidelity({ fidelity }: { fidelity: FidelityShown }) {
  return (
    <section className="mt-8">
      <h2 className="mb-1 text-lg">
        {fidelityWords.fidelity} <span className="text-small font-normal text-ink-2">{fidelityWords.hint}</span>
      </h2>
      <p className="max-w-3xl">{fidelity.head}</p>
      <div className="mt-3">
        <ByDayAndPerson
          tables={[
            { title: fidelityWords.stepByStep, rows: fidelity.steps },
            { title: fidelityWords.whatTheStudentDid, rows: fidelity.outcomes },
          ]}
        />
      </div>
      <p className="mt-2 max-w-3xl text-small text-ink-2">{fidelityWords.noProof}</p>
    </section>
  );
}
