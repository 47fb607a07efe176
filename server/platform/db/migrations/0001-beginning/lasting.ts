/** What was recorded is never removed, and what was written down is never changed: the database refuses. */

/** Rows of these stay; their content changes as it is meant to. */
const stay = [
  ...['entries', 'goals', 'goal_measures', 'behavior_targets', 'behavior_options', 'evidence', 'comments', 'messages'],
  ...['work_sample_ratings', 'students', 'plans', 'share_links', 'people', 'schools'],
];
/** Rows of these stay as they are. */
const neverChange = [
  ...['entry_revisions', 'incident_choices', 'goal_revisions', 'behavior_revisions', 'kept_names'],
  ...['access_log', 'changes', 'issued_reports', 'issued_report_entries', 'message_entries'],
];

const trigger = (table: string, when: string) => `
  create trigger ${table}_stay before ${when} on ${table} for each row execute function refuse_removal();
  create trigger ${table}_stay_all before truncate on ${table} for each statement execute function refuse_removal();`;

export const lasting = `
  create function refuse_removal() returns trigger language plpgsql as $$
    begin
      raise exception 'What was recorded is not removed (%).', tg_table_name using errcode = 'restrict_violation';
    end
  $$;
  ${stay.map((table) => trigger(table, 'delete')).join('')}
  ${neverChange.map((table) => trigger(table, 'delete or update')).join('')}
`;
