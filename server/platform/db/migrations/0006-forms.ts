import type { Knex } from 'knex';

/**
 * Forms: questions made once and answered as often as wanted. An answer is an entry of its student, a note. Feedback among classmates
 * is answered by such a form too, and becomes notes of the one who presented.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table forms (
      id uuid primary key,
      school_id uuid not null references schools,
      side text not null check (side in ('staff', 'self', 'classmates')),
      made_by uuid not null references people,
      made_at timestamptz not null,
      closed_at timestamptz
    );
    create index forms_of on forms (school_id);
    create table form_versions (
      form_id uuid not null references forms,
      version int not null check (version > 0),
      title text not null check (length(title) between 1 and 80),
      hint text not null default '' check (length(hint) <= 200),
      questions jsonb not null check (jsonb_typeof(questions) = 'array'),
      made_by uuid not null references people,
      made_at timestamptz not null,
      primary key (form_id, version)
    );
    -- Which forms stand on a student's desk.
    create table student_forms (
      student_id uuid not null references students,
      form_id uuid not null references forms,
      given_by uuid not null references people,
      given_at timestamptz not null,
      taken_at timestamptz,
      primary key (student_id, form_id)
    );
    create index student_forms_of on student_forms (form_id);
    -- Forms that are filled in for each student of a round.
    create table round_forms (
      round_id uuid not null references rounds,
      form_id uuid not null references forms,
      position int not null,
      primary key (round_id, form_id)
    );

    alter table entries drop constraint entries_kind_check;
    alter table entries
      add constraint entries_kind_check check (kind in ('goal', 'incident', 'count', 'note')),
      -- Of a note: the form in the version under which it was answered, and, of feedback, the classmate who gave it.
      add column form_id uuid,
      add column form_version int,
      add column answers jsonb check (jsonb_typeof(answers) = 'object'),
      add column giver_id uuid references students check (giver_id <> student_id),
      add foreign key (form_id, form_version) references form_versions (form_id, version),
      add constraint entries_note check (case when kind = 'note'
        then num_nonnulls(form_id, form_version, answers) = 3 and num_nonnulls(seconds, beside_id) = 0
        else num_nonnulls(form_id, form_version, answers, giver_id) = 0 end);
    create index entries_notes on entries (form_id, student_id) where kind = 'note' and not withdrawn;

    -- Who works with a student sees what is answered by forms; to others it is shown when somebody says so.
    update visibility_rules set fields = array_append(fields, 'forms') where kind = 'team';

    create or replace function keep_revision() returns trigger language plpgsql as $$
      begin
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

    -- Several present, one after the other; their classmates answer a form for each, until it is closed.
    create table presentations (
      id uuid primary key,
      school_id uuid not null references schools,
      form_id uuid not null,
      form_version int not null,
      title text not null check (length(title) between 1 and 80),
      -- Whether who presented is told who said what.
      shows_names boolean not null,
      -- Whether answers wait until the teacher has looked through them.
      looks_through boolean not null,
      token_hash bytea not null unique,
      made_by uuid not null references people,
      made_at timestamptz not null,
      closed_at timestamptz,
      foreign key (form_id, form_version) references form_versions (form_id, version)
    );
    create index presentations_of on presentations (made_by);
    -- Who gives; those with a place present, in that order.
    create table presentation_members (
      presentation_id uuid not null references presentations,
      student_id uuid not null references students,
      place int check (place > 0),
      primary key (presentation_id, student_id)
    );
    create index presentation_members_of on presentation_members (student_id);
    -- A device on which somebody answers, without a card.
    create table presentation_seats (
      id uuid primary key,
      presentation_id uuid not null,
      student_id uuid not null,
      token_hash bytea not null unique,
      began_at timestamptz not null,
      foreign key (presentation_id, student_id) references presentation_members (presentation_id, student_id)
    );
    create index presentation_seats_of on presentation_seats (presentation_id, student_id);
    -- What one classmate says to one presenter; its id is that of the note that it becomes.
    create table feedback_answers (
      id uuid primary key,
      presentation_id uuid not null,
      presenter_id uuid not null,
      giver_id uuid not null,
      held_by uuid references people,
      held_at timestamptz,
      unique (presentation_id, presenter_id, giver_id),
      check (presenter_id <> giver_id),
      check ((held_by is null) = (held_at is null)),
      foreign key (presentation_id, presenter_id) references presentation_members (presentation_id, student_id),
      foreign key (presentation_id, giver_id) references presentation_members (presentation_id, student_id)
    );
    create index feedback_answers_presenter on feedback_answers (presenter_id);
    create index feedback_answers_giver on feedback_answers (giver_id);
    -- What was said, each time; the last counts.
    create table feedback_said (
      id uuid primary key,
      seq bigint generated always as identity,
      answer_id uuid not null references feedback_answers,
      answers jsonb not null check (jsonb_typeof(answers) = 'object'),
      said_at timestamptz not null
    );
    create index feedback_said_of on feedback_said (answer_id, seq);
  `);
}
