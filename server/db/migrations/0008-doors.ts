import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- What was changed of who may do what: written down with before and after, and never changed again.
    create table changes (
      id bigint generated always as identity primary key,
      student_id uuid references students,
      what text not null check (what <> ''),
      before jsonb,
      after jsonb,
      changed_by uuid references people,
      changed_at timestamptz not null
    );
    create index changes_student on changes (student_id, id desc);
    create trigger changes_stay before delete or update on changes for each row execute function refuse_removal();

    -- Counters of tries, shared by all processes; the shape is that of rate-limiter-flexible.
    create table rate_limits (
      key varchar(255) primary key,
      points int not null default 0,
      expire bigint
    );
    create index rate_limits_expire on rate_limits (expire);
    -- When each process beside the pages was last at work.
    create table heartbeats (
      process text primary key check (process <> ''),
      at timestamptz not null
    );

    -- The address of an account is proven by a message that was answered from it.
    alter table people add column email_proven_at timestamptz;
    update people set email_proven_at = now();
    -- Browsers in which somebody has signed in before.
    create table known_devices (
      token_hash bytea not null check (octet_length(token_hash) = 32),
      person_id uuid not null references people,
      seen_at timestamptz not null,
      primary key (token_hash, person_id)
    );
    create index known_devices_person on known_devices (person_id);
    alter table sessions add column is_shared boolean not null default false;
    alter table school
      add column idle_minutes int not null default 720 check (idle_minutes between 5 and 1440),
      add column shared_idle_minutes int not null default 60 check (shared_idle_minutes between 5 and 1440);
    -- Opens the set-up of an empty installation; the start command prints it.
    create table set_up_codes (
      only_one boolean primary key default true check (only_one),
      code_hash bytea not null,
      made_at timestamptz not null
    );

    alter table invitations add column declined_at timestamptz;
    -- A link that was read out to the inviter proves nothing of the address.
    alter table invitation_tokens add column is_read_out boolean not null default false;

    -- Reporting periods keep what was written for them when their end is moved.
    alter table reporting_periods add column id uuid not null default gen_random_uuid(), add column removed_at timestamptz;
    alter table reporting_periods drop constraint reporting_periods_pkey, add primary key (id);
    create unique index reporting_periods_end on reporting_periods (plan_id, ends_on) where removed_at is null;
    insert into reporting_periods (plan_id, label, ends_on, removed_at)
      select p.id, 'Removed', d.period_to, now() from report_drafts d join plans p on p.student_id = d.student_id
       where not exists (select from reporting_periods r where r.plan_id = p.id and r.ends_on = d.period_to);
    alter table report_drafts add column period_id uuid references reporting_periods;
    update report_drafts d set period_id = r.id
      from plans p join reporting_periods r on r.plan_id = p.id
     where p.student_id = d.student_id and r.ends_on = d.period_to;
    delete from report_drafts where period_id is null;
    alter table report_drafts drop constraint report_drafts_pkey, add primary key (period_id), drop column period_to;
    alter table issued_reports disable trigger issued_reports_stay, add column period_id uuid references reporting_periods;
    update issued_reports i set period_id = r.id
      from plans p join reporting_periods r on r.plan_id = p.id
     where p.student_id = i.student_id and r.ends_on = i.period_to;
    alter table issued_reports enable trigger issued_reports_stay;

    -- What is made in the background has attempts, what went wrong, and an end. The file is put together when it is fetched.
    alter table batches drop column file,
      add column attempts int not null default 0,
      add column not_before timestamptz not null default '-infinity',
      drop constraint batches_state_check,
      add check (state in ('waiting', 'making', 'ready', 'failed', 'over'));
    alter table batch_parts add column left_out text check (left_out <> '');
    create index batches_open on batches (not_before) where state in ('waiting', 'making');
    alter table messages drop constraint messages_state_check,
      add check (state in ('waiting', 'held', 'sending', 'sent', 'bounced', 'uncertain', 'stopped', 'failed'));
    create index messages_digests on messages (link_id, person_id, student_id, seq desc) where kind = 'digest';

    -- Whoever waits for work hears of it.
    create function tell_worker() returns trigger language plpgsql as $$
      begin
        perform pg_notify('work', tg_table_name);
        return null;
      end
    $$;
    create trigger messages_wake after insert or update of state, not_before on messages
      for each statement execute function tell_worker();
    create trigger entry_events_wake after insert on entry_events for each statement execute function tell_worker();
    create trigger batches_wake after insert on batches for each statement execute function tell_worker();

    -- An answer of the team to what one reader said is for that reader, and the team.
    alter table comments add column answers uuid references comments check (answers <> id);
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table comments drop column answers;
    drop trigger messages_wake on messages;
    drop trigger entry_events_wake on entry_events;
    drop trigger batches_wake on batches;
    drop function tell_worker;
    drop index messages_digests;
    update messages set state = 'stopped' where state = 'failed';
    alter table messages drop constraint messages_state_check,
      add check (state in ('waiting', 'held', 'sending', 'sent', 'bounced', 'uncertain', 'stopped'));
    alter table batch_parts drop column left_out;
    update batches set state = 'failed', problem = 'To be made anew.' where state in ('ready', 'over');
    drop index batches_open;
    alter table batches drop column attempts, drop column not_before, add column file bytea,
      drop constraint batches_state_check,
      add check (state in ('waiting', 'making', 'ready', 'failed')),
      add check ((state = 'ready') = (file is not null));
    alter table issued_reports drop column period_id;
    alter table report_drafts add column period_to date;
    update report_drafts d set period_to = r.ends_on from reporting_periods r where r.id = d.period_id;
    alter table report_drafts drop constraint report_drafts_pkey, drop column period_id, alter column period_to set not null,
      add primary key (student_id, period_to);
    delete from reporting_periods where removed_at is not null;
    drop index reporting_periods_end;
    alter table reporting_periods drop column id, drop column removed_at, add primary key (plan_id, ends_on);
    alter table invitation_tokens drop column is_read_out;
    alter table invitations drop column declined_at;
    drop table set_up_codes, known_devices, heartbeats, rate_limits, changes;
    alter table school drop column idle_minutes, drop column shared_idle_minutes;
    alter table sessions drop column is_shared;
    alter table people drop column email_proven_at;
  `);
}
