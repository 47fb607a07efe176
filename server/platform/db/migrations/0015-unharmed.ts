import type { Knex } from 'knex';

/** Tells the worker only of rows that there are, and that it has something to do with: a statement that changed nothing wakes nobody. */
const quietTriggers = `
  create or replace function tell_worker_of_added() returns trigger language plpgsql as $$
    begin
      if exists (select from added) then perform pg_notify('work', tg_table_name); end if;
      return null;
    end
  $$;
  ${['messages', 'entry_events', 'document_batches', 'rule_looks', 'rule_firings', 'destructions']
    .map(
      (table) => `
  drop trigger ${table}_wake on ${table};
  create trigger ${table}_wake after insert on ${table} referencing new table as added
    for each statement execute function tell_worker_of_added();`,
    )
    .join('')}
  create trigger messages_changed_wake after update of state, not_before on messages for each row
    when (new.state in ('waiting', 'held') and (new.state, new.not_before) is distinct from (old.state, old.not_before))
    execute function tell_worker();
  create trigger destructions_changed_wake after update of confirmed_at on destructions for each row
    when (new.confirmed_at is distinct from old.confirmed_at) execute function tell_worker();
`;

/** Shared devices, and what a PIN opens. */
const devices = `
  alter table school_staff add column opens_devices boolean not null default false;
  alter table people
    -- Of how many digits it is; null where it was chosen before that was written down.
    add column pin_digits smallint check (pin_digits between 4 and 8),
    -- Wrong tries since the last right one, on all devices together.
    add column pin_tries int not null default 0 check (pin_tries >= 0),
    add column pin_tried_at timestamptz,
    add column pin_locked_at timestamptz;
  alter table sign_in_sessions
    -- Where it was begun with a PIN: the device.
    add column device_id uuid references opened_devices;
  alter table half_sign_ins add column device_id uuid references opened_devices;
  -- Who has typed the code of their authenticator at a device: asked for again the next day.
  create table device_factors (
    device_id uuid not null references opened_devices,
    person_id uuid not null references people,
    proven_on date not null,
    primary key (device_id, person_id)
  );
  create index device_factors_person on device_factors (person_id);
`;

/** What the heart of a process has to say; and whom a stream of changes stands open for no longer. */
const told = `
  alter table heartbeats add column problem text;
  create function tell_access() returns trigger language plpgsql as $$
    begin
      perform pg_notify('live', json_build_object('personId', old.person_id, 'what', 'access')::text);
      return null;
    end
  $$;
  create trigger sessions_end after delete on sign_in_sessions for each row execute function tell_access();
  create trigger sessions_locked after update of locked_at on sign_in_sessions for each row
    when (new.locked_at is not null and old.locked_at is null) execute function tell_access();
  create trigger members_leave after delete or update of until_date, role, rights on team_members
    for each row execute function tell_access();
`;

/** Who came in with a roster that was undone, before anything was recorded of them: on no list, and nobody's namesake. */
const undone = `alter table students add column undone_at timestamptz;`;

/** Work samples of a set by number, which stands on paper too; in no order of whose they are. */
const numbered = `
  alter table work_samples add column number int check (number > 0);
  update work_samples w set number = n.number
    from (select id, row_number() over (partition by stack_id order by id) as number from work_samples where stack_id is not null) n
   where n.id = w.id;
  alter table work_samples add check ((number is null) = (stack_id is null)), add unique (stack_id, number);
`;

/**
 * A goal of which nothing was recorded may go (`delete_unused_goal`), with what hangs on it: the roles of the application may delete none of
 * these rows themselves.
 */
const unusedGoals = `
  create or replace function refuse_removal() returns trigger language plpgsql as $$
    begin
      if tg_level = 'ROW' and destroys() then
        if tg_op = 'DELETE' then return old; end if;
        return new;
      end if;
      if tg_level = 'ROW' and tg_op = 'DELETE' and tg_table_name in ('goals', 'goal_measures', 'goal_revisions')
         and current_setting('app.deletes_goal', true) = coalesce(to_jsonb(old) ->> 'goal_id', to_jsonb(old) ->> 'id') then
        return old;
      end if;
      raise exception 'What was recorded is not removed (%).', tg_table_name using errcode = 'restrict_violation';
    end
  $$;
`;

/** A message for which there is no mail server was not sent. */
const notSetUp = `
  alter table messages drop constraint messages_state_check, add constraint messages_state_check
    check (state in ('waiting', 'held', 'sending', 'sent', 'bounced', 'uncertain', 'stopped', 'failed', 'notSetUp'));
`;

export async function up(db: Knex): Promise<void> {
  await db.raw(quietTriggers);
  await db.raw(devices);
  await db.raw(told);
  await db.raw(undone);
  await db.raw(numbered);
  await db.raw(unusedGoals);
  await db.raw(notSetUp);
}
