/** A small table of medians: by day of the week, or by person. */
export interface Medians {
  title: string;
  rows: { label: string; value: string; n: string }[];
}

export function ByDayAndPerson({ tables }: { tables: Medians[] }) {
  return (
    <div className="flex flex-wrap items-start gap-x-12 gap-y-4">
      {tables.map(({ title, rows }) => (
        <table key={title} className="table table-sm w-auto">
          <caption className="text-left text-small text-ink-2">{title}</caption>
          <tbody>
            {rows.map(({ label, value, n }) => (
              <tr key={label}>
                <th scope="row" className="font-normal">
                  {label}
                </th>
                <td className="display text-right text-lg">{value}</td>
                <td className="text-small text-ink-2">{n}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </div>
  );
}
