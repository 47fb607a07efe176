import { getSelectProps } from '@conform-to/react';
import type { MappingChoices } from '~/server/imports/mapping-choices';
import { importWords } from './words';

export interface Option {
  id: string;
  name: string;
}

interface ColumnsProps {
  // biome-ignore lint/suspicious/noExplicitAny: a list of texts in the form of any kind of file
  list: any;
  columns: MappingChoices['columns'];
  options: readonly Option[];
}

/** Each column of a file with what stands in it, and what it is taken for. */
export function Columns({ list, columns, options }: ColumnsProps) {
  const fields = list.getFieldList();
  return (
    <table className="w-full max-w-3xl text-small">
      <thead className="border-b border-rule-strong text-left">
        <tr>
          <th scope="col" className="py-1.5 pr-3 font-semibold">
            {importWords.column}
          </th>
          <th scope="col" className="py-1.5 pr-3 font-semibold max-sm:hidden">
            {importWords.standsThere}
          </th>
          <th scope="col" className="py-1.5 font-semibold">
            {importWords.holds}
          </th>
        </tr>
      </thead>
      <tbody>
        {columns.map(({ heading, samples }, at) => {
          const name = heading || importWords.unnamed(at + 1);
          const field = fields[at];
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns stay where they are, and may be headed alike
            <tr key={at} className="border-b border-rule">
              <th scope="row" className="py-1.5 pr-3 text-left font-semibold wrap-anywhere">
                {name}
              </th>
              <td className="py-1.5 pr-3 text-ink-2 wrap-anywhere max-sm:hidden">{samples.join(' · ')}</td>
              <td className="py-1.5">
                <select
                  {...(field ? getSelectProps(field) : { name: `${list.name}[${at}]` })}
                  key={field?.key}
                  aria-label={importWords.holdsOf(name)}
                  className="select w-full"
                >
                  <option value="">{importWords.passedOver}</option>
                  {options.map((option) => (
                    <option key={option.id} value={option.id}>
                      {option.name}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
