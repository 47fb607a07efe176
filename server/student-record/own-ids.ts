import { v5 as nameId } from 'uuid';
import type { StudentRecord } from '~/core/student-record/record';

const A_UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/gi;

/**
 * A record under ids of its own: everything in it that is named by an id gets another, which no other row can have, in its columns and
 * in what stands written in them; only the locations that the school has keep the school's. So a record reaches nothing beside itself,
 * whoever made it.
 *
 * @param arrival  as which it arrived: read in a second time, it is another copy
 * @param locations  the school's, by their names in small letters
 */
export function withOwnIds(
  record: StudentRecord,
  arrival: string,
  locations: ReadonlyMap<string, string>,
): StudentRecord {
  const known = new Map(
    record.locations.flatMap(({ id, name }) => {
      const own = locations.get(name.toLowerCase());
      return own ? [[id.toLowerCase(), own] as const] : [];
    }),
  );
  const given = (id: string) => {
    const small = id.toLowerCase();
    const own = known.get(small) ?? nameId(small, arrival);
    known.set(small, own);
    return own;
  };
  // It was read from JSON and checked: the same with other ids is as it was.
  return JSON.parse(JSON.stringify(record).replace(A_UUID, given)) as StudentRecord;
}
