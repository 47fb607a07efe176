import type { Knex } from 'knex';

/**
 * Forms: questions made once and answered as often as wanted. An answer is an entry of its student, a note. Feedback among classmates
 * is answered by such a form too, and becomes notes of the one who presented. And stacks of work samples that several people rate.
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
      -- At which seat; null at one's own desk.
      seat_id uuid references presentation_seats,
      said_at timestamptz not null
    );
    create index feedback_said_of on feedback_said (answer_id, seq);

    -- A stack of work samples, one of each student, that several people rate; each of them has one link.
    create table stacks (
      id uuid primary key,
      school_id uuid not null references schools,
      title text not null check (length(title) between 1 and 80),
      each_rated_by int not null check (each_rated_by between 1 and 6),
      made_by uuid not null references people,
      made_at timestamptz not null,
      closed_at timestamptz
    );
    create index stacks_of on stacks (made_by);
    create table stack_raters (
      id uuid primary key,
      stack_id uuid not null references stacks,
      person_id uuid references people,
      student_id uuid references students,
      token_hash bytea not null unique,
      unique (stack_id, person_id),
      unique (stack_id, student_id),
      unique (id, stack_id),
      check (num_nonnulls(person_id, student_id) = 1)
    );
    alter table work_samples
      add column stack_id uuid references stacks,
      add column work_text text check (length(work_text) between 1 and 20000);
    create index work_samples_stack on work_samples (stack_id) where stack_id is not null;
    -- The work itself, where it is no text: a photograph or a PDF, for those who rate it.
    create table work_sample_files (
      work_sample_id uuid primary key references work_samples,
      type text not null check (type in ('image/jpeg', 'application/pdf')),
      bytes int not null check (bytes > 0),
      content bytea not null,
      added_by uuid not null references people,
      added_at timestamptz not null
    );
    create table stack_turns (
      rater_id uuid not null,
      stack_id uuid not null,
      work_sample_id uuid not null references work_samples,
      primary key (rater_id, work_sample_id),
      foreign key (rater_id, stack_id) references stack_raters (id, stack_id)
    );
    create index stack_turns_sample on stack_turns (work_sample_id);
    alter table work_sample_ratings add column stack_rater_id uuid references stack_raters;
    alter table work_sample_ratings drop constraint work_sample_ratings_check;
    alter table work_sample_ratings
      add constraint work_sample_ratings_by check (num_nonnulls(person_id, rating_link_id, card_id, stack_rater_id) = 1);
    create unique index work_sample_ratings_stack on work_sample_ratings (work_sample_id, stack_rater_id) where stack_rater_id is not null;
    -- What a rating said before each change.
    create table rating_revisions (
      rating_id uuid not null references work_sample_ratings,
      seq bigint generated always as identity,
      points jsonb not null,
      words text not null,
      rated_at timestamptz not null,
      primary key (rating_id, seq)
    );
    create function keep_rating() returns trigger language plpgsql as $$
      begin
        if (old.points, old.words) is distinct from (new.points, new.words) then
          insert into rating_revisions (rating_id, points, words, rated_at) values (old.id, old.points, old.words, old.rated_at);
        end if;
        return new;
      end
    $$;
    create trigger ratings_kept before update on work_sample_ratings for each row execute function keep_rating();
  `);
}
