import type { Knex } from 'knex';

/**
 * A device that several adults use, and one that locks itself: a PIN for each person, after how many minutes a school wants a device
 * locked, and the devices that were opened for its staff. And the short words that choices have in the discreet view.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table schools add column lock_minutes int check (lock_minutes between 1 and 60);
    alter table people add column pin_hash text;
    alter table sign_in_sessions add column locked_at timestamptz;

    create table opened_devices (
      id uuid primary key,
      school_id uuid not null references schools,
      -- Whose staff it offers; null for all of the school's.
      group_id uuid references class_groups,
      token_hash bytea not null unique,
      opened_by uuid not null references people,
      opened_at timestamptz not null,
      closed_at timestamptz
    );
    create index opened_devices_school on opened_devices (school_id) where closed_at is null;

    alter table behavior_targets add column discreet_word text not null default '';
    alter table behavior_options add column discreet_word text not null default '';
    create or replace view behavior_choices with (security_invoker) as
      select id, school_id, student_id, 'behavior' as kind, name, definition as words, not_counted as unlike, direction,
             by_abc as abc, by_count as counted, by_time as timed, position, state, merged_into, null::uuid as location_id,
             discreet_word
        from behavior_targets
      union all
      select id, school_id, student_id, facet, label, description, '', 'decrease',
             true, false, false, position, state, merged_into, location_id, discreet_word
        from behavior_options;
  `);
}
