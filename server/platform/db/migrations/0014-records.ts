import type { Knex } from 'knex';

/**
 * Records of students: they arrive from other installations, are asked for by families, and are destroyed when they are not needed any more
 * (34 CFR 300.624). A destruction is of the owner's role alone, and leaves a receipt.
 */
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

    -- A family asks to see the record: within 45 days it is shown (34 CFR 99.10), and meanwhile nothing of it is destroyed.
    create table record_requests (
      id uuid primary key,
      student_id uuid not null references students,
      asked_by text not null check (length(asked_by) between 1 and 120),
      asked_on date not null,
      noted_by uuid not null references people,
      noted_at timestamptz not null,
      answered_by uuid references people,
      answered_at timestamptz,
      check ((answered_by is null) = (answered_at is null))
    );
    create index record_requests_of on record_requests (student_id);

    -- That a record is to be destroyed, and the receipt that it was: without content, and without a student that it could point at.
    create table destructions (
      id uuid primary key,
      school_id uuid not null references schools,
      student_id uuid not null,
      reason text not null check (length(reason) between 3 and 400),
      -- When the family was told what is destroyed and what is kept, and how.
      told_on date not null,
      told_how text not null check (length(told_how) between 3 and 200),
      asked_by uuid references people,
      asked_by_name text not null,
      asked_at timestamptz not null,
      confirmed_by uuid references people check (confirmed_by <> asked_by),
      confirmed_by_name text,
      confirmed_at timestamptz,
      taken_back_by uuid references people,
      taken_back_at timestamptz,
      done_at timestamptz,
      -- What is kept without limit: the name, the grade, the years.
      kept_name text,
      kept_grade text,
      kept_years text,
      -- How many rows of each table are gone.
      rows jsonb,
      check ((confirmed_by_name is null) = (confirmed_at is null)),
      check ((taken_back_by is null) = (taken_back_at is null)),
      check (num_nonnulls(done_at, taken_back_at) < 2),
      check ((done_at is null) = (kept_name is null))
    );
    create unique index destructions_open on destructions (student_id) where taken_back_at is null;
    create index destructions_of on destructions (school_id, asked_at desc);
    create trigger destructions_stay before delete on destructions for each row execute function refuse_removal();
    create trigger destructions_stay_all before truncate on destructions for each statement execute function refuse_removal();
    create trigger destructions_wake after insert or update of confirmed_at on destructions
      for each statement execute function tell_worker();

    -- Whoever owns the tables, and has said that a record is destroyed; no role of the application is that.
    create function destroys() returns boolean language sql stable as $$
      select current_setting('app.destroys', true) = 'yes' and current_setting('role') = 'none'
    $$;
    create or replace function refuse_removal() returns trigger language plpgsql as $$
      begin
        if tg_level = 'ROW' and destroys() then
          if tg_op = 'DELETE' then return old; end if;
          return new;
        end if;
        raise exception 'What was recorded is not removed (%).', tg_table_name using errcode = 'restrict_violation';
      end
    $$;
    create or replace function keep_revision() returns trigger language plpgsql as $$
      begin
        -- Which classmate gave it is forgotten with the classmate's record.
        if destroys() and to_jsonb(new) = to_jsonb(old) || '{"giver_id": null}' then return new; end if;
        if new.version = old.version + 1 then
          insert into entry_revisions (entry_id, version, student_id, row, changed_by, changed_at, reason)
          values (old.id, old.version, old.student_id, to_jsonb(old), new.changed_by, new.changed_at, new.change_reason);
        elsif to_jsonb(new) - array['pairs_with', 'paired_by', 'paired_at']
              <> to_jsonb(old) - array['pairs_with', 'paired_by', 'paired_at'] then
          raise exception 'What was recorded is changed by a new version only.' using errcode = 'restrict_violation';
        end if;
        if (new.id, new.student_id, new.kind, new.goal_id, new.measure_version, new.form_id, new.form_version, new.giver_id, new.recorded_by, new.recorded_at)
           is distinct from (old.id, old.student_id, old.kind, old.goal_id, old.measure_version, old.form_id, old.form_version, old.giver_id, old.recorded_by, old.recorded_at) then
          raise exception 'Whose entry it is, and who recorded it, does not change.' using errcode = 'restrict_violation';
        end if;
        return new;
      end
    $$;
  `);
}
