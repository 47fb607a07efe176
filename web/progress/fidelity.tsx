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
      <div className="mt-3 flex flex-wrap items-start gap-x-12 gap-y-4">
        <Shares caption={fidelityWords.stepByStep} rows={fidelity.steps} />
        <Shares caption={fidelityWords.whatTheStudentDid} rows={fidelity.outcomes} />
      </div>
      <p className="mt-2 max-w-3xl text-small text-ink-2">{fidelityWords.noProof}</p>
    </section>
  );
}

function Shares({ caption, rows }: { caption: string; rows: FidelityShown['steps'] }) {
  return (
    <table className="table table-sm w-auto">
      <caption className="text-left text-small text-ink-2">{caption}</caption>
      <tbody>
        {rows.map(({ label, value, n }) => (
          <tr key={label}>
            <th scope="row" className="font-normal">
              {label}
            </th>
            <td className="text-right text-small text-ink-2">{n}</td>
            <td className="display text-right text-lg">{value}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
