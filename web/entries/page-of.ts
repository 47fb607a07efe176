import type { ReportEntry } from '~/core/individual-report/report';

const pages = { observation: 'entries', incident: 'incidents', count: 'counts', note: 'notes' };

/**
 * Where an entry’s own page is; a reflection stands in the report.
 *
 * @example pageOf({ id: 'e', studentId: 's', kind: 'note' }) // '/students/s/notes/e'
 */
export const pageOf = ({ id, studentId, kind }: Pick<ReportEntry, 'id' | 'studentId' | 'kind'>) =>
  kind === 'reflection'
    ? `/students/${studentId}/individual-report#${id}`
    : `/students/${studentId}/${pages[kind]}/${id}`;
