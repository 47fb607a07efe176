import type { Knex } from 'knex';

/** Records of students that arrive from other installations: an archive waits until it is read in, or forgotten. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table record_arrivals (
      id uuid primary key,
      school_id uuid not null references schools,
      file_name text not null check (length(file_name) between 1 and 200),
      -- Until it is read in.
      archive bytea,
      -- Whose it is, as it calls the student: the same may arrive again, with more in it.
      source_id uuid not null,
      made_by uuid not null references people,
      made_at timestamptz not null,
      done_at timestamptz,
      student_id uuid references students,
      check ((done_at is null) = (student_id is null)),
      check ((done_at is null) = (archive is not null))
    );
    create index record_arrivals_of on record_arrivals (school_id, made_at desc);
  `);
}
