SET statement_timeout = 0;
SET lock_timeout = 0;
SET idle_in_transaction_session_timeout = 0;
SET client_encoding = 'UTF8';
SET standard_conforming_strings = on;
SET check_function_bodies = false;
SET xmloption = content;
SET client_min_messages = warning;
SET row_security = off;

CREATE FUNCTION public.ask_rules() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        if current_setting('app.carries_in', true) = 'yes' then return null; end if;
        if has_rules(new.student_id) then
          if tg_table_name = 'entries' then insert into rule_looks (student_id, entry_id) values (new.student_id, new.id);
          else insert into rule_looks (student_id, state_id) values (new.student_id, new.id);
          end if;
        end if;
        return null;
      end
    $$;

CREATE FUNCTION public.destroys() RETURNS boolean
    LANGUAGE sql STABLE
    AS $$
      select current_setting('app.destroys', true) = 'yes' and current_setting('role') = 'none'
    $$;

CREATE FUNCTION public.expect_behavior() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      if not exists (select from incident_choices where entry_id = new.id and version = new.version and facet = 'behavior') then
        raise exception 'An incident names a behavior.' using errcode = 'check_violation', constraint = 'incidents_name_a_behavior';
      end if;
      return null;
    end
  $$;

CREATE FUNCTION public.expect_periods_in_plan() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      if exists (select from reporting_periods r join plans p on p.id = r.plan_id
                  where r.removed_at is null and r.ends_on not between p.starts_on and p.ends_on
                    and (case tg_table_name when 'plans' then p.id = new.id else r.id = new.id end)) then
        raise exception 'A reporting period ends within its plan.'
          using errcode = 'check_violation', constraint = 'reporting_periods_in_plan';
      end if;
      return null;
    end
  $$;

CREATE FUNCTION public.has_rules(student uuid) RETURNS boolean
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
      select exists (select from rules r join students s on s.school_id = r.school_id where s.id = student and r.switched_off_at is null)
    $$;

CREATE FUNCTION public.keep_rating() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        if (old.points, old.words) is distinct from (new.points, new.words) then
          insert into rating_revisions (rating_id, points, words, rated_at) values (old.id, old.points, old.words, old.rated_at);
        end if;
        return new;
      end
    $$;

CREATE FUNCTION public.keep_revision() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
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

CREATE FUNCTION public.note_entry_event() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        if current_setting('app.carries_in', true) = 'yes' then return null; end if;
        if exists (select from share_links where student_id = new.student_id and frequency <> 'byHand')
           or exists (select from team_members where student_id = new.student_id and frequency <> 'byHand') then
          insert into entry_events (student_id, entry_id, made_at) values (new.student_id, new.id, new.recorded_at);
        end if;
        return null;
      end
    $$;

CREATE FUNCTION public.refuse_removal() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
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

CREATE FUNCTION public.tell_access() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      perform pg_notify('live', json_build_object('personId', old.person_id, 'what', 'access')::text);
      return null;
    end
  $$;

CREATE FUNCTION public.tell_live_of_entries() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        perform pg_notify('live', json_build_object('studentId', student_id, 'what', 'entries', 'by', by)::text)
           from (select distinct student_id, case when self_recorded then null else recorded_by end as by from added) as told;
        return null;
      end
    $$;

CREATE FUNCTION public.tell_worker() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      perform pg_notify('work', tg_table_name);
      return null;
    end
  $$;

CREATE FUNCTION public.tell_worker_of_added() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      if exists (select from added) then perform pg_notify('work', tg_table_name); end if;
      return null;
    end
  $$;

SET default_tablespace = '';

SET default_table_access_method = heap;

CREATE TABLE public.absences (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    day date NOT NULL,
    part text,
    recorded_by uuid NOT NULL,
    recorded_at timestamp with time zone NOT NULL,
    withdrawn_by uuid,
    withdrawn_at timestamp with time zone,
    CONSTRAINT absences_check CHECK (((withdrawn_by IS NULL) = (withdrawn_at IS NULL))),
    CONSTRAINT absences_part_check CHECK ((part <> ''::text))
);

CREATE TABLE public.access_log (
    id bigint NOT NULL,
    student_id uuid NOT NULL,
    person_id uuid,
    link_id uuid,
    what text NOT NULL,
    how text NOT NULL,
    at timestamp with time zone NOT NULL,
    day date NOT NULL,
    CONSTRAINT access_log_check CHECK (((person_id IS NULL) <> (link_id IS NULL))),
    CONSTRAINT access_log_how_check CHECK ((how = ANY (ARRAY['opened'::text, 'exported'::text, 'sent'::text, 'issued'::text, 'kept'::text]))),
    CONSTRAINT access_log_what_check CHECK ((what <> ''::text))
);

ALTER TABLE public.access_log ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.access_log_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.account_link_tokens (
    token_hash bytea NOT NULL,
    link_id uuid NOT NULL,
    is_read_out boolean DEFAULT false NOT NULL
);

CREATE TABLE public.account_links (
    id uuid NOT NULL,
    kind text NOT NULL,
    school_id uuid NOT NULL,
    person_id uuid,
    name text NOT NULL,
    email text NOT NULL,
    is_admin boolean DEFAULT false NOT NULL,
    made_by uuid,
    made_at timestamp with time zone NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    used_at timestamp with time zone,
    withdrawn_at timestamp with time zone,
    CONSTRAINT account_links_check CHECK ((ends_at > made_at)),
    CONSTRAINT account_links_check1 CHECK (((kind = 'join'::text) OR (person_id IS NOT NULL))),
    CONSTRAINT account_links_check2 CHECK (((kind <> 'join'::text) OR ((person_id IS NULL) = (used_at IS NULL)))),
    CONSTRAINT account_links_check3 CHECK (((kind = 'join'::text) OR (NOT is_admin))),
    CONSTRAINT account_links_check4 CHECK (((used_at IS NULL) OR (withdrawn_at IS NULL))),
    CONSTRAINT account_links_email_check CHECK ((email ~~ '%_@_%'::text)),
    CONSTRAINT account_links_kind_check CHECK ((kind = ANY (ARRAY['join'::text, 'password'::text, 'email'::text]))),
    CONSTRAINT account_links_name_check CHECK (((length(name) >= 1) AND (length(name) <= 120)))
);

CREATE TABLE public.awaited_members (
    school_id uuid NOT NULL,
    student_id uuid NOT NULL,
    email text NOT NULL,
    role text NOT NULL,
    import_id uuid,
    instead_of uuid,
    CONSTRAINT awaited_members_email_check CHECK ((email ~~ '%_@_%'::text)),
    CONSTRAINT awaited_members_role_check CHECK ((role = ANY (ARRAY['caseManager'::text, 'educator'::text])))
);

CREATE TABLE public.behavior_options (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    student_id uuid,
    facet text NOT NULL,
    label text NOT NULL,
    description text DEFAULT ''::text NOT NULL,
    "position" integer NOT NULL,
    state text DEFAULT 'offered'::text NOT NULL,
    merged_into uuid,
    location_id uuid,
    discreet_word text DEFAULT ''::text NOT NULL,
    CONSTRAINT behavior_options_check CHECK ((merged_into <> id)),
    CONSTRAINT behavior_options_check1 CHECK (((location_id IS NULL) OR (facet = 'location'::text))),
    CONSTRAINT behavior_options_facet_check CHECK ((facet = ANY (ARRAY['antecedent'::text, 'consequence'::text, 'location'::text, 'intensity'::text, 'function'::text]))),
    CONSTRAINT behavior_options_label_check CHECK (((label <> ''::text) AND (label = btrim(label)))),
    CONSTRAINT behavior_options_state_check CHECK ((state = ANY (ARRAY['offered'::text, 'other'::text, 'retired'::text])))
);

CREATE TABLE public.behavior_targets (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    student_id uuid,
    name text NOT NULL,
    definition text DEFAULT ''::text NOT NULL,
    not_counted text DEFAULT ''::text NOT NULL,
    direction text DEFAULT 'decrease'::text NOT NULL,
    by_abc boolean DEFAULT true NOT NULL,
    by_count boolean DEFAULT false NOT NULL,
    by_time boolean DEFAULT false NOT NULL,
    "position" integer NOT NULL,
    state text DEFAULT 'offered'::text NOT NULL,
    merged_into uuid,
    discreet_word text DEFAULT ''::text NOT NULL,
    CONSTRAINT behavior_targets_check CHECK ((merged_into <> id)),
    CONSTRAINT behavior_targets_direction_check CHECK ((direction = ANY (ARRAY['decrease'::text, 'increase'::text]))),
    CONSTRAINT behavior_targets_name_check CHECK (((name <> ''::text) AND (name = btrim(name)))),
    CONSTRAINT behavior_targets_state_check CHECK ((state = ANY (ARRAY['offered'::text, 'other'::text, 'retired'::text])))
);

CREATE VIEW public.behavior_choices WITH (security_invoker='true') AS
 SELECT behavior_targets.id,
    behavior_targets.school_id,
    behavior_targets.student_id,
    'behavior'::text AS kind,
    behavior_targets.name,
    behavior_targets.definition AS words,
    behavior_targets.not_counted AS unlike,
    behavior_targets.direction,
    behavior_targets.by_abc AS abc,
    behavior_targets.by_count AS counted,
    behavior_targets.by_time AS timed,
    behavior_targets."position",
    behavior_targets.state,
    behavior_targets.merged_into,
    NULL::uuid AS location_id,
    behavior_targets.discreet_word
   FROM public.behavior_targets
UNION ALL
 SELECT behavior_options.id,
    behavior_options.school_id,
    behavior_options.student_id,
    behavior_options.facet AS kind,
    behavior_options.label AS name,
    behavior_options.description AS words,
    ''::text AS unlike,
    'decrease'::text AS direction,
    true AS abc,
    false AS counted,
    false AS timed,
    behavior_options."position",
    behavior_options.state,
    behavior_options.merged_into,
    behavior_options.location_id,
    behavior_options.discreet_word
   FROM public.behavior_options;

CREATE TABLE public.behavior_fields (
    student_id uuid NOT NULL,
    left_out text[] NOT NULL,
    CONSTRAINT behavior_fields_left_out_check CHECK ((left_out <@ ARRAY['location'::text, 'intensity'::text, 'function'::text, 'duration'::text, 'resolved'::text]))
);

CREATE TABLE public.behavior_phases (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    target_id uuid,
    label text NOT NULL,
    starts_on date NOT NULL,
    made_by uuid NOT NULL,
    removed_at timestamp with time zone,
    CONSTRAINT behavior_phases_label_check CHECK ((label <> ''::text))
);

CREATE TABLE public.behavior_revisions (
    id bigint NOT NULL,
    target_id uuid,
    option_id uuid,
    "row" jsonb NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT behavior_revisions_check CHECK ((num_nonnulls(target_id, option_id) = 1)),
    CONSTRAINT behavior_revisions_row_check CHECK ((jsonb_typeof("row") = 'object'::text))
);

ALTER TABLE public.behavior_revisions ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.behavior_revisions_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.calendar_addresses (
    person_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    has_names boolean DEFAULT false NOT NULL,
    made_at timestamp with time zone NOT NULL
);

CREATE TABLE public.cards (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    code_hash bytea NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone
);

CREATE TABLE public.changes (
    id bigint NOT NULL,
    school_id uuid,
    student_id uuid,
    person_id uuid,
    what text NOT NULL,
    before jsonb,
    after jsonb,
    changed_by uuid,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT changes_what_check CHECK ((what <> ''::text))
);

ALTER TABLE public.changes ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.changes_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.class_groups (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    name text NOT NULL,
    "position" integer NOT NULL,
    sourced_id text,
    CONSTRAINT class_groups_name_check CHECK ((name <> ''::text)),
    CONSTRAINT class_groups_sourced_id_check CHECK (((length(sourced_id) >= 1) AND (length(sourced_id) <= 200)))
);

CREATE TABLE public.closures (
    school_id uuid NOT NULL,
    first_day date NOT NULL,
    last_day date NOT NULL,
    label text NOT NULL,
    CONSTRAINT closures_check CHECK ((last_day >= first_day)),
    CONSTRAINT closures_label_check CHECK ((label <> ''::text))
);

CREATE TABLE public.comments (
    id uuid NOT NULL,
    seq bigint NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid,
    kind text NOT NULL,
    person_id uuid,
    link_id uuid,
    answers uuid,
    said_on date NOT NULL,
    said_time time without time zone NOT NULL,
    text text NOT NULL,
    said_at timestamp with time zone NOT NULL,
    hidden_by uuid,
    hidden_at timestamp with time zone,
    hidden_reason text,
    report_id uuid,
    outcome text,
    CONSTRAINT comments_check CHECK ((answers <> id)),
    CONSTRAINT comments_check1 CHECK (((person_id IS NULL) <> (link_id IS NULL))),
    CONSTRAINT comments_check3 CHECK ((((hidden_by IS NULL) = (hidden_at IS NULL)) AND ((hidden_by IS NULL) = (hidden_reason IS NULL)))),
    CONSTRAINT comments_decided CHECK (((kind = 'decision'::text) = (outcome IS NOT NULL))),
    CONSTRAINT comments_hidden_reason_check CHECK ((hidden_reason <> ''::text)),
    CONSTRAINT comments_in_sight CHECK (((hidden_at IS NULL) OR (kind = ANY (ARRAY['comment'::text, 'reflection'::text])))),
    CONSTRAINT comments_kind_check CHECK ((kind = ANY (ARRAY['comment'::text, 'reflection'::text, 'statement'::text, 'amendment'::text, 'decision'::text]))),
    CONSTRAINT comments_of_report CHECK (((report_id IS NULL) OR (kind = ANY (ARRAY['statement'::text, 'amendment'::text, 'decision'::text])))),
    CONSTRAINT comments_of_something CHECK (((num_nonnulls(entry_id, report_id) = 1) OR ((kind = 'reflection'::text) AND (entry_id IS NULL) AND (report_id IS NULL)))),
    CONSTRAINT comments_outcome_check CHECK ((outcome = ANY (ARRAY['amended'::text, 'refused'::text]))),
    CONSTRAINT comments_text_check CHECK (((char_length(text) >= 1) AND (char_length(text) <= 2000)))
);

ALTER TABLE public.comments ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.comments_seq_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.desk_goals (
    goal_id uuid NOT NULL,
    student_id uuid NOT NULL,
    shows text NOT NULL,
    plain text DEFAULT ''::text NOT NULL,
    self_counts boolean DEFAULT true NOT NULL,
    CONSTRAINT desk_goals_plain_check CHECK ((length(plain) <= 80)),
    CONSTRAINT desk_goals_shows_check CHECK ((shows = ANY (ARRAY['nothing'::text, 'progress'::text, 'log'::text])))
);

CREATE TABLE public.desk_sessions (
    id uuid NOT NULL,
    card_id uuid NOT NULL,
    student_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    began_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone
);

CREATE TABLE public.desk_turn_students (
    turn_id uuid NOT NULL,
    student_id uuid NOT NULL
);

CREATE TABLE public.desk_turns (
    id uuid NOT NULL,
    token_hash bytea NOT NULL,
    opened_by uuid NOT NULL,
    opened_at timestamp with time zone NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    CONSTRAINT desk_turns_check CHECK ((ends_at > opened_at))
);

CREATE TABLE public.destructions (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    student_id uuid NOT NULL,
    reason text NOT NULL,
    told_on date NOT NULL,
    told_how text NOT NULL,
    asked_by uuid,
    asked_by_name text NOT NULL,
    asked_at timestamp with time zone NOT NULL,
    confirmed_by uuid,
    confirmed_by_name text,
    confirmed_at timestamp with time zone,
    taken_back_by uuid,
    taken_back_at timestamp with time zone,
    done_at timestamp with time zone,
    kept_name text,
    kept_grade text,
    kept_years text,
    rows jsonb,
    CONSTRAINT destructions_check CHECK ((confirmed_by <> asked_by)),
    CONSTRAINT destructions_check1 CHECK (((confirmed_by_name IS NULL) = (confirmed_at IS NULL))),
    CONSTRAINT destructions_check2 CHECK (((taken_back_by IS NULL) = (taken_back_at IS NULL))),
    CONSTRAINT destructions_check3 CHECK ((num_nonnulls(done_at, taken_back_at) < 2)),
    CONSTRAINT destructions_check4 CHECK (((done_at IS NULL) = (kept_name IS NULL))),
    CONSTRAINT destructions_reason_check CHECK (((length(reason) >= 3) AND (length(reason) <= 400))),
    CONSTRAINT destructions_told_how_check CHECK (((length(told_how) >= 3) AND (length(told_how) <= 200)))
);

CREATE TABLE public.device_factors (
    device_id uuid NOT NULL,
    person_id uuid NOT NULL,
    proven_on date NOT NULL
);

CREATE TABLE public.district_accounts (
    issuer text NOT NULL,
    subject text NOT NULL,
    person_id uuid NOT NULL,
    since timestamp with time zone NOT NULL,
    CONSTRAINT district_accounts_issuer_check CHECK (((length(issuer) >= 1) AND (length(issuer) <= 500))),
    CONSTRAINT district_accounts_subject_check CHECK (((length(subject) >= 1) AND (length(subject) <= 255)))
);

CREATE TABLE public.document_batch_parts (
    batch_id uuid NOT NULL,
    student_id uuid NOT NULL,
    "position" integer NOT NULL,
    pages integer,
    pdf bytea,
    left_out text,
    document jsonb,
    CONSTRAINT document_batch_parts_document_check CHECK ((jsonb_typeof(document) = 'object'::text)),
    CONSTRAINT document_batch_parts_left_out_check CHECK ((left_out <> ''::text))
);

CREATE TABLE public.document_batches (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    label text NOT NULL,
    students text[] NOT NULL,
    what text NOT NULL,
    from_day date,
    to_day date,
    arrangement jsonb,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    problem text,
    attempts integer DEFAULT 0 NOT NULL,
    not_before timestamp with time zone DEFAULT '-infinity'::timestamp with time zone NOT NULL,
    is_short boolean DEFAULT false NOT NULL,
    areas text[],
    is_packed boolean DEFAULT false NOT NULL,
    goals uuid[],
    CONSTRAINT document_batches_areas_check CHECK ((cardinality(areas) > 0)),
    CONSTRAINT document_batches_arrangement_check CHECK ((jsonb_typeof(arrangement) = 'object'::text)),
    CONSTRAINT document_batches_goals_check CHECK ((cardinality(goals) > 0)),
    CONSTRAINT document_batches_label_check CHECK ((label <> ''::text)),
    CONSTRAINT document_batches_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'making'::text, 'ready'::text, 'failed'::text, 'over'::text]))),
    CONSTRAINT document_batches_what_check CHECK ((what = ANY (ARRAY['progress'::text, 'running'::text])))
);

CREATE TABLE public.entries (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    kind text NOT NULL,
    observed_on date NOT NULL,
    observed_time time without time zone NOT NULL,
    observer_id uuid NOT NULL,
    beside_id uuid,
    recorded_by uuid NOT NULL,
    recorded_at timestamp with time zone NOT NULL,
    self_recorded boolean DEFAULT false NOT NULL,
    location_id uuid,
    note text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    changed_by uuid,
    changed_at timestamp with time zone,
    change_reason text,
    withdrawn boolean DEFAULT false NOT NULL,
    goal_id uuid,
    measure_version integer,
    data jsonb,
    reason text,
    pairs_with uuid,
    paired_by uuid,
    paired_at timestamp with time zone,
    seconds double precision,
    is_going boolean DEFAULT false NOT NULL,
    resolved boolean,
    resolved_after double precision,
    target_id uuid,
    part text,
    minutes double precision,
    count integer,
    fidelity jsonb,
    form_id uuid,
    form_version integer,
    answers jsonb,
    giver_id uuid,
    CONSTRAINT entries_answers_check CHECK ((jsonb_typeof(answers) = 'object'::text)),
    CONSTRAINT entries_change_reason_check CHECK ((change_reason <> ''::text)),
    CONSTRAINT entries_check CHECK ((beside_id <> observer_id)),
    CONSTRAINT entries_check1 CHECK ((pairs_with <> id)),
    CONSTRAINT entries_check2 CHECK (((version = 1) = (changed_by IS NULL))),
    CONSTRAINT entries_check3 CHECK ((((changed_by IS NULL) = (changed_at IS NULL)) AND ((changed_by IS NULL) = (change_reason IS NULL)))),
    CONSTRAINT entries_check4 CHECK (((NOT withdrawn) OR (version > 1))),
    CONSTRAINT entries_check5 CHECK ((((pairs_with IS NULL) = (paired_by IS NULL)) AND ((pairs_with IS NULL) = (paired_at IS NULL)))),
    CONSTRAINT entries_check6 CHECK (((kind <> 'goal'::text) OR (seconds IS NULL))),
    CONSTRAINT entries_check7 CHECK ((giver_id <> student_id)),
    CONSTRAINT entries_count CHECK (
CASE
    WHEN (kind = 'count'::text) THEN ((target_id IS NOT NULL) AND (minutes IS NOT NULL) AND (count IS NOT NULL))
    ELSE (num_nonnulls(target_id, part, minutes, count) = 0)
END),
    CONSTRAINT entries_count_check CHECK ((count >= 0)),
    CONSTRAINT entries_data_check CHECK ((jsonb_typeof(data) = 'object'::text)),
    CONSTRAINT entries_fidelity CHECK (((kind = 'goal'::text) OR (fidelity IS NULL))),
    CONSTRAINT entries_fidelity_check CHECK (((jsonb_typeof(fidelity) = 'array'::text) AND (jsonb_array_length(fidelity) > 0))),
    CONSTRAINT entries_goal CHECK (
CASE
    WHEN (kind = 'goal'::text) THEN ((goal_id IS NOT NULL) AND (measure_version IS NOT NULL) AND ((data IS NULL) <> (reason IS NULL)) AND (beside_id IS NULL))
    ELSE (num_nonnulls(goal_id, measure_version, data, reason, pairs_with) = 0)
END),
    CONSTRAINT entries_incident CHECK (
CASE
    WHEN (kind = 'incident'::text) THEN ((NOT (is_going AND (seconds IS NOT NULL))) AND (seconds IS DISTINCT FROM (0)::double precision) AND ((resolved_after IS NULL) OR (resolved IS TRUE)))
    ELSE ((NOT is_going) AND (num_nonnulls(resolved, resolved_after) = 0))
END),
    CONSTRAINT entries_kind_check CHECK ((kind = ANY (ARRAY['goal'::text, 'incident'::text, 'count'::text, 'note'::text]))),
    CONSTRAINT entries_minutes_check CHECK ((minutes > (0)::double precision)),
    CONSTRAINT entries_note CHECK (
CASE
    WHEN (kind = 'note'::text) THEN ((num_nonnulls(form_id, form_version, answers) = 3) AND (num_nonnulls(seconds, beside_id) = 0))
    ELSE (num_nonnulls(form_id, form_version, answers, giver_id) = 0)
END),
    CONSTRAINT entries_note_check CHECK ((char_length(note) <= 4000)),
    CONSTRAINT entries_part_check CHECK ((part <> ''::text)),
    CONSTRAINT entries_reason_check CHECK ((reason = ANY (ARRAY['absent'::text, 'refused'::text, 'noOpportunity'::text]))),
    CONSTRAINT entries_resolved_after_check CHECK ((resolved_after > (0)::double precision)),
    CONSTRAINT entries_seconds_check CHECK ((seconds >= (0)::double precision)),
    CONSTRAINT entries_version_check CHECK ((version > 0))
);

CREATE TABLE public.entry_events (
    seq bigint NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    is_collected boolean DEFAULT false NOT NULL
);

ALTER TABLE public.entry_events ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.entry_events_seq_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.entry_revisions (
    entry_id uuid NOT NULL,
    version integer NOT NULL,
    student_id uuid NOT NULL,
    "row" jsonb NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    reason text NOT NULL,
    CONSTRAINT entry_revisions_reason_check CHECK ((reason <> ''::text)),
    CONSTRAINT entry_revisions_row_check CHECK ((jsonb_typeof("row") = 'object'::text)),
    CONSTRAINT entry_revisions_version_check CHECK ((version > 0))
);

CREATE TABLE public.evidence (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid NOT NULL,
    name text NOT NULL,
    type text NOT NULL,
    bytes integer NOT NULL,
    content bytea NOT NULL,
    thumbnail bytea,
    width integer,
    height integer,
    added_by uuid NOT NULL,
    added_at timestamp with time zone NOT NULL,
    withdrawn_by uuid,
    withdrawn_at timestamp with time zone,
    CONSTRAINT evidence_bytes_check CHECK ((bytes > 0)),
    CONSTRAINT evidence_check CHECK (((type = 'image/jpeg'::text) = (thumbnail IS NOT NULL))),
    CONSTRAINT evidence_check1 CHECK (((withdrawn_by IS NULL) = (withdrawn_at IS NULL))),
    CONSTRAINT evidence_name_check CHECK ((name <> ''::text)),
    CONSTRAINT evidence_type_check CHECK ((type = ANY (ARRAY['image/jpeg'::text, 'application/pdf'::text])))
);

CREATE TABLE public.feedback_answers (
    id uuid NOT NULL,
    presentation_id uuid NOT NULL,
    presenter_id uuid NOT NULL,
    giver_id uuid NOT NULL,
    held_by uuid,
    held_at timestamp with time zone,
    CONSTRAINT feedback_answers_check CHECK ((presenter_id <> giver_id)),
    CONSTRAINT feedback_answers_check1 CHECK (((held_by IS NULL) = (held_at IS NULL)))
);

CREATE TABLE public.feedback_said (
    id uuid NOT NULL,
    seq bigint NOT NULL,
    answer_id uuid NOT NULL,
    answers jsonb NOT NULL,
    seat_id uuid,
    said_at timestamp with time zone NOT NULL,
    CONSTRAINT feedback_said_answers_check CHECK ((jsonb_typeof(answers) = 'object'::text))
);

ALTER TABLE public.feedback_said ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.feedback_said_seq_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.follow_up_changes (
    follow_up_id uuid NOT NULL,
    version integer NOT NULL,
    student_id uuid NOT NULL,
    what text NOT NULL,
    word text DEFAULT ''::text NOT NULL,
    for_person uuid,
    due_on date,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT follow_up_changes_version_check CHECK ((version > 1)),
    CONSTRAINT follow_up_changes_what_check CHECK ((what = ANY (ARRAY['done'::text, 'handedOn'::text, 'putOff'::text, 'reopened'::text]))),
    CONSTRAINT follow_up_changes_word_check CHECK ((length(word) <= 500))
);

CREATE TABLE public.follow_ups (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid,
    firing_id uuid,
    what text NOT NULL,
    for_person uuid NOT NULL,
    due_on date NOT NULL,
    in_report boolean DEFAULT false NOT NULL,
    made_by uuid,
    made_at timestamp with time zone NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    done_at timestamp with time zone,
    comment_id uuid,
    CONSTRAINT follow_ups_made_by_check CHECK (((made_by IS NULL) = (num_nonnulls(firing_id, comment_id) = 1))),
    CONSTRAINT follow_ups_version_check CHECK ((version > 0)),
    CONSTRAINT follow_ups_what_check CHECK (((length(what) >= 1) AND (length(what) <= 200)))
);

CREATE TABLE public.form_versions (
    form_id uuid NOT NULL,
    version integer NOT NULL,
    title text NOT NULL,
    hint text DEFAULT ''::text NOT NULL,
    questions jsonb NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT form_versions_hint_check CHECK ((length(hint) <= 200)),
    CONSTRAINT form_versions_questions_check CHECK ((jsonb_typeof(questions) = 'array'::text)),
    CONSTRAINT form_versions_title_check CHECK (((length(title) >= 1) AND (length(title) <= 80))),
    CONSTRAINT form_versions_version_check CHECK ((version > 0))
);

CREATE TABLE public.forms (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    side text NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    closed_at timestamp with time zone,
    CONSTRAINT forms_side_check CHECK ((side = ANY (ARRAY['staff'::text, 'self'::text, 'classmates'::text])))
);

CREATE TABLE public.goal_bank (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    goal jsonb NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    removed_at timestamp with time zone,
    CONSTRAINT goal_bank_goal_check CHECK ((jsonb_typeof(goal) = 'object'::text))
);

CREATE TABLE public.goal_decisions (
    goal_id uuid NOT NULL,
    is_now text NOT NULL,
    seen_on date NOT NULL
);

CREATE TABLE public.goal_locations (
    goal_id uuid NOT NULL,
    location_id uuid NOT NULL
);

CREATE TABLE public.goal_measures (
    goal_id uuid NOT NULL,
    version integer NOT NULL,
    measure jsonb NOT NULL,
    from_date date NOT NULL,
    CONSTRAINT goal_measures_measure_check CHECK ((jsonb_typeof((measure -> 'kind'::text)) = 'string'::text)),
    CONSTRAINT goal_measures_version_check CHECK ((version > 0))
);

CREATE TABLE public.goal_observers (
    goal_id uuid NOT NULL,
    person_id uuid NOT NULL
);

CREATE TABLE public.goal_phases (
    goal_id uuid NOT NULL,
    label text NOT NULL,
    starts_on date NOT NULL,
    is_baseline boolean NOT NULL,
    steps jsonb DEFAULT '[]'::jsonb NOT NULL,
    CONSTRAINT goal_phases_label_check CHECK ((label <> ''::text)),
    CONSTRAINT goal_phases_steps_check CHECK ((jsonb_typeof(steps) = 'array'::text))
);

CREATE TABLE public.goal_revisions (
    id bigint NOT NULL,
    goal_id uuid NOT NULL,
    "row" jsonb NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT goal_revisions_row_check CHECK ((jsonb_typeof("row") = 'object'::text))
);

ALTER TABLE public.goal_revisions ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.goal_revisions_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.goals (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    plan_id uuid,
    continues uuid,
    number text NOT NULL,
    area text NOT NULL,
    short_name text NOT NULL,
    wording text NOT NULL,
    "position" integer NOT NULL,
    measure_version integer DEFAULT 1 NOT NULL,
    point_per text NOT NULL,
    baseline_value double precision,
    baseline_on date,
    target double precision NOT NULL,
    target_on date NOT NULL,
    starts_on date NOT NULL,
    planned_gap integer,
    comparison text NOT NULL,
    criterion_value double precision NOT NULL,
    rule text NOT NULL,
    rule_k integer NOT NULL,
    rule_n integer NOT NULL,
    minimum_opportunities integer DEFAULT 1 NOT NULL,
    distinct_locations integer DEFAULT 1 NOT NULL,
    distinct_observers integer DEFAULT 1 NOT NULL,
    edited_at timestamp with time zone,
    retired_on date,
    retired_how text,
    replaced_by uuid,
    retired_note text DEFAULT ''::text NOT NULL,
    CONSTRAINT goals_check CHECK ((continues <> id)),
    CONSTRAINT goals_check1 CHECK (((rule_n >= rule_k) AND (rule_n <= 30))),
    CONSTRAINT goals_check2 CHECK ((replaced_by <> id)),
    CONSTRAINT goals_check3 CHECK (((baseline_value IS NULL) = (baseline_on IS NULL))),
    CONSTRAINT goals_check4 CHECK ((target_on > starts_on)),
    CONSTRAINT goals_check5 CHECK (((rule = 'ofLast'::text) OR (rule_k = rule_n))),
    CONSTRAINT goals_check6 CHECK (((retired_on IS NULL) = (retired_how IS NULL))),
    CONSTRAINT goals_check7 CHECK (((replaced_by IS NULL) OR (retired_how = 'replaced'::text))),
    CONSTRAINT goals_comparison_check CHECK ((comparison = ANY (ARRAY['atLeast'::text, 'atMost'::text]))),
    CONSTRAINT goals_distinct_locations_check CHECK (((distinct_locations >= 1) AND (distinct_locations <= 10))),
    CONSTRAINT goals_distinct_observers_check CHECK (((distinct_observers >= 1) AND (distinct_observers <= 10))),
    CONSTRAINT goals_minimum_opportunities_check CHECK (((minimum_opportunities >= 1) AND (minimum_opportunities <= 100))),
    CONSTRAINT goals_number_check CHECK ((number <> ''::text)),
    CONSTRAINT goals_planned_gap_check CHECK ((planned_gap > 0)),
    CONSTRAINT goals_point_per_check CHECK ((point_per = ANY (ARRAY['day'::text, 'session'::text]))),
    CONSTRAINT goals_retired_how_check CHECK ((retired_how = ANY (ARRAY['met'::text, 'discontinued'::text, 'replaced'::text]))),
    CONSTRAINT goals_rule_check CHECK ((rule = ANY (ARRAY['ofLast'::text, 'inARow'::text]))),
    CONSTRAINT goals_rule_k_check CHECK ((rule_k >= 1)),
    CONSTRAINT goals_short_name_check CHECK ((short_name <> ''::text)),
    CONSTRAINT goals_wording_check CHECK ((wording <> ''::text))
);

CREATE TABLE public.half_sign_ins (
    token_hash bytea NOT NULL,
    person_id uuid NOT NULL,
    is_shared boolean NOT NULL,
    made_at timestamp with time zone NOT NULL,
    device_id uuid
);

CREATE TABLE public.heartbeats (
    process text NOT NULL,
    at timestamp with time zone NOT NULL,
    problem text,
    CONSTRAINT heartbeats_process_check CHECK ((process <> ''::text))
);

CREATE TABLE public.import_mappings (
    person_id uuid NOT NULL,
    kind text NOT NULL,
    headings text NOT NULL,
    mapping jsonb NOT NULL,
    used_at timestamp with time zone NOT NULL
);

CREATE TABLE public.import_parts (
    import_id uuid NOT NULL,
    "position" integer NOT NULL,
    kind text NOT NULL,
    student_id uuid,
    row_id uuid NOT NULL,
    before jsonb,
    after jsonb,
    CONSTRAINT import_parts_kind_check CHECK ((kind = ANY (ARRAY['student'::text, 'group'::text, 'member'::text, 'staff'::text, 'goal'::text, 'entry'::text, 'choice'::text, 'archived'::text])))
);

CREATE TABLE public.imports (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    kind text NOT NULL,
    file_name text NOT NULL,
    content jsonb,
    mapping jsonb NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    done_at timestamp with time zone,
    undone_at timestamp with time zone,
    undone_by uuid,
    CONSTRAINT imports_check CHECK (((undone_at IS NULL) OR (done_at IS NOT NULL))),
    CONSTRAINT imports_check1 CHECK (((undone_at IS NULL) = (undone_by IS NULL))),
    CONSTRAINT imports_check2 CHECK (((done_at IS NULL) OR (content IS NULL))),
    CONSTRAINT imports_file_name_check CHECK (((length(file_name) >= 1) AND (length(file_name) <= 200))),
    CONSTRAINT imports_kind_check CHECK ((kind = ANY (ARRAY['roster'::text, 'goals'::text, 'entries'::text, 'incidents'::text])))
);

CREATE TABLE public.incident_choices (
    entry_id uuid NOT NULL,
    version integer NOT NULL,
    facet text NOT NULL,
    "position" smallint NOT NULL,
    student_id uuid NOT NULL,
    target_id uuid,
    option_id uuid,
    CONSTRAINT incident_choices_check CHECK (
CASE facet
    WHEN 'behavior'::text THEN ((target_id IS NOT NULL) AND (option_id IS NULL))
    ELSE ((option_id IS NOT NULL) AND (target_id IS NULL))
END),
    CONSTRAINT incident_choices_check1 CHECK (((facet <> ALL (ARRAY['location'::text, 'intensity'::text])) OR ("position" = 1))),
    CONSTRAINT incident_choices_facet_check CHECK ((facet = ANY (ARRAY['behavior'::text, 'antecedent'::text, 'consequence'::text, 'location'::text, 'intensity'::text, 'function'::text]))),
    CONSTRAINT incident_choices_version_check CHECK ((version > 0))
);

CREATE TABLE public.invitation_tokens (
    token_hash bytea NOT NULL,
    invitation_id uuid NOT NULL,
    is_read_out boolean DEFAULT false NOT NULL,
    CONSTRAINT invitation_tokens_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.invitations (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    name text NOT NULL,
    email text NOT NULL,
    role text NOT NULL,
    rights text[],
    until_date date,
    ends_on date NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    accepted_by uuid,
    accepted_at timestamp with time zone,
    withdrawn_at timestamp with time zone,
    declined_at timestamp with time zone,
    CONSTRAINT invitations_check CHECK (((accepted_by IS NULL) = (accepted_at IS NULL))),
    CONSTRAINT invitations_email_check CHECK ((email ~~ '%_@_%'::text)),
    CONSTRAINT invitations_name_check CHECK ((name <> ''::text)),
    CONSTRAINT invitations_rights_check CHECK ((rights <@ ARRAY['observe'::text, 'editGoals'::text, 'share'::text])),
    CONSTRAINT invitations_role_check CHECK ((role = ANY (ARRAY['educator'::text, 'paraprofessional'::text, 'specialist'::text])))
);

CREATE TABLE public.issued_report_entries (
    report_id uuid NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid NOT NULL,
    version integer NOT NULL,
    CONSTRAINT issued_report_entries_version_check CHECK ((version > 0))
);

CREATE TABLE public.issued_reports (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    number integer NOT NULL,
    period_id uuid NOT NULL,
    period_label text NOT NULL,
    period_from date NOT NULL,
    period_to date NOT NULL,
    content jsonb NOT NULL,
    readers text[] NOT NULL,
    issued_by uuid NOT NULL,
    issued_at timestamp with time zone NOT NULL,
    replaces uuid,
    CONSTRAINT issued_reports_check CHECK ((period_to >= period_from)),
    CONSTRAINT issued_reports_check1 CHECK ((replaces <> id)),
    CONSTRAINT issued_reports_content_check CHECK ((jsonb_typeof(content) = 'object'::text)),
    CONSTRAINT issued_reports_number_check CHECK ((number > 0)),
    CONSTRAINT issued_reports_readers_check CHECK ((readers <@ ARRAY['family'::text, 'student'::text, 'specialist'::text]))
);

CREATE TABLE public.kept_names (
    entry_id uuid NOT NULL,
    version integer NOT NULL,
    student_id uuid NOT NULL,
    kept_by uuid NOT NULL,
    kept_at timestamp with time zone NOT NULL,
    CONSTRAINT kept_names_version_check CHECK ((version > 0))
);

CREATE TABLE public.knex_migrations (
    id integer NOT NULL,
    name character varying(255),
    batch integer,
    migration_time timestamp with time zone
);

CREATE SEQUENCE public.knex_migrations_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;

ALTER SEQUENCE public.knex_migrations_id_seq OWNED BY public.knex_migrations.id;

CREATE TABLE public.knex_migrations_lock (
    index integer NOT NULL,
    is_locked integer
);

CREATE SEQUENCE public.knex_migrations_lock_index_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;

ALTER SEQUENCE public.knex_migrations_lock_index_seq OWNED BY public.knex_migrations_lock.index;

CREATE TABLE public.known_devices (
    token_hash bytea NOT NULL,
    person_id uuid NOT NULL,
    seen_at timestamp with time zone NOT NULL,
    CONSTRAINT known_devices_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.locations (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    name text NOT NULL,
    "position" integer NOT NULL,
    CONSTRAINT locations_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.message_entries (
    message_id uuid NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid NOT NULL,
    "position" integer NOT NULL
);

CREATE TABLE public.message_stops (
    token_hash bytea NOT NULL,
    message_id uuid NOT NULL,
    CONSTRAINT message_stops_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.message_templates (
    school_id uuid NOT NULL,
    kind text NOT NULL,
    subject text NOT NULL,
    body text NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT message_templates_body_check CHECK ((body <> ''::text)),
    CONSTRAINT message_templates_kind_check CHECK ((kind = ANY (ARRAY['entry'::text, 'digest'::text, 'byHand'::text, 'invitation'::text, 'locked'::text, 'issued'::text, 'rule'::text, 'reminder'::text]))),
    CONSTRAINT message_templates_subject_check CHECK ((subject <> ''::text))
);

CREATE TABLE public.messages (
    id uuid NOT NULL,
    seq bigint NOT NULL,
    key text NOT NULL,
    kind text NOT NULL,
    student_id uuid,
    link_id uuid,
    person_id uuid,
    invitation_id uuid,
    to_name text NOT NULL,
    to_email text NOT NULL,
    own_subject text,
    own_body text,
    sent_subject text,
    sent_body text,
    state text NOT NULL,
    reason text,
    not_before timestamp with time zone NOT NULL,
    attempts integer DEFAULT 0 NOT NULL,
    made_by uuid,
    made_at timestamp with time zone NOT NULL,
    sent_at timestamp with time zone,
    again_of uuid,
    account_link_id uuid,
    CONSTRAINT messages_about_one CHECK (((student_id IS NULL) = (account_link_id IS NOT NULL))),
    CONSTRAINT messages_check1 CHECK (((state = 'sent'::text) = (sent_at IS NOT NULL))),
    CONSTRAINT messages_for_one CHECK ((num_nonnulls(link_id, person_id, invitation_id, account_link_id) = 1)),
    CONSTRAINT messages_kind_check CHECK ((kind = ANY (ARRAY['entry'::text, 'digest'::text, 'byHand'::text, 'invitation'::text, 'locked'::text, 'issued'::text, 'rule'::text, 'reminder'::text, 'join'::text, 'password'::text, 'email'::text]))),
    CONSTRAINT messages_kind_of_account CHECK (((kind = ANY (ARRAY['join'::text, 'password'::text, 'email'::text])) = (account_link_id IS NOT NULL))),
    CONSTRAINT messages_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'held'::text, 'sending'::text, 'sent'::text, 'bounced'::text, 'uncertain'::text, 'stopped'::text, 'failed'::text, 'notSetUp'::text]))),
    CONSTRAINT messages_to_email_check CHECK ((to_email ~~ '%_@_%'::text))
);

ALTER TABLE public.messages ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.messages_seq_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.opened_devices (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    group_id uuid,
    token_hash bytea NOT NULL,
    opened_by uuid NOT NULL,
    opened_at timestamp with time zone NOT NULL,
    closed_at timestamp with time zone
);

CREATE TABLE public.people (
    id uuid NOT NULL,
    name text NOT NULL,
    short_name text NOT NULL,
    initials text NOT NULL,
    work text NOT NULL,
    email text NOT NULL,
    email_proven_at timestamp with time zone,
    password_hash text NOT NULL,
    demo_order integer,
    pin_hash text,
    pin_digits smallint,
    pin_tries integer DEFAULT 0 NOT NULL,
    pin_tried_at timestamp with time zone,
    pin_locked_at timestamp with time zone,
    CONSTRAINT people_email_check CHECK ((email ~~ '%_@_%'::text)),
    CONSTRAINT people_initials_check CHECK ((initials <> ''::text)),
    CONSTRAINT people_name_check CHECK ((name <> ''::text)),
    CONSTRAINT people_pin_digits_check CHECK (((pin_digits >= 4) AND (pin_digits <= 8))),
    CONSTRAINT people_pin_tries_check CHECK ((pin_tries >= 0)),
    CONSTRAINT people_short_name_check CHECK ((short_name <> ''::text))
);

CREATE TABLE public.plans (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    starts_on date NOT NULL,
    ends_on date NOT NULL,
    label text DEFAULT ''::text NOT NULL,
    CONSTRAINT plans_check CHECK ((ends_on > starts_on))
);

CREATE TABLE public.presentation_members (
    presentation_id uuid NOT NULL,
    student_id uuid NOT NULL,
    place integer,
    CONSTRAINT presentation_members_place_check CHECK ((place > 0))
);

CREATE TABLE public.presentation_seats (
    id uuid NOT NULL,
    presentation_id uuid NOT NULL,
    student_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    began_at timestamp with time zone NOT NULL
);

CREATE TABLE public.presentations (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    form_id uuid NOT NULL,
    form_version integer NOT NULL,
    title text NOT NULL,
    shows_names boolean NOT NULL,
    looks_through boolean NOT NULL,
    token_hash bytea NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    closed_at timestamp with time zone,
    CONSTRAINT presentations_title_check CHECK (((length(title) >= 1) AND (length(title) <= 80)))
);

CREATE TABLE public.progress_report_drafts (
    period_id uuid NOT NULL,
    student_id uuid NOT NULL,
    words jsonb NOT NULL,
    version integer NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT progress_report_drafts_version_check CHECK ((version > 0)),
    CONSTRAINT progress_report_drafts_words_check CHECK ((jsonb_typeof(words) = 'object'::text))
);

CREATE TABLE public.rate_limits (
    key character varying(255) NOT NULL,
    points integer DEFAULT 0 NOT NULL,
    expire bigint
);

CREATE TABLE public.rating_links (
    token_hash bytea NOT NULL,
    id uuid NOT NULL,
    work_sample_id uuid NOT NULL,
    kind text NOT NULL,
    label text NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    withdrawn_at timestamp with time zone,
    CONSTRAINT rating_links_kind_check CHECK ((kind = ANY (ARRAY['peer'::text, 'student'::text]))),
    CONSTRAINT rating_links_label_check CHECK ((label <> ''::text)),
    CONSTRAINT rating_links_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.rating_revisions (
    rating_id uuid NOT NULL,
    seq bigint NOT NULL,
    points jsonb NOT NULL,
    words text NOT NULL,
    rated_at timestamp with time zone NOT NULL
);

ALTER TABLE public.rating_revisions ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.rating_revisions_seq_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.record_arrivals (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    file_name text NOT NULL,
    archive bytea,
    source_id uuid NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    done_at timestamp with time zone,
    student_id uuid,
    CONSTRAINT record_arrivals_check CHECK (((done_at IS NULL) = (student_id IS NULL))),
    CONSTRAINT record_arrivals_check1 CHECK (((done_at IS NULL) = (archive IS NOT NULL))),
    CONSTRAINT record_arrivals_file_name_check CHECK (((length(file_name) >= 1) AND (length(file_name) <= 200)))
);

CREATE TABLE public.record_requests (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    asked_by text NOT NULL,
    asked_on date NOT NULL,
    noted_by uuid NOT NULL,
    noted_at timestamp with time zone NOT NULL,
    answered_by uuid,
    answered_at timestamp with time zone,
    CONSTRAINT record_requests_asked_by_check CHECK (((length(asked_by) >= 1) AND (length(asked_by) <= 120))),
    CONSTRAINT record_requests_check CHECK (((answered_by IS NULL) = (answered_at IS NULL)))
);

CREATE TABLE public.recovery_codes (
    person_id uuid NOT NULL,
    code_hash bytea NOT NULL,
    used_at timestamp with time zone
);

CREATE TABLE public.reporting_periods (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    plan_id uuid NOT NULL,
    label text NOT NULL,
    ends_on date NOT NULL,
    removed_at timestamp with time zone,
    CONSTRAINT reporting_periods_label_check CHECK ((label <> ''::text))
);

CREATE TABLE public.round_forms (
    round_id uuid NOT NULL,
    form_id uuid NOT NULL,
    "position" integer NOT NULL
);

CREATE TABLE public.round_goals (
    round_id uuid NOT NULL,
    goal_id uuid NOT NULL,
    student_id uuid NOT NULL,
    "position" integer NOT NULL
);

CREATE TABLE public.rounds (
    id uuid NOT NULL,
    name text NOT NULL,
    made_by uuid NOT NULL,
    school_id uuid NOT NULL,
    weekday smallint,
    starts_at time without time zone,
    removed_at timestamp with time zone,
    CONSTRAINT rounds_name_check CHECK ((name <> ''::text)),
    CONSTRAINT rounds_weekday_check CHECK (((weekday >= 1) AND (weekday <= 7)))
);

CREATE TABLE public.rule_firings (
    id uuid NOT NULL,
    rule_id uuid NOT NULL,
    version integer NOT NULL,
    student_id uuid NOT NULL,
    key text NOT NULL,
    entry_id uuid,
    goal_id uuid,
    at timestamp with time zone NOT NULL,
    tell uuid,
    is_told boolean DEFAULT false NOT NULL
);

CREATE TABLE public.rule_looks (
    seq bigint NOT NULL,
    student_id uuid NOT NULL,
    entry_id uuid,
    state_id uuid,
    CONSTRAINT rule_looks_check CHECK ((num_nonnulls(entry_id, state_id) = 1))
);

ALTER TABLE public.rule_looks ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.rule_looks_seq_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.rule_nights (
    school_id uuid NOT NULL,
    looked_on date NOT NULL
);

CREATE TABLE public.rule_versions (
    rule_id uuid NOT NULL,
    version integer NOT NULL,
    name text NOT NULL,
    rule jsonb NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT rule_versions_name_check CHECK (((length(name) >= 1) AND (length(name) <= 80))),
    CONSTRAINT rule_versions_rule_check CHECK ((jsonb_typeof(rule) = 'object'::text)),
    CONSTRAINT rule_versions_version_check CHECK ((version > 0))
);

CREATE TABLE public.rules (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    student_id uuid,
    group_id uuid,
    is_of_school boolean DEFAULT false NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    on_since timestamp with time zone NOT NULL,
    switched_off_at timestamp with time zone,
    CONSTRAINT rules_check CHECK (((num_nonnulls(student_id, group_id) + (is_of_school)::integer) <= 1))
);

CREATE TABLE public.school_staff (
    school_id uuid NOT NULL,
    person_id uuid NOT NULL,
    is_admin boolean DEFAULT false NOT NULL,
    from_date date NOT NULL,
    until_date date,
    opens_devices boolean DEFAULT false NOT NULL,
    CONSTRAINT school_staff_check CHECK ((until_date >= from_date))
);

CREATE TABLE public.schools (
    id uuid NOT NULL,
    name text NOT NULL,
    time_zone text NOT NULL,
    weekdays smallint[] NOT NULL,
    idle_minutes integer DEFAULT 720 NOT NULL,
    shared_idle_minutes integer DEFAULT 60 NOT NULL,
    daily_message_limit integer DEFAULT 1500 NOT NULL,
    is_demo boolean DEFAULT false NOT NULL,
    step_words jsonb DEFAULT '{}'::jsonb NOT NULL,
    days_on_devices integer DEFAULT 7 NOT NULL,
    lock_minutes integer,
    paper text DEFAULT 'letter'::text NOT NULL,
    asks_second_factor boolean DEFAULT false NOT NULL,
    CONSTRAINT schools_daily_message_limit_check CHECK ((daily_message_limit > 0)),
    CONSTRAINT schools_days_on_devices_check CHECK (((days_on_devices >= 0) AND (days_on_devices <= 30))),
    CONSTRAINT schools_idle_minutes_check CHECK (((idle_minutes >= 5) AND (idle_minutes <= 1440))),
    CONSTRAINT schools_lock_minutes_check CHECK (((lock_minutes >= 1) AND (lock_minutes <= 60))),
    CONSTRAINT schools_name_check CHECK ((name <> ''::text)),
    CONSTRAINT schools_paper_check CHECK ((paper = ANY (ARRAY['letter'::text, 'a4'::text]))),
    CONSTRAINT schools_shared_idle_minutes_check CHECK (((shared_idle_minutes >= 5) AND (shared_idle_minutes <= 1440))),
    CONSTRAINT schools_step_words_check CHECK ((jsonb_typeof(step_words) = 'object'::text)),
    CONSTRAINT schools_time_zone_check CHECK ((time_zone <> ''::text)),
    CONSTRAINT schools_weekdays_check CHECK (((weekdays <@ ARRAY[(1)::smallint, (2)::smallint, (3)::smallint, (4)::smallint, (5)::smallint, (6)::smallint, (7)::smallint]) AND (cardinality(weekdays) > 0)))
);

CREATE TABLE public.sealing_keys (
    id uuid NOT NULL,
    public_key jsonb NOT NULL,
    private_key jsonb NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT sealing_keys_private_key_check CHECK ((jsonb_typeof(private_key) = 'object'::text)),
    CONSTRAINT sealing_keys_public_key_check CHECK ((jsonb_typeof(public_key) = 'object'::text))
);

CREATE TABLE public.second_factors (
    person_id uuid NOT NULL,
    secret text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    confirmed_at timestamp with time zone,
    last_step bigint
);

CREATE TABLE public.set_up_codes (
    only_one boolean DEFAULT true NOT NULL,
    code_hash bytea NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT set_up_codes_only_one_check CHECK (only_one)
);

CREATE TABLE public.share_link_passes (
    token_hash bytea NOT NULL,
    link_id uuid NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    CONSTRAINT share_link_passes_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.share_link_tokens (
    token_hash bytea NOT NULL,
    link_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT share_link_tokens_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.share_links (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    reader_name text NOT NULL,
    kind text NOT NULL,
    purpose text NOT NULL,
    ends_on date NOT NULL,
    created_by uuid NOT NULL,
    created_at timestamp with time zone NOT NULL,
    withdrawn_by uuid,
    withdrawn_at timestamp with time zone,
    passcode_hash text,
    wrong_passcodes integer DEFAULT 0 NOT NULL,
    wrong_at timestamp with time zone,
    locked_at timestamp with time zone,
    email text,
    frequency text DEFAULT 'byHand'::text NOT NULL,
    stopped_at timestamp with time zone,
    CONSTRAINT share_links_check CHECK (((withdrawn_by IS NULL) = (withdrawn_at IS NULL))),
    CONSTRAINT share_links_check1 CHECK (((frequency = 'byHand'::text) OR (email IS NOT NULL))),
    CONSTRAINT share_links_email_check CHECK ((email ~~ '%_@_%'::text)),
    CONSTRAINT share_links_frequency_check CHECK ((frequency = ANY (ARRAY['byHand'::text, 'entry'::text, 'daily'::text, 'weekly'::text]))),
    CONSTRAINT share_links_kind_check CHECK ((kind = ANY (ARRAY['family'::text, 'student'::text, 'specialist'::text]))),
    CONSTRAINT share_links_purpose_check CHECK (((char_length(purpose) >= 1) AND (char_length(purpose) <= 200))),
    CONSTRAINT share_links_reader_name_check CHECK (((char_length(reader_name) >= 1) AND (char_length(reader_name) <= 120))),
    CONSTRAINT share_links_wrong_passcodes_check CHECK ((wrong_passcodes >= 0))
);

CREATE TABLE public.sign_in_sessions (
    id uuid NOT NULL,
    person_id uuid NOT NULL,
    school_id uuid,
    token_hash bytea NOT NULL,
    previous_hash bytea,
    is_shared boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone NOT NULL,
    rotated_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone NOT NULL,
    locked_at timestamp with time zone,
    device_id uuid,
    CONSTRAINT sign_in_sessions_check CHECK ((rotated_at >= created_at)),
    CONSTRAINT sign_in_sessions_token_hash_check CHECK ((octet_length(token_hash) = 32))
);

CREATE TABLE public.stack_raters (
    id uuid NOT NULL,
    stack_id uuid NOT NULL,
    person_id uuid,
    student_id uuid,
    token_hash bytea NOT NULL,
    CONSTRAINT stack_raters_check CHECK ((num_nonnulls(person_id, student_id) = 1))
);

CREATE TABLE public.stack_turns (
    rater_id uuid NOT NULL,
    stack_id uuid NOT NULL,
    work_sample_id uuid NOT NULL
);

CREATE TABLE public.stacks (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    title text NOT NULL,
    each_rated_by integer NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    closed_at timestamp with time zone,
    CONSTRAINT stacks_each_rated_by_check CHECK (((each_rated_by >= 1) AND (each_rated_by <= 6))),
    CONSTRAINT stacks_title_check CHECK (((length(title) >= 1) AND (length(title) <= 80)))
);

CREATE TABLE public.student_forms (
    student_id uuid NOT NULL,
    form_id uuid NOT NULL,
    given_by uuid NOT NULL,
    given_at timestamp with time zone NOT NULL,
    taken_at timestamp with time zone
);

CREATE TABLE public.student_groups (
    student_id uuid NOT NULL,
    group_id uuid NOT NULL,
    school_id uuid NOT NULL
);

CREATE TABLE public.student_works (
    student_id uuid NOT NULL,
    work_id uuid NOT NULL,
    given_by uuid NOT NULL,
    given_at timestamp with time zone NOT NULL,
    taken_at timestamp with time zone
);

CREATE TABLE public.students (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    first_name text NOT NULL,
    last_name text NOT NULL,
    short_name text NOT NULL,
    initials text NOT NULL,
    grade text NOT NULL,
    archived_at timestamp with time zone,
    sourced_id text,
    undone_at timestamp with time zone,
    CONSTRAINT students_first_name_check CHECK ((first_name <> ''::text)),
    CONSTRAINT students_initials_check CHECK ((initials <> ''::text)),
    CONSTRAINT students_last_name_check CHECK ((last_name <> ''::text)),
    CONSTRAINT students_short_name_check CHECK ((short_name <> ''::text)),
    CONSTRAINT students_sourced_id_check CHECK (((length(sourced_id) >= 1) AND (length(sourced_id) <= 200)))
);

CREATE TABLE public.team_members (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    student_id uuid NOT NULL,
    person_id uuid NOT NULL,
    role text NOT NULL,
    rights text[],
    from_date date NOT NULL,
    until_date date,
    frequency text DEFAULT 'byHand'::text NOT NULL,
    stopped_at timestamp with time zone,
    changed_by uuid,
    changed_at timestamp with time zone,
    CONSTRAINT team_members_check CHECK ((until_date >= from_date)),
    CONSTRAINT team_members_frequency_check CHECK ((frequency = ANY (ARRAY['byHand'::text, 'entry'::text, 'daily'::text, 'weekly'::text]))),
    CONSTRAINT team_members_rights_check CHECK ((rights <@ ARRAY['observe'::text, 'editGoals'::text, 'share'::text])),
    CONSTRAINT team_members_role_check CHECK ((role = ANY (ARRAY['caseManager'::text, 'educator'::text, 'paraprofessional'::text, 'specialist'::text])))
);

CREATE TABLE public.test_mail_inbox (
    id bigint NOT NULL,
    message_id text NOT NULL,
    recipient text NOT NULL,
    subject text NOT NULL,
    body text NOT NULL,
    headers jsonb NOT NULL,
    arrived_at timestamp with time zone NOT NULL
);

ALTER TABLE public.test_mail_inbox ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.test_mail_inbox_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.test_mail_rules (
    id uuid NOT NULL,
    address text NOT NULL,
    does text NOT NULL,
    seconds integer DEFAULT 0 NOT NULL,
    words text DEFAULT ''::text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT test_mail_rules_address_check CHECK ((address <> ''::text)),
    CONSTRAINT test_mail_rules_does_check CHECK ((does = ANY (ARRAY['bounce'::text, 'defer'::text, 'delay'::text]))),
    CONSTRAINT test_mail_rules_seconds_check CHECK (((seconds >= 0) AND (seconds <= 60)))
);

CREATE TABLE public.timetable_blocks (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    group_id uuid,
    student_id uuid,
    weekday smallint NOT NULL,
    part text NOT NULL,
    starts_at time without time zone NOT NULL,
    ends_at time without time zone NOT NULL,
    location_id uuid,
    CONSTRAINT timetable_blocks_check CHECK ((ends_at > starts_at)),
    CONSTRAINT timetable_blocks_check1 CHECK (((student_id IS NULL) OR (group_id IS NULL))),
    CONSTRAINT timetable_blocks_part_check CHECK ((part <> ''::text)),
    CONSTRAINT timetable_blocks_weekday_check CHECK (((weekday >= 1) AND (weekday <= 7)))
);

CREATE TABLE public.visibility_rules (
    school_id uuid NOT NULL,
    student_id uuid,
    kind text NOT NULL,
    fields text[] NOT NULL,
    layout text NOT NULL,
    "grouping" text NOT NULL,
    oldest_first boolean NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT visibility_rules_grouping_check CHECK (("grouping" = ANY (ARRAY['week'::text, 'goal'::text, 'none'::text]))),
    CONSTRAINT visibility_rules_kind_check CHECK ((kind = ANY (ARRAY['team'::text, 'family'::text, 'student'::text, 'specialist'::text]))),
    CONSTRAINT visibility_rules_layout_check CHECK ((layout = ANY (ARRAY['sentences'::text, 'table'::text, 'cards'::text])))
);

CREATE TABLE public.work_sample_files (
    work_sample_id uuid NOT NULL,
    type text NOT NULL,
    bytes integer NOT NULL,
    content bytea NOT NULL,
    added_by uuid NOT NULL,
    added_at timestamp with time zone NOT NULL,
    CONSTRAINT work_sample_files_bytes_check CHECK ((bytes > 0)),
    CONSTRAINT work_sample_files_type_check CHECK ((type = ANY (ARRAY['image/jpeg'::text, 'application/pdf'::text])))
);

CREATE TABLE public.work_sample_ratings (
    id uuid NOT NULL,
    work_sample_id uuid NOT NULL,
    person_id uuid,
    rating_link_id uuid,
    points jsonb NOT NULL,
    words text NOT NULL,
    rated_at timestamp with time zone NOT NULL,
    card_id uuid,
    stack_rater_id uuid,
    CONSTRAINT work_sample_ratings_by CHECK ((num_nonnulls(person_id, rating_link_id, card_id, stack_rater_id) = 1)),
    CONSTRAINT work_sample_ratings_points_check CHECK ((jsonb_typeof(points) = 'object'::text)),
    CONSTRAINT work_sample_ratings_words_check CHECK ((char_length(words) <= 1000))
);

CREATE TABLE public.work_samples (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    goal_id uuid NOT NULL,
    measure_version integer NOT NULL,
    title text NOT NULL,
    made_on date NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    entry_id uuid,
    stack_id uuid,
    work_text text,
    number integer,
    CONSTRAINT work_samples_check CHECK (((number IS NULL) = (stack_id IS NULL))),
    CONSTRAINT work_samples_number_check CHECK ((number > 0)),
    CONSTRAINT work_samples_title_check CHECK (((char_length(title) >= 1) AND (char_length(title) <= 120))),
    CONSTRAINT work_samples_work_text_check CHECK (((length(work_text) >= 1) AND (length(work_text) <= 20000)))
);

CREATE TABLE public.work_state_seen (
    state_id uuid NOT NULL,
    student_id uuid NOT NULL,
    seen_by uuid NOT NULL,
    seen_at timestamp with time zone NOT NULL
);

CREATE TABLE public.work_states (
    id uuid NOT NULL,
    student_id uuid NOT NULL,
    work_id uuid NOT NULL,
    step_id uuid NOT NULL,
    state text NOT NULL,
    word text DEFAULT ''::text NOT NULL,
    at timestamp with time zone NOT NULL,
    received_at timestamp with time zone NOT NULL,
    card_id uuid NOT NULL,
    CONSTRAINT work_states_state_check CHECK ((state = ANY (ARRAY['notBegun'::text, 'atIt'::text, 'stuck'::text, 'pleaseLook'::text, 'done'::text]))),
    CONSTRAINT work_states_word_check CHECK ((length(word) <= 200))
);

CREATE TABLE public.work_steps (
    id uuid NOT NULL,
    work_id uuid NOT NULL,
    "position" integer NOT NULL,
    title text NOT NULL,
    hint text DEFAULT ''::text NOT NULL,
    removed_at timestamp with time zone,
    CONSTRAINT work_steps_hint_check CHECK ((length(hint) <= 160)),
    CONSTRAINT work_steps_title_check CHECK (((length(title) >= 1) AND (length(title) <= 60)))
);

CREATE TABLE public.works (
    id uuid NOT NULL,
    school_id uuid NOT NULL,
    made_by uuid NOT NULL,
    title text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    closed_at timestamp with time zone,
    CONSTRAINT works_title_check CHECK (((length(title) >= 1) AND (length(title) <= 80)))
);

ALTER TABLE ONLY public.knex_migrations ALTER COLUMN id SET DEFAULT nextval('public.knex_migrations_id_seq'::regclass);

ALTER TABLE ONLY public.knex_migrations_lock ALTER COLUMN index SET DEFAULT nextval('public.knex_migrations_lock_index_seq'::regclass);

INSERT INTO public.access_log OVERRIDING SYSTEM VALUE VALUES (1, '78b10720-8352-4fd6-baad-1d6dfee3bff3', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', NULL, 'progress report no. 1', 'issued', '2026-11-24 15:00:00+00', '2026-11-24');

INSERT INTO public.behavior_fields VALUES ('78b10720-8352-4fd6-baad-1d6dfee3bff3', '{}');

INSERT INTO public.behavior_options VALUES ('b12c5f99-6f0f-47de-94cd-b84d8eb1993e', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'antecedent', 'Noise', '', 0, 'offered', NULL, NULL, '');
INSERT INTO public.behavior_options VALUES ('3e8385f5-bf49-48cd-ba61-d80ae546a367', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'antecedent', 'Waiting', '', 1, 'offered', NULL, NULL, '');
INSERT INTO public.behavior_options VALUES ('e0ce2efc-6179-46c6-a563-ce05957e281f', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'consequence', 'A break', '', 0, 'offered', NULL, NULL, '');
INSERT INTO public.behavior_options VALUES ('444a0001-d39c-4e6f-b4be-33f5eedb493f', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'location', 'Kitchen', '', 0, 'offered', NULL, 'c02b6e1c-ba26-416a-b5de-4d48db862a52', '');
INSERT INTO public.behavior_options VALUES ('09a8117d-8e21-445d-a8dc-b95724e3397f', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'intensity', '1', 'quiet', 0, 'offered', NULL, NULL, '');
INSERT INTO public.behavior_options VALUES ('dfa80a43-d89e-41a5-9c5d-48f0f74d7d68', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'intensity', '2', 'loud', 1, 'offered', NULL, NULL, '');
INSERT INTO public.behavior_options VALUES ('01004edc-34fc-496f-a31e-05b329fcb460', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'function', 'escape', '', 0, 'offered', NULL, NULL, '');

INSERT INTO public.behavior_targets VALUES ('e5d34271-1dbc-478c-9207-f11f70547952', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'Leaves', '', '', 'decrease', true, true, false, 0, 'offered', NULL, '');
INSERT INTO public.behavior_targets VALUES ('301a7a37-954b-45da-bb95-b6f30d7ed9f1', '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'Shouts', '', '', 'decrease', true, true, false, 1, 'offered', NULL, '');

INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES (1, '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', NULL, 'plan', NULL, '{"endsOn": "2027-06-11", "periods": [{"label": "Quarter 1", "endsOn": "2026-12-04"}], "startsOn": "2026-09-08"}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES (2, '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', NULL, 'share link', NULL, '{"kind": "family", "email": null, "endsOn": "2027-06-11", "linkId": "88e557d6-7742-4e14-8e2b-915a5987c1dc", "locked": false, "purpose": "To follow their child’s progress", "stopped": false, "frequency": "byHand", "withdrawn": false, "readerName": "Aunt Ida", "hasPasscode": false}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES (3, '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', NULL, 'share link', '{"kind": "family", "email": null, "endsOn": "2027-06-11", "linkId": "88e557d6-7742-4e14-8e2b-915a5987c1dc", "locked": false, "purpose": "To follow their child’s progress", "stopped": false, "frequency": "byHand", "withdrawn": false, "readerName": "Aunt Ida", "hasPasscode": false}', '{"kind": "family", "email": "ida@home.example", "endsOn": "2027-06-11", "linkId": "88e557d6-7742-4e14-8e2b-915a5987c1dc", "locked": false, "purpose": "To follow their child’s progress", "stopped": false, "frequency": "daily", "withdrawn": false, "readerName": "Aunt Ida", "hasPasscode": false}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES (4, '5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', NULL, 'visibility', '{}', '{"family": {"shows": ["numbers", "note"], "layout": "sentences", "grouping": "week", "oldestFirst": false}}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');

INSERT INTO public.comments OVERRIDING SYSTEM VALUE VALUES ('c692c80c-708f-43e4-ab05-7fa287281791', 1, '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'b8ce3d85-d61f-4f16-b81d-bee65910fe64', 'comment', NULL, '88e557d6-7742-4e14-8e2b-915a5987c1dc', NULL, '2026-11-24', '10:00:00', 'Well done.', '2026-11-24 15:00:00+00', NULL, NULL, NULL, NULL, NULL);

INSERT INTO public.entries VALUES ('b8ce3d85-d61f-4f16-b81d-bee65910fe64', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'goal', '2026-11-18', '09:30:00', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', NULL, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', false, 'c02b6e1c-ba26-416a-b5de-4d48db862a52', '', 1, NULL, NULL, NULL, false, '30a8f5b0-b0ef-4784-a736-36a7efcaffe7', 1, '{"trials": ["independent", "gesture", "incorrect"]}', NULL, NULL, NULL, NULL, NULL, false, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.entries VALUES ('373a7baa-b605-42a3-8f97-f97c5f86b029', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'goal', '2026-11-19', '09:30:00', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', NULL, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', false, 'c02b6e1c-ba26-416a-b5de-4d48db862a52', 'Counted anew.', 2, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', 'From paper.', false, '30a8f5b0-b0ef-4784-a736-36a7efcaffe7', 1, '{"trials": ["independent", "independent"]}', NULL, NULL, NULL, NULL, NULL, false, NULL, NULL, NULL, NULL, NULL, NULL, '[{"key": "step1", "label": "Card on the bench", "isDone": true}]', NULL, NULL, NULL, NULL);
INSERT INTO public.entries VALUES ('42d3c338-40b5-4dcb-972f-234a90ccc5df', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'goal', '2026-11-20', '09:30:00', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', NULL, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', false, 'c02b6e1c-ba26-416a-b5de-4d48db862a52', '', 2, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', 'Another student’s.', true, '30a8f5b0-b0ef-4784-a736-36a7efcaffe7', 1, '{"trials": ["gesture"]}', NULL, NULL, NULL, NULL, NULL, false, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.entries VALUES ('b7021cc7-0540-49f3-a8f8-a1eff035df8c', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'incident', '2026-11-24', '09:30:00', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', NULL, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', false, NULL, 'By the door.', 1, NULL, NULL, NULL, false, NULL, NULL, NULL, NULL, NULL, NULL, NULL, 40, false, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.entries VALUES ('3aca7203-b026-475b-a86a-e86b5100e3c0', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'count', '2026-11-24', '09:00:00', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', NULL, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', false, NULL, '', 1, NULL, NULL, NULL, false, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, false, NULL, NULL, 'e5d34271-1dbc-478c-9207-f11f70547952', NULL, 30, 0, NULL, NULL, NULL, NULL, NULL);

INSERT INTO public.entry_revisions VALUES ('373a7baa-b605-42a3-8f97-f97c5f86b029', 1, '78b10720-8352-4fd6-baad-1d6dfee3bff3', '{"id": "373a7baa-b605-42a3-8f97-f97c5f86b029", "data": {"trials": ["independent", "spoken"]}, "kind": "goal", "note": "", "part": null, "count": null, "reason": null, "answers": null, "form_id": null, "goal_id": "30a8f5b0-b0ef-4784-a736-36a7efcaffe7", "minutes": null, "seconds": null, "version": 1, "fidelity": null, "giver_id": null, "is_going": false, "resolved": null, "beside_id": null, "paired_at": null, "paired_by": null, "target_id": null, "withdrawn": false, "changed_at": null, "changed_by": null, "pairs_with": null, "student_id": "78b10720-8352-4fd6-baad-1d6dfee3bff3", "location_id": "c02b6e1c-ba26-416a-b5de-4d48db862a52", "observed_on": "2026-11-19", "observer_id": "1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5", "recorded_at": "2026-11-24T15:00:00+00:00", "recorded_by": "1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5", "form_version": null, "change_reason": null, "observed_time": "09:30:00", "self_recorded": false, "resolved_after": null, "measure_version": 1}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', 'From paper.');
INSERT INTO public.entry_revisions VALUES ('42d3c338-40b5-4dcb-972f-234a90ccc5df', 1, '78b10720-8352-4fd6-baad-1d6dfee3bff3', '{"id": "42d3c338-40b5-4dcb-972f-234a90ccc5df", "data": {"trials": ["gesture"]}, "kind": "goal", "note": "", "part": null, "count": null, "reason": null, "answers": null, "form_id": null, "goal_id": "30a8f5b0-b0ef-4784-a736-36a7efcaffe7", "minutes": null, "seconds": null, "version": 1, "fidelity": null, "giver_id": null, "is_going": false, "resolved": null, "beside_id": null, "paired_at": null, "paired_by": null, "target_id": null, "withdrawn": false, "changed_at": null, "changed_by": null, "pairs_with": null, "student_id": "78b10720-8352-4fd6-baad-1d6dfee3bff3", "location_id": "c02b6e1c-ba26-416a-b5de-4d48db862a52", "observed_on": "2026-11-20", "observer_id": "1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5", "recorded_at": "2026-11-24T15:00:00+00:00", "recorded_by": "1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5", "form_version": null, "change_reason": null, "observed_time": "09:30:00", "self_recorded": false, "resolved_after": null, "measure_version": 1}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', 'Another student’s.');

INSERT INTO public.follow_up_changes VALUES ('fbdeb9c6-2bdf-4275-8d39-b704b9f50c51', 2, '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'done', 'We spoke.', NULL, NULL, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');

INSERT INTO public.follow_ups VALUES ('fbdeb9c6-2bdf-4275-8d39-b704b9f50c51', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'b8ce3d85-d61f-4f16-b81d-bee65910fe64', NULL, 'Call home', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-30', true, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', 2, '2026-11-24 15:00:00+00', NULL);

INSERT INTO public.goal_measures VALUES ('30a8f5b0-b0ef-4784-a736-36a7efcaffe7', 1, '{"kind": "trials", "levels": [{"key": "independent", "label": "Independent", "words": "alone"}, {"key": "gesture", "label": "Gesture", "words": "a gesture"}, {"key": "spoken", "label": "Spoken", "words": "a spoken prompt"}], "planned": 5, "mostTrials": 40, "mostSupport": "gesture", "opportunity": {"one": "seedling", "many": "seedlings"}, "refusalIsOpportunity": true}', '2026-09-08');

INSERT INTO public.goals VALUES ('30a8f5b0-b0ef-4784-a736-36a7efcaffe7', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'b90c605c-bf98-43a4-a878-36a4434af473', NULL, '1', 'Garden', 'Plants a row', 'Plants along a string.', 0, 1, 'day', NULL, NULL, 80, '2027-06-11', '2026-09-08', NULL, 'atLeast', 80, 'ofLast', 3, 4, 1, 1, 1, NULL, NULL, NULL, NULL, '');

INSERT INTO public.incident_choices VALUES ('b7021cc7-0540-49f3-a8f8-a1eff035df8c', 1, 'behavior', 1, '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'e5d34271-1dbc-478c-9207-f11f70547952', NULL);
INSERT INTO public.incident_choices VALUES ('b7021cc7-0540-49f3-a8f8-a1eff035df8c', 1, 'antecedent', 1, '78b10720-8352-4fd6-baad-1d6dfee3bff3', NULL, 'b12c5f99-6f0f-47de-94cd-b84d8eb1993e');

INSERT INTO public.issued_report_entries VALUES ('fdd84c0c-7817-44e6-bd8c-0212c13eda45', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'b7021cc7-0540-49f3-a8f8-a1eff035df8c', 1);
INSERT INTO public.issued_report_entries VALUES ('fdd84c0c-7817-44e6-bd8c-0212c13eda45', '78b10720-8352-4fd6-baad-1d6dfee3bff3', '373a7baa-b605-42a3-8f97-f97c5f86b029', 2);
INSERT INTO public.issued_report_entries VALUES ('fdd84c0c-7817-44e6-bd8c-0212c13eda45', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'b8ce3d85-d61f-4f16-b81d-bee65910fe64', 1);

INSERT INTO public.issued_reports VALUES ('fdd84c0c-7817-44e6-bd8c-0212c13eda45', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 1, '76dcdfe4-cdac-4909-b09b-f2998d57a1b8', 'Quarter 1', '2026-09-08', '2026-12-04', '{"plan": {"endsOn": "2027-06-11", "startsOn": "2026-09-08"}, "goals": [{"now": "83%", "way": null, "graph": {"to": "2026-12-04", "max": 100, "from": "2026-09-08", "isUp": true, "runs": [[{"on": "2026-11-18", "said": "Wed, Nov 18, 2026: 2 of 3, 67%", "value": 66.66666666666667}, {"on": "2026-11-19", "said": "Thu, Nov 19, 2026: 2 of 2, 100%", "value": 100}]], "unit": "%", "trend": null, "phases": [], "target": 80, "aimLine": null, "caption": "2 scores from Nov 18 to Nov 19; now 83%, target 80%."}, "words": {"type": "doc", "content": []}, "goalId": "30a8f5b0-b0ef-4784-a736-36a7efcaffe7", "number": "1", "target": "80%, by Jun 11, 2027", "further": [["Support levels", "Independent 3 (60%), Gesture 1 (20%), Incorrect 1 (20%), of 5 opportunities in 2 sessions in this period."]], "wording": "Plants along a string.", "baseline": null, "decision": {"mark": "…", "label": "Too early to tell", "means": "There are too few observations to tell yet.", "sentence": "There is no baseline yet, so there is no aim line to compare with. Trend: 2 scores over 0 weeks so far; a trend needs 8 over 3 weeks."}, "evidence": "2 observations by 1 person since the plan began, all of them in this period.", "inPeriod": 2, "criterion": "Goal: 4 of 5 (80%) on 3 of 4 days.", "shortName": "Plants a row"}], "words": {"type": "doc", "content": []}, "period": {"to": "2026-12-04", "from": "2026-09-08", "label": "Quarter 1"}, "student": {"name": "Ada Example", "grade": "Grade 4", "groups": [], "shortName": "Ada E."}, "behavior": ["Leaves: 1 time in 1 school day, 1 a day."], "schoolName": "Test School", "caseManager": "manager"}', '{family}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', NULL);

INSERT INTO public.knex_migrations VALUES (1, '0001-beginning', 1, '2026-12-02 17:01:08.629+00');
INSERT INTO public.knex_migrations VALUES (2, '0002-names', 1, '2026-12-02 17:01:08.634+00');
INSERT INTO public.knex_migrations VALUES (3, '0003-terms', 1, '2026-12-02 17:01:08.638+00');
INSERT INTO public.knex_migrations VALUES (4, '0004-fidelity', 1, '2026-12-02 17:01:08.64+00');
INSERT INTO public.knex_migrations VALUES (5, '0005-desk', 1, '2026-12-02 17:01:08.677+00');
INSERT INTO public.knex_migrations VALUES (6, '0006-forms', 1, '2026-12-02 17:01:08.735+00');
INSERT INTO public.knex_migrations VALUES (7, '0007-devices', 1, '2026-12-02 17:01:08.743+00');
INSERT INTO public.knex_migrations VALUES (8, '0008-devices-of-several', 1, '2026-12-02 17:01:08.754+00');
INSERT INTO public.knex_migrations VALUES (9, '0009-rules', 1, '2026-12-02 17:01:08.788+00');
INSERT INTO public.knex_migrations VALUES (10, '0010-readers', 1, '2026-12-02 17:01:08.798+00');
INSERT INTO public.knex_migrations VALUES (11, '0011-moving-in', 1, '2026-12-02 17:01:08.818+00');
INSERT INTO public.knex_migrations VALUES (12, '0012-imports', 1, '2026-12-02 17:01:08.837+00');
INSERT INTO public.knex_migrations VALUES (13, '0013-district', 1, '2026-12-02 17:01:08.843+00');
INSERT INTO public.knex_migrations VALUES (14, '0014-records', 1, '2026-12-02 17:01:08.859+00');
INSERT INTO public.knex_migrations VALUES (15, '0015-unharmed', 1, '2026-12-02 17:01:08.871+00');

INSERT INTO public.knex_migrations_lock VALUES (1, 0);

INSERT INTO public.locations VALUES ('c02b6e1c-ba26-416a-b5de-4d48db862a52', '5c400100-0000-4000-8000-000000000001', 'Kitchen', 0);

INSERT INTO public.messages OVERRIDING SYSTEM VALUE VALUES ('5e81b2cf-9024-57a4-96ab-75497a6dc34c', 1, 'issued:fdd84c0c-7817-44e6-bd8c-0212c13eda45:88e557d6-7742-4e14-8e2b-915a5987c1dc', 'issued', '78b10720-8352-4fd6-baad-1d6dfee3bff3', '88e557d6-7742-4e14-8e2b-915a5987c1dc', NULL, NULL, 'Aunt Ida', 'ida@home.example', NULL, NULL, NULL, NULL, 'waiting', NULL, '2026-11-24 15:00:00+00', 0, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', NULL, NULL, NULL);

INSERT INTO public.people VALUES ('1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', 'manager', 'manager', 'ma', 'Teacher', 'manager@school.example', '2026-11-24 15:00:00+00', 'none', NULL, NULL, NULL, 0, NULL, NULL);
INSERT INTO public.people VALUES ('06a916a9-06b7-4018-9a97-719c94332910', 'aide', 'aide', 'ai', 'Teacher', 'aide@school.example', '2026-11-24 15:00:00+00', 'none', NULL, NULL, NULL, 0, NULL, NULL);
INSERT INTO public.people VALUES ('b005db76-aab1-4ffd-936d-9ea1660831c9', 'stranger', 'stranger', 'st', 'Teacher', 'stranger@school.example', '2026-11-24 15:00:00+00', 'none', NULL, NULL, NULL, 0, NULL, NULL);

INSERT INTO public.plans VALUES ('b90c605c-bf98-43a4-a878-36a4434af473', '78b10720-8352-4fd6-baad-1d6dfee3bff3', '2026-09-08', '2027-06-11', '');

INSERT INTO public.progress_report_drafts VALUES ('76dcdfe4-cdac-4909-b09b-f2998d57a1b8', '78b10720-8352-4fd6-baad-1d6dfee3bff3', '{"goals": {}, "whole": {"type": "doc", "content": []}}', 1, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');

INSERT INTO public.reporting_periods VALUES ('76dcdfe4-cdac-4909-b09b-f2998d57a1b8', 'b90c605c-bf98-43a4-a878-36a4434af473', 'Quarter 1', '2026-12-04', NULL);

INSERT INTO public.rule_versions VALUES ('a782708f-4ef5-40f2-9cdd-2b6c30a7847f', 1, 'Low', '{"does": {"mark": {"look": "line", "word": "Low"}, "message": null, "followUp": null}, "when": {"fulfils": "all", "trigger": "goalEntry", "conditions": [{"is": "figure", "value": 50, "comparison": "below"}]}}', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');

INSERT INTO public.rules VALUES ('a782708f-4ef5-40f2-9cdd-2b6c30a7847f', '5c400100-0000-4000-8000-000000000001', NULL, NULL, false, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', '2026-11-24 15:00:00+00', NULL);

INSERT INTO public.school_staff VALUES ('5c400100-0000-4000-8000-000000000001', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', false, '2026-09-01', NULL, false);
INSERT INTO public.school_staff VALUES ('5c400100-0000-4000-8000-000000000001', '06a916a9-06b7-4018-9a97-719c94332910', false, '2026-09-01', NULL, false);
INSERT INTO public.school_staff VALUES ('5c400100-0000-4000-8000-000000000001', 'b005db76-aab1-4ffd-936d-9ea1660831c9', false, '2026-09-01', NULL, false);

INSERT INTO public.schools VALUES ('5c400100-0000-4000-8000-000000000001', 'Test School', 'America/New_York', '{1,2,3,4,5}', 720, 60, 1500, false, '{}', 7, NULL, 'letter', false);

INSERT INTO public.share_link_tokens VALUES ('\x5b9451b1341555cd1d2041ad21632b53b863015feff5f3b40815f32e9737374f', '88e557d6-7742-4e14-8e2b-915a5987c1dc', '2026-11-24 15:00:00+00');

INSERT INTO public.share_links VALUES ('88e557d6-7742-4e14-8e2b-915a5987c1dc', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'Aunt Ida', 'family', 'To follow their child’s progress', '2027-06-11', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00', NULL, NULL, NULL, 0, NULL, NULL, 'ida@home.example', 'daily', NULL);

INSERT INTO public.students VALUES ('78b10720-8352-4fd6-baad-1d6dfee3bff3', '5c400100-0000-4000-8000-000000000001', 'Ada', 'Example', 'Ada E.', 'AE', 'Grade 4', NULL, NULL, NULL);

INSERT INTO public.team_members VALUES ('e0eddfe7-5923-40fc-9a1d-83e6ff480531', '78b10720-8352-4fd6-baad-1d6dfee3bff3', '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', 'caseManager', NULL, '2026-09-01', NULL, 'byHand', NULL, NULL, NULL);
INSERT INTO public.team_members VALUES ('23e5180e-e98f-456f-b951-87e3aacdeeb1', '78b10720-8352-4fd6-baad-1d6dfee3bff3', '06a916a9-06b7-4018-9a97-719c94332910', 'paraprofessional', NULL, '2026-09-01', NULL, 'byHand', NULL, NULL, NULL);

INSERT INTO public.visibility_rules VALUES ('5c400100-0000-4000-8000-000000000001', '78b10720-8352-4fd6-baad-1d6dfee3bff3', 'family', '{numbers,note}', 'sentences', 'week', false, '1d4a7bb9-2d7e-4f16-9918-d2b6b33a33d5', '2026-11-24 15:00:00+00');

SELECT pg_catalog.setval('public.access_log_id_seq', 1, true);

SELECT pg_catalog.setval('public.behavior_revisions_id_seq', 1, false);

SELECT pg_catalog.setval('public.changes_id_seq', 4, true);

SELECT pg_catalog.setval('public.comments_seq_seq', 1, true);

SELECT pg_catalog.setval('public.entry_events_seq_seq', 1, false);

SELECT pg_catalog.setval('public.feedback_said_seq_seq', 1, false);

SELECT pg_catalog.setval('public.goal_revisions_id_seq', 1, false);

SELECT pg_catalog.setval('public.knex_migrations_id_seq', 15, true);

SELECT pg_catalog.setval('public.knex_migrations_lock_index_seq', 1, true);

SELECT pg_catalog.setval('public.messages_seq_seq', 1, true);

SELECT pg_catalog.setval('public.rating_revisions_seq_seq', 1, false);

SELECT pg_catalog.setval('public.rule_looks_seq_seq', 1, false);

SELECT pg_catalog.setval('public.test_mail_inbox_id_seq', 1, false);

ALTER TABLE ONLY public.absences
    ADD CONSTRAINT absences_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.access_log
    ADD CONSTRAINT access_log_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.account_link_tokens
    ADD CONSTRAINT account_link_tokens_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.account_links
    ADD CONSTRAINT account_links_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.awaited_members
    ADD CONSTRAINT awaited_members_pkey PRIMARY KEY (student_id, email);

ALTER TABLE ONLY public.behavior_fields
    ADD CONSTRAINT behavior_fields_pkey PRIMARY KEY (student_id);

ALTER TABLE ONLY public.behavior_options
    ADD CONSTRAINT behavior_options_id_student_id_facet_key UNIQUE (id, student_id, facet);

ALTER TABLE ONLY public.behavior_options
    ADD CONSTRAINT behavior_options_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.behavior_phases
    ADD CONSTRAINT behavior_phases_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.behavior_revisions
    ADD CONSTRAINT behavior_revisions_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.behavior_targets
    ADD CONSTRAINT behavior_targets_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.behavior_targets
    ADD CONSTRAINT behavior_targets_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.calendar_addresses
    ADD CONSTRAINT calendar_addresses_pkey PRIMARY KEY (person_id);

ALTER TABLE ONLY public.calendar_addresses
    ADD CONSTRAINT calendar_addresses_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_code_hash_key UNIQUE (code_hash);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.class_groups
    ADD CONSTRAINT class_groups_id_school_id_key UNIQUE (id, school_id);

ALTER TABLE ONLY public.class_groups
    ADD CONSTRAINT class_groups_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.closures
    ADD CONSTRAINT closures_pkey PRIMARY KEY (school_id, first_day, label);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.desk_goals
    ADD CONSTRAINT desk_goals_pkey PRIMARY KEY (goal_id);

ALTER TABLE ONLY public.desk_sessions
    ADD CONSTRAINT desk_sessions_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.desk_sessions
    ADD CONSTRAINT desk_sessions_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.desk_turn_students
    ADD CONSTRAINT desk_turn_students_pkey PRIMARY KEY (turn_id, student_id);

ALTER TABLE ONLY public.desk_turns
    ADD CONSTRAINT desk_turns_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.desk_turns
    ADD CONSTRAINT desk_turns_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.destructions
    ADD CONSTRAINT destructions_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.device_factors
    ADD CONSTRAINT device_factors_pkey PRIMARY KEY (device_id, person_id);

ALTER TABLE ONLY public.district_accounts
    ADD CONSTRAINT district_accounts_issuer_person_id_key UNIQUE (issuer, person_id);

ALTER TABLE ONLY public.district_accounts
    ADD CONSTRAINT district_accounts_pkey PRIMARY KEY (issuer, subject);

ALTER TABLE ONLY public.document_batch_parts
    ADD CONSTRAINT document_batch_parts_pkey PRIMARY KEY (batch_id, student_id);

ALTER TABLE ONLY public.document_batches
    ADD CONSTRAINT document_batches_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_pairs_with_key UNIQUE (pairs_with);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.entry_events
    ADD CONSTRAINT entry_events_pkey PRIMARY KEY (seq);

ALTER TABLE ONLY public.entry_revisions
    ADD CONSTRAINT entry_revisions_pkey PRIMARY KEY (entry_id, version);

ALTER TABLE ONLY public.evidence
    ADD CONSTRAINT evidence_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.feedback_answers
    ADD CONSTRAINT feedback_answers_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.feedback_answers
    ADD CONSTRAINT feedback_answers_presentation_id_presenter_id_giver_id_key UNIQUE (presentation_id, presenter_id, giver_id);

ALTER TABLE ONLY public.feedback_said
    ADD CONSTRAINT feedback_said_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.follow_up_changes
    ADD CONSTRAINT follow_up_changes_pkey PRIMARY KEY (follow_up_id, version);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_comment_id_key UNIQUE (comment_id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_firing_id_key UNIQUE (firing_id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.form_versions
    ADD CONSTRAINT form_versions_pkey PRIMARY KEY (form_id, version);

ALTER TABLE ONLY public.forms
    ADD CONSTRAINT forms_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.goal_bank
    ADD CONSTRAINT goal_bank_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.goal_decisions
    ADD CONSTRAINT goal_decisions_pkey PRIMARY KEY (goal_id);

ALTER TABLE ONLY public.goal_locations
    ADD CONSTRAINT goal_locations_pkey PRIMARY KEY (goal_id, location_id);

ALTER TABLE ONLY public.goal_measures
    ADD CONSTRAINT goal_measures_pkey PRIMARY KEY (goal_id, version);

ALTER TABLE ONLY public.goal_observers
    ADD CONSTRAINT goal_observers_pkey PRIMARY KEY (goal_id, person_id);

ALTER TABLE ONLY public.goal_phases
    ADD CONSTRAINT goal_phases_pkey PRIMARY KEY (goal_id, starts_on);

ALTER TABLE ONLY public.goal_revisions
    ADD CONSTRAINT goal_revisions_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.half_sign_ins
    ADD CONSTRAINT half_sign_ins_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.heartbeats
    ADD CONSTRAINT heartbeats_pkey PRIMARY KEY (process);

ALTER TABLE ONLY public.import_mappings
    ADD CONSTRAINT import_mappings_pkey PRIMARY KEY (person_id, kind, headings);

ALTER TABLE ONLY public.import_parts
    ADD CONSTRAINT import_parts_pkey PRIMARY KEY (import_id, "position");

ALTER TABLE ONLY public.imports
    ADD CONSTRAINT imports_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.incident_choices
    ADD CONSTRAINT incident_choices_entry_id_version_option_id_key UNIQUE (entry_id, version, option_id);

ALTER TABLE ONLY public.incident_choices
    ADD CONSTRAINT incident_choices_entry_id_version_target_id_key UNIQUE (entry_id, version, target_id);

ALTER TABLE ONLY public.incident_choices
    ADD CONSTRAINT incident_choices_pkey PRIMARY KEY (entry_id, version, facet, "position");

ALTER TABLE ONLY public.invitation_tokens
    ADD CONSTRAINT invitation_tokens_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.issued_report_entries
    ADD CONSTRAINT issued_report_entries_pkey PRIMARY KEY (report_id, entry_id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_replaces_key UNIQUE (replaces);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_student_id_number_key UNIQUE (student_id, number);

ALTER TABLE ONLY public.kept_names
    ADD CONSTRAINT kept_names_pkey PRIMARY KEY (entry_id, version);

ALTER TABLE ONLY public.knex_migrations_lock
    ADD CONSTRAINT knex_migrations_lock_pkey PRIMARY KEY (index);

ALTER TABLE ONLY public.knex_migrations
    ADD CONSTRAINT knex_migrations_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.known_devices
    ADD CONSTRAINT known_devices_pkey PRIMARY KEY (token_hash, person_id);

ALTER TABLE ONLY public.locations
    ADD CONSTRAINT locations_id_school_id_key UNIQUE (id, school_id);

ALTER TABLE ONLY public.locations
    ADD CONSTRAINT locations_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.message_entries
    ADD CONSTRAINT message_entries_pkey PRIMARY KEY (message_id, entry_id);

ALTER TABLE ONLY public.message_stops
    ADD CONSTRAINT message_stops_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.message_templates
    ADD CONSTRAINT message_templates_pkey PRIMARY KEY (school_id, kind);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_key_key UNIQUE (key);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.team_members
    ADD CONSTRAINT one_case_manager EXCLUDE USING gist (student_id WITH =, daterange(from_date, until_date, '[]'::text) WITH &&) WHERE ((role = 'caseManager'::text));

ALTER TABLE ONLY public.opened_devices
    ADD CONSTRAINT opened_devices_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.opened_devices
    ADD CONSTRAINT opened_devices_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_overlap EXCLUDE USING gist (student_id WITH =, daterange(starts_on, ends_on, '[]'::text) WITH &&);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.presentation_members
    ADD CONSTRAINT presentation_members_pkey PRIMARY KEY (presentation_id, student_id);

ALTER TABLE ONLY public.presentation_seats
    ADD CONSTRAINT presentation_seats_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.presentation_seats
    ADD CONSTRAINT presentation_seats_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.presentations
    ADD CONSTRAINT presentations_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.presentations
    ADD CONSTRAINT presentations_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.progress_report_drafts
    ADD CONSTRAINT progress_report_drafts_pkey PRIMARY KEY (period_id);

ALTER TABLE ONLY public.rate_limits
    ADD CONSTRAINT rate_limits_pkey PRIMARY KEY (key);

ALTER TABLE ONLY public.rating_links
    ADD CONSTRAINT rating_links_id_key UNIQUE (id);

ALTER TABLE ONLY public.rating_links
    ADD CONSTRAINT rating_links_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.rating_revisions
    ADD CONSTRAINT rating_revisions_pkey PRIMARY KEY (rating_id, seq);

ALTER TABLE ONLY public.record_arrivals
    ADD CONSTRAINT record_arrivals_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.record_requests
    ADD CONSTRAINT record_requests_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.recovery_codes
    ADD CONSTRAINT recovery_codes_pkey PRIMARY KEY (person_id, code_hash);

ALTER TABLE ONLY public.reporting_periods
    ADD CONSTRAINT reporting_periods_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.round_forms
    ADD CONSTRAINT round_forms_pkey PRIMARY KEY (round_id, form_id);

ALTER TABLE ONLY public.round_goals
    ADD CONSTRAINT round_goals_pkey PRIMARY KEY (round_id, goal_id);

ALTER TABLE ONLY public.rounds
    ADD CONSTRAINT rounds_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_rule_id_student_id_key_key UNIQUE (rule_id, student_id, key);

ALTER TABLE ONLY public.rule_looks
    ADD CONSTRAINT rule_looks_pkey PRIMARY KEY (seq);

ALTER TABLE ONLY public.rule_nights
    ADD CONSTRAINT rule_nights_pkey PRIMARY KEY (school_id);

ALTER TABLE ONLY public.rule_versions
    ADD CONSTRAINT rule_versions_pkey PRIMARY KEY (rule_id, version);

ALTER TABLE ONLY public.rules
    ADD CONSTRAINT rules_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.school_staff
    ADD CONSTRAINT school_staff_pkey PRIMARY KEY (school_id, person_id);

ALTER TABLE ONLY public.schools
    ADD CONSTRAINT schools_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.sealing_keys
    ADD CONSTRAINT sealing_keys_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.second_factors
    ADD CONSTRAINT second_factors_pkey PRIMARY KEY (person_id);

ALTER TABLE ONLY public.set_up_codes
    ADD CONSTRAINT set_up_codes_pkey PRIMARY KEY (only_one);

ALTER TABLE ONLY public.share_link_passes
    ADD CONSTRAINT share_link_passes_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.share_link_tokens
    ADD CONSTRAINT share_link_tokens_pkey PRIMARY KEY (token_hash);

ALTER TABLE ONLY public.share_links
    ADD CONSTRAINT share_links_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.share_links
    ADD CONSTRAINT share_links_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.sign_in_sessions
    ADD CONSTRAINT sign_in_sessions_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.sign_in_sessions
    ADD CONSTRAINT sign_in_sessions_previous_hash_key UNIQUE (previous_hash);

ALTER TABLE ONLY public.sign_in_sessions
    ADD CONSTRAINT sign_in_sessions_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_id_stack_id_key UNIQUE (id, stack_id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_stack_id_person_id_key UNIQUE (stack_id, person_id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_stack_id_student_id_key UNIQUE (stack_id, student_id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_token_hash_key UNIQUE (token_hash);

ALTER TABLE ONLY public.stack_turns
    ADD CONSTRAINT stack_turns_pkey PRIMARY KEY (rater_id, work_sample_id);

ALTER TABLE ONLY public.stacks
    ADD CONSTRAINT stacks_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.student_forms
    ADD CONSTRAINT student_forms_pkey PRIMARY KEY (student_id, form_id);

ALTER TABLE ONLY public.student_groups
    ADD CONSTRAINT student_groups_pkey PRIMARY KEY (student_id, group_id);

ALTER TABLE ONLY public.student_works
    ADD CONSTRAINT student_works_pkey PRIMARY KEY (student_id, work_id);

ALTER TABLE ONLY public.students
    ADD CONSTRAINT students_id_school_id_key UNIQUE (id, school_id);

ALTER TABLE ONLY public.students
    ADD CONSTRAINT students_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.team_members
    ADD CONSTRAINT team_members_once EXCLUDE USING gist (student_id WITH =, person_id WITH =, daterange(from_date, until_date, '[]'::text) WITH &&);

ALTER TABLE ONLY public.team_members
    ADD CONSTRAINT team_members_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.test_mail_inbox
    ADD CONSTRAINT test_mail_inbox_message_id_key UNIQUE (message_id);

ALTER TABLE ONLY public.test_mail_inbox
    ADD CONSTRAINT test_mail_inbox_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.test_mail_rules
    ADD CONSTRAINT test_mail_rules_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.timetable_blocks
    ADD CONSTRAINT timetable_blocks_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.visibility_rules
    ADD CONSTRAINT visibility_rules_school_id_student_id_kind_key UNIQUE NULLS NOT DISTINCT (school_id, student_id, kind);

ALTER TABLE ONLY public.work_sample_files
    ADD CONSTRAINT work_sample_files_pkey PRIMARY KEY (work_sample_id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_rating_link_id_key UNIQUE (rating_link_id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_work_sample_id_person_id_key UNIQUE (work_sample_id, person_id);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_stack_id_number_key UNIQUE (stack_id, number);

ALTER TABLE ONLY public.work_state_seen
    ADD CONSTRAINT work_state_seen_pkey PRIMARY KEY (state_id);

ALTER TABLE ONLY public.work_states
    ADD CONSTRAINT work_states_id_student_id_key UNIQUE (id, student_id);

ALTER TABLE ONLY public.work_states
    ADD CONSTRAINT work_states_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.work_steps
    ADD CONSTRAINT work_steps_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.work_steps
    ADD CONSTRAINT work_steps_work_id_id_key UNIQUE (work_id, id);

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_pkey PRIMARY KEY (id);

CREATE UNIQUE INDEX absences_day ON public.absences USING btree (student_id, day, part) NULLS NOT DISTINCT WHERE (withdrawn_at IS NULL);

CREATE UNIQUE INDEX access_log_daily ON public.access_log USING btree (student_id, person_id, day, what, how) WHERE ((how = ANY (ARRAY['opened'::text, 'kept'::text])) AND (person_id IS NOT NULL));

CREATE INDEX access_log_link ON public.access_log USING btree (link_id, at DESC) WHERE (link_id IS NOT NULL);

CREATE INDEX access_log_student ON public.access_log USING btree (student_id, at DESC);

CREATE INDEX account_links_open ON public.account_links USING btree (school_id, kind) WHERE ((used_at IS NULL) AND (withdrawn_at IS NULL));

CREATE UNIQUE INDEX behavior_options_label ON public.behavior_options USING btree (school_id, student_id, facet, label) NULLS NOT DISTINCT WHERE (merged_into IS NULL);

CREATE INDEX behavior_options_student ON public.behavior_options USING btree (student_id);

CREATE INDEX behavior_phases_student ON public.behavior_phases USING btree (student_id);

CREATE INDEX behavior_revisions_option ON public.behavior_revisions USING btree (option_id, id) WHERE (option_id IS NOT NULL);

CREATE INDEX behavior_revisions_target ON public.behavior_revisions USING btree (target_id, id) WHERE (target_id IS NOT NULL);

CREATE UNIQUE INDEX behavior_targets_name ON public.behavior_targets USING btree (school_id, student_id, name) NULLS NOT DISTINCT WHERE (merged_into IS NULL);

CREATE INDEX behavior_targets_student ON public.behavior_targets USING btree (student_id);

CREATE UNIQUE INDEX cards_one_a_student ON public.cards USING btree (student_id) WHERE (ended_at IS NULL);

CREATE INDEX changes_school ON public.changes USING btree (school_id, id DESC);

CREATE INDEX changes_student ON public.changes USING btree (student_id, id DESC) WHERE (student_id IS NOT NULL);

CREATE UNIQUE INDEX class_groups_name ON public.class_groups USING btree (school_id, lower(name));

CREATE UNIQUE INDEX class_groups_sourced ON public.class_groups USING btree (school_id, sourced_id);

CREATE UNIQUE INDEX comments_decided_once ON public.comments USING btree (answers) WHERE (kind = 'decision'::text);

CREATE INDEX comments_entry ON public.comments USING btree (entry_id) WHERE (entry_id IS NOT NULL);

CREATE INDEX comments_of_report ON public.comments USING btree (report_id) WHERE (report_id IS NOT NULL);

CREATE INDEX comments_student ON public.comments USING btree (student_id, said_at);

CREATE INDEX desk_goals_of ON public.desk_goals USING btree (student_id);

CREATE INDEX desk_sessions_of ON public.desk_sessions USING btree (student_id, began_at);

CREATE INDEX destructions_of ON public.destructions USING btree (school_id, asked_at DESC);

CREATE UNIQUE INDEX destructions_open ON public.destructions USING btree (student_id) WHERE (taken_back_at IS NULL);

CREATE INDEX device_factors_person ON public.device_factors USING btree (person_id);

CREATE INDEX document_batches_made_by ON public.document_batches USING btree (made_by, made_at DESC);

CREATE INDEX document_batches_open ON public.document_batches USING btree (not_before) WHERE (state = ANY (ARRAY['waiting'::text, 'making'::text]));

CREATE INDEX entries_behavior ON public.entries USING btree (student_id, kind, observed_on DESC, observed_time DESC, recorded_at DESC) WHERE ((kind <> 'goal'::text) AND (NOT withdrawn));

CREATE INDEX entries_by_goal ON public.entries USING btree (student_id, goal_id, observed_on, observed_time, recorded_at) INCLUDE (version, paired_at) WHERE ((kind = 'goal'::text) AND (NOT withdrawn));

CREATE INDEX entries_going ON public.entries USING btree (student_id) WHERE (is_going AND (NOT withdrawn));

CREATE INDEX entries_incident_stamp ON public.entries USING btree (student_id) INCLUDE (version, recorded_at) WHERE (kind = 'incident'::text);

CREATE INDEX entries_newest ON public.entries USING btree (student_id, observed_on DESC, observed_time DESC, recorded_at DESC) WHERE (NOT withdrawn);

CREATE INDEX entries_notes ON public.entries USING btree (form_id, student_id) WHERE ((kind = 'note'::text) AND (NOT withdrawn));

CREATE INDEX entry_events_new ON public.entry_events USING btree (seq) WHERE (NOT is_collected);

CREATE INDEX entry_events_student ON public.entry_events USING btree (student_id, made_at);

CREATE INDEX evidence_entry ON public.evidence USING btree (student_id, entry_id);

CREATE INDEX feedback_answers_giver ON public.feedback_answers USING btree (giver_id);

CREATE INDEX feedback_answers_presenter ON public.feedback_answers USING btree (presenter_id);

CREATE INDEX feedback_said_of ON public.feedback_said USING btree (answer_id, seq);

CREATE INDEX follow_ups_for ON public.follow_ups USING btree (for_person, due_on) WHERE (done_at IS NULL);

CREATE INDEX follow_ups_of ON public.follow_ups USING btree (student_id);

CREATE INDEX forms_of ON public.forms USING btree (school_id);

CREATE INDEX goal_bank_school ON public.goal_bank USING btree (school_id);

CREATE INDEX goal_revisions_goal ON public.goal_revisions USING btree (goal_id, id);

CREATE UNIQUE INDEX goals_number ON public.goals USING btree (student_id, number) WHERE (retired_on IS NULL);

CREATE INDEX goals_student ON public.goals USING btree (student_id, "position");

CREATE INDEX import_parts_of ON public.import_parts USING btree (row_id);

CREATE INDEX imports_of ON public.imports USING btree (school_id, made_at DESC);

CREATE INDEX incident_choices_student ON public.incident_choices USING btree (student_id, entry_id, version, facet, "position") INCLUDE (target_id, option_id);

CREATE INDEX invitations_email ON public.invitations USING btree (lower(email));

CREATE INDEX invitations_student ON public.invitations USING btree (student_id);

CREATE INDEX issued_reports_student ON public.issued_reports USING btree (student_id, period_to);

CREATE INDEX known_devices_person ON public.known_devices USING btree (person_id);

CREATE UNIQUE INDEX locations_name ON public.locations USING btree (school_id, lower(name));

CREATE INDEX messages_digests ON public.messages USING btree (link_id, person_id, student_id, seq DESC) WHERE (kind = 'digest'::text);

CREATE INDEX messages_sent ON public.messages USING btree (sent_at) WHERE (state = 'sent'::text);

CREATE INDEX messages_student ON public.messages USING btree (student_id, seq DESC);

CREATE INDEX messages_to_send ON public.messages USING btree (not_before) WHERE (state = ANY (ARRAY['waiting'::text, 'held'::text, 'sending'::text]));

CREATE INDEX opened_devices_school ON public.opened_devices USING btree (school_id) WHERE (closed_at IS NULL);

CREATE UNIQUE INDEX people_email ON public.people USING btree (lower(email));

CREATE INDEX presentation_members_of ON public.presentation_members USING btree (student_id);

CREATE INDEX presentation_seats_of ON public.presentation_seats USING btree (presentation_id, student_id);

CREATE INDEX presentations_of ON public.presentations USING btree (made_by);

CREATE INDEX rate_limits_expire ON public.rate_limits USING btree (expire);

CREATE INDEX rating_links_work_sample ON public.rating_links USING btree (work_sample_id);

CREATE INDEX record_arrivals_of ON public.record_arrivals USING btree (school_id, made_at DESC);

CREATE INDEX record_requests_of ON public.record_requests USING btree (student_id);

CREATE UNIQUE INDEX reporting_periods_end ON public.reporting_periods USING btree (plan_id, ends_on) WHERE (removed_at IS NULL);

CREATE INDEX rounds_made_by ON public.rounds USING btree (made_by);

CREATE INDEX rule_firings_to_tell ON public.rule_firings USING btree (at) WHERE ((tell IS NOT NULL) AND (NOT is_told));

CREATE INDEX rules_of ON public.rules USING btree (school_id) WHERE (switched_off_at IS NULL);

CREATE INDEX school_staff_person ON public.school_staff USING btree (person_id);

CREATE UNIQUE INDEX sealing_keys_one ON public.sealing_keys USING btree ((true));

CREATE INDEX share_link_tokens_link ON public.share_link_tokens USING btree (link_id);

CREATE INDEX share_links_student ON public.share_links USING btree (student_id);

CREATE INDEX share_links_told ON public.share_links USING btree (student_id) WHERE (frequency <> 'byHand'::text);

CREATE INDEX sign_in_sessions_person ON public.sign_in_sessions USING btree (person_id);

CREATE INDEX stack_turns_sample ON public.stack_turns USING btree (work_sample_id);

CREATE INDEX stacks_of ON public.stacks USING btree (made_by);

CREATE INDEX student_forms_of ON public.student_forms USING btree (form_id);

CREATE INDEX student_groups_group ON public.student_groups USING btree (group_id);

CREATE INDEX student_works_of ON public.student_works USING btree (work_id);

CREATE INDEX students_school ON public.students USING btree (school_id, last_name, first_name);

CREATE UNIQUE INDEX students_sourced ON public.students USING btree (school_id, sourced_id);

CREATE INDEX team_members_person ON public.team_members USING btree (person_id, student_id);

CREATE INDEX team_members_student ON public.team_members USING btree (student_id, person_id);

CREATE INDEX team_members_told ON public.team_members USING btree (student_id) WHERE (frequency <> 'byHand'::text);

CREATE INDEX timetable_blocks_school ON public.timetable_blocks USING btree (school_id);

CREATE INDEX timetable_blocks_student ON public.timetable_blocks USING btree (student_id) WHERE (student_id IS NOT NULL);

CREATE UNIQUE INDEX work_sample_ratings_own ON public.work_sample_ratings USING btree (work_sample_id) WHERE (card_id IS NOT NULL);

CREATE UNIQUE INDEX work_sample_ratings_stack ON public.work_sample_ratings USING btree (work_sample_id, stack_rater_id) WHERE (stack_rater_id IS NOT NULL);

CREATE INDEX work_samples_goal ON public.work_samples USING btree (student_id, goal_id, made_on DESC);

CREATE INDEX work_samples_stack ON public.work_samples USING btree (stack_id) WHERE (stack_id IS NOT NULL);

CREATE INDEX work_states_of ON public.work_states USING btree (work_id, student_id, at);

CREATE INDEX works_of ON public.works USING btree (made_by);

CREATE TRIGGER access_log_stay BEFORE DELETE OR UPDATE ON public.access_log FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER access_log_stay_all BEFORE TRUNCATE ON public.access_log FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER behavior_options_stay BEFORE DELETE ON public.behavior_options FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER behavior_options_stay_all BEFORE TRUNCATE ON public.behavior_options FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER behavior_revisions_stay BEFORE DELETE OR UPDATE ON public.behavior_revisions FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER behavior_revisions_stay_all BEFORE TRUNCATE ON public.behavior_revisions FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER behavior_targets_stay BEFORE DELETE ON public.behavior_targets FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER behavior_targets_stay_all BEFORE TRUNCATE ON public.behavior_targets FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER changes_stay BEFORE DELETE OR UPDATE ON public.changes FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER changes_stay_all BEFORE TRUNCATE ON public.changes FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER comments_stay BEFORE DELETE ON public.comments FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER comments_stay_all BEFORE TRUNCATE ON public.comments FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER destructions_changed_wake AFTER UPDATE OF confirmed_at ON public.destructions FOR EACH ROW WHEN ((new.confirmed_at IS DISTINCT FROM old.confirmed_at)) EXECUTE FUNCTION public.tell_worker();

CREATE TRIGGER destructions_stay BEFORE DELETE ON public.destructions FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER destructions_stay_all BEFORE TRUNCATE ON public.destructions FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER destructions_wake AFTER INSERT ON public.destructions REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_worker_of_added();

CREATE TRIGGER document_batches_wake AFTER INSERT ON public.document_batches REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_worker_of_added();

CREATE TRIGGER entries_are_live AFTER INSERT ON public.entries REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_live_of_entries();

CREATE TRIGGER entries_changed_ruled AFTER UPDATE OF version ON public.entries FOR EACH ROW WHEN ((NOT new.withdrawn)) EXECUTE FUNCTION public.ask_rules();

CREATE TRIGGER entries_revised BEFORE UPDATE ON public.entries FOR EACH ROW EXECUTE FUNCTION public.keep_revision();

CREATE TRIGGER entries_ruled AFTER INSERT ON public.entries FOR EACH ROW EXECUTE FUNCTION public.ask_rules();

CREATE TRIGGER entries_stay BEFORE DELETE ON public.entries FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER entries_stay_all BEFORE TRUNCATE ON public.entries FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER entries_told AFTER INSERT ON public.entries FOR EACH ROW EXECUTE FUNCTION public.note_entry_event();

CREATE TRIGGER entry_events_wake AFTER INSERT ON public.entry_events REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_worker_of_added();

CREATE TRIGGER entry_revisions_stay BEFORE DELETE OR UPDATE ON public.entry_revisions FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER entry_revisions_stay_all BEFORE TRUNCATE ON public.entry_revisions FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER evidence_stay BEFORE DELETE ON public.evidence FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER evidence_stay_all BEFORE TRUNCATE ON public.evidence FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER follow_up_changes_stay BEFORE DELETE ON public.follow_up_changes FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER follow_up_changes_stay_all BEFORE TRUNCATE ON public.follow_up_changes FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER follow_ups_stay BEFORE DELETE ON public.follow_ups FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER follow_ups_stay_all BEFORE TRUNCATE ON public.follow_ups FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER goal_measures_stay BEFORE DELETE ON public.goal_measures FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER goal_measures_stay_all BEFORE TRUNCATE ON public.goal_measures FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER goal_revisions_stay BEFORE DELETE OR UPDATE ON public.goal_revisions FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER goal_revisions_stay_all BEFORE TRUNCATE ON public.goal_revisions FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER goals_stay BEFORE DELETE ON public.goals FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER goals_stay_all BEFORE TRUNCATE ON public.goals FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER incident_choices_stay BEFORE DELETE OR UPDATE ON public.incident_choices FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER incident_choices_stay_all BEFORE TRUNCATE ON public.incident_choices FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE CONSTRAINT TRIGGER incidents_name_a_behavior AFTER INSERT OR UPDATE ON public.entries DEFERRABLE INITIALLY DEFERRED FOR EACH ROW WHEN ((new.kind = 'incident'::text)) EXECUTE FUNCTION public.expect_behavior();

CREATE TRIGGER issued_report_entries_stay BEFORE DELETE OR UPDATE ON public.issued_report_entries FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER issued_report_entries_stay_all BEFORE TRUNCATE ON public.issued_report_entries FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER issued_reports_stay BEFORE DELETE OR UPDATE ON public.issued_reports FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER issued_reports_stay_all BEFORE TRUNCATE ON public.issued_reports FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER kept_names_stay BEFORE DELETE OR UPDATE ON public.kept_names FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER kept_names_stay_all BEFORE TRUNCATE ON public.kept_names FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER members_leave AFTER DELETE OR UPDATE OF until_date, role, rights ON public.team_members FOR EACH ROW EXECUTE FUNCTION public.tell_access();

CREATE TRIGGER message_entries_stay BEFORE DELETE OR UPDATE ON public.message_entries FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER message_entries_stay_all BEFORE TRUNCATE ON public.message_entries FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER messages_changed_wake AFTER UPDATE OF state, not_before ON public.messages FOR EACH ROW WHEN (((new.state = ANY (ARRAY['waiting'::text, 'held'::text])) AND ((new.state IS DISTINCT FROM old.state) OR (new.not_before IS DISTINCT FROM old.not_before)))) EXECUTE FUNCTION public.tell_worker();

CREATE TRIGGER messages_stay BEFORE DELETE ON public.messages FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER messages_stay_all BEFORE TRUNCATE ON public.messages FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER messages_wake AFTER INSERT ON public.messages REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_worker_of_added();

CREATE TRIGGER people_stay BEFORE DELETE ON public.people FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER people_stay_all BEFORE TRUNCATE ON public.people FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE CONSTRAINT TRIGGER plans_around_periods AFTER UPDATE ON public.plans DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION public.expect_periods_in_plan();

CREATE TRIGGER plans_stay BEFORE DELETE ON public.plans FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER plans_stay_all BEFORE TRUNCATE ON public.plans FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER ratings_kept BEFORE UPDATE ON public.work_sample_ratings FOR EACH ROW EXECUTE FUNCTION public.keep_rating();

CREATE CONSTRAINT TRIGGER reporting_periods_in_plan AFTER INSERT OR UPDATE ON public.reporting_periods DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION public.expect_periods_in_plan();

CREATE TRIGGER rule_firings_wake AFTER INSERT ON public.rule_firings REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_worker_of_added();

CREATE TRIGGER rule_looks_wake AFTER INSERT ON public.rule_looks REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.tell_worker_of_added();

CREATE TRIGGER rule_versions_stay BEFORE DELETE ON public.rule_versions FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER rule_versions_stay_all BEFORE TRUNCATE ON public.rule_versions FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER rules_stay BEFORE DELETE ON public.rules FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER rules_stay_all BEFORE TRUNCATE ON public.rules FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER schools_stay BEFORE DELETE ON public.schools FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER schools_stay_all BEFORE TRUNCATE ON public.schools FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER sessions_end AFTER DELETE ON public.sign_in_sessions FOR EACH ROW EXECUTE FUNCTION public.tell_access();

CREATE TRIGGER sessions_locked AFTER UPDATE OF locked_at ON public.sign_in_sessions FOR EACH ROW WHEN (((new.locked_at IS NOT NULL) AND (old.locked_at IS NULL))) EXECUTE FUNCTION public.tell_access();

CREATE TRIGGER share_links_stay BEFORE DELETE ON public.share_links FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER share_links_stay_all BEFORE TRUNCATE ON public.share_links FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER states_ruled AFTER INSERT ON public.work_states FOR EACH ROW WHEN ((new.state = 'stuck'::text)) EXECUTE FUNCTION public.ask_rules();

CREATE TRIGGER students_stay BEFORE DELETE ON public.students FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER students_stay_all BEFORE TRUNCATE ON public.students FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER work_sample_ratings_stay BEFORE DELETE ON public.work_sample_ratings FOR EACH ROW EXECUTE FUNCTION public.refuse_removal();

CREATE TRIGGER work_sample_ratings_stay_all BEFORE TRUNCATE ON public.work_sample_ratings FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_removal();

ALTER TABLE ONLY public.absences
    ADD CONSTRAINT absences_recorded_by_fkey FOREIGN KEY (recorded_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.absences
    ADD CONSTRAINT absences_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.absences
    ADD CONSTRAINT absences_withdrawn_by_fkey FOREIGN KEY (withdrawn_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.access_log
    ADD CONSTRAINT access_log_link_id_student_id_fkey FOREIGN KEY (link_id, student_id) REFERENCES public.share_links(id, student_id);

ALTER TABLE ONLY public.access_log
    ADD CONSTRAINT access_log_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.access_log
    ADD CONSTRAINT access_log_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.account_link_tokens
    ADD CONSTRAINT account_link_tokens_link_id_fkey FOREIGN KEY (link_id) REFERENCES public.account_links(id);

ALTER TABLE ONLY public.account_links
    ADD CONSTRAINT account_links_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.account_links
    ADD CONSTRAINT account_links_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.account_links
    ADD CONSTRAINT account_links_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.awaited_members
    ADD CONSTRAINT awaited_members_import_id_fkey FOREIGN KEY (import_id) REFERENCES public.imports(id);

ALTER TABLE ONLY public.awaited_members
    ADD CONSTRAINT awaited_members_instead_of_fkey FOREIGN KEY (instead_of) REFERENCES public.people(id);

ALTER TABLE ONLY public.awaited_members
    ADD CONSTRAINT awaited_members_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.awaited_members
    ADD CONSTRAINT awaited_members_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.behavior_fields
    ADD CONSTRAINT behavior_fields_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.behavior_options
    ADD CONSTRAINT behavior_options_location_id_school_id_fkey FOREIGN KEY (location_id, school_id) REFERENCES public.locations(id, school_id);

ALTER TABLE ONLY public.behavior_options
    ADD CONSTRAINT behavior_options_merged_into_fkey FOREIGN KEY (merged_into) REFERENCES public.behavior_options(id);

ALTER TABLE ONLY public.behavior_options
    ADD CONSTRAINT behavior_options_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.behavior_options
    ADD CONSTRAINT behavior_options_student_id_school_id_fkey FOREIGN KEY (student_id, school_id) REFERENCES public.students(id, school_id);

ALTER TABLE ONLY public.behavior_phases
    ADD CONSTRAINT behavior_phases_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.behavior_phases
    ADD CONSTRAINT behavior_phases_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.behavior_phases
    ADD CONSTRAINT behavior_phases_target_id_student_id_fkey FOREIGN KEY (target_id, student_id) REFERENCES public.behavior_targets(id, student_id);

ALTER TABLE ONLY public.behavior_revisions
    ADD CONSTRAINT behavior_revisions_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.behavior_revisions
    ADD CONSTRAINT behavior_revisions_option_id_fkey FOREIGN KEY (option_id) REFERENCES public.behavior_options(id);

ALTER TABLE ONLY public.behavior_revisions
    ADD CONSTRAINT behavior_revisions_target_id_fkey FOREIGN KEY (target_id) REFERENCES public.behavior_targets(id);

ALTER TABLE ONLY public.behavior_targets
    ADD CONSTRAINT behavior_targets_merged_into_fkey FOREIGN KEY (merged_into) REFERENCES public.behavior_targets(id);

ALTER TABLE ONLY public.behavior_targets
    ADD CONSTRAINT behavior_targets_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.behavior_targets
    ADD CONSTRAINT behavior_targets_student_id_school_id_fkey FOREIGN KEY (student_id, school_id) REFERENCES public.students(id, school_id);

ALTER TABLE ONLY public.calendar_addresses
    ADD CONSTRAINT calendar_addresses_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.class_groups
    ADD CONSTRAINT class_groups_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.closures
    ADD CONSTRAINT closures_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_answers_fkey FOREIGN KEY (answers) REFERENCES public.comments(id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_hidden_by_fkey FOREIGN KEY (hidden_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_link_id_student_id_fkey FOREIGN KEY (link_id, student_id) REFERENCES public.share_links(id, student_id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_report_id_student_id_fkey FOREIGN KEY (report_id, student_id) REFERENCES public.issued_reports(id, student_id);

ALTER TABLE ONLY public.comments
    ADD CONSTRAINT comments_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.desk_goals
    ADD CONSTRAINT desk_goals_goal_id_student_id_fkey FOREIGN KEY (goal_id, student_id) REFERENCES public.goals(id, student_id);

ALTER TABLE ONLY public.desk_goals
    ADD CONSTRAINT desk_goals_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.desk_sessions
    ADD CONSTRAINT desk_sessions_card_id_fkey FOREIGN KEY (card_id) REFERENCES public.cards(id);

ALTER TABLE ONLY public.desk_sessions
    ADD CONSTRAINT desk_sessions_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.desk_turn_students
    ADD CONSTRAINT desk_turn_students_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.desk_turn_students
    ADD CONSTRAINT desk_turn_students_turn_id_fkey FOREIGN KEY (turn_id) REFERENCES public.desk_turns(id);

ALTER TABLE ONLY public.desk_turns
    ADD CONSTRAINT desk_turns_opened_by_fkey FOREIGN KEY (opened_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.destructions
    ADD CONSTRAINT destructions_asked_by_fkey FOREIGN KEY (asked_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.destructions
    ADD CONSTRAINT destructions_confirmed_by_fkey FOREIGN KEY (confirmed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.destructions
    ADD CONSTRAINT destructions_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.destructions
    ADD CONSTRAINT destructions_taken_back_by_fkey FOREIGN KEY (taken_back_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.device_factors
    ADD CONSTRAINT device_factors_device_id_fkey FOREIGN KEY (device_id) REFERENCES public.opened_devices(id);

ALTER TABLE ONLY public.device_factors
    ADD CONSTRAINT device_factors_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.district_accounts
    ADD CONSTRAINT district_accounts_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.document_batch_parts
    ADD CONSTRAINT document_batch_parts_batch_id_fkey FOREIGN KEY (batch_id) REFERENCES public.document_batches(id);

ALTER TABLE ONLY public.document_batch_parts
    ADD CONSTRAINT document_batch_parts_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.document_batches
    ADD CONSTRAINT document_batches_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.document_batches
    ADD CONSTRAINT document_batches_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_beside_id_fkey FOREIGN KEY (beside_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_form_id_form_version_fkey FOREIGN KEY (form_id, form_version) REFERENCES public.form_versions(form_id, version);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_giver_id_fkey FOREIGN KEY (giver_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_goal_id_measure_version_fkey FOREIGN KEY (goal_id, measure_version) REFERENCES public.goal_measures(goal_id, version);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_goal_id_student_id_fkey FOREIGN KEY (goal_id, student_id) REFERENCES public.goals(id, student_id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_location_id_fkey FOREIGN KEY (location_id) REFERENCES public.locations(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_observer_id_fkey FOREIGN KEY (observer_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_paired_by_fkey FOREIGN KEY (paired_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_pairs_with_fkey FOREIGN KEY (pairs_with) REFERENCES public.entries(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_recorded_by_fkey FOREIGN KEY (recorded_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_target_id_student_id_fkey FOREIGN KEY (target_id, student_id) REFERENCES public.behavior_targets(id, student_id);

ALTER TABLE ONLY public.entry_events
    ADD CONSTRAINT entry_events_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.entry_revisions
    ADD CONSTRAINT entry_revisions_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.entry_revisions
    ADD CONSTRAINT entry_revisions_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.evidence
    ADD CONSTRAINT evidence_added_by_fkey FOREIGN KEY (added_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.evidence
    ADD CONSTRAINT evidence_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.evidence
    ADD CONSTRAINT evidence_withdrawn_by_fkey FOREIGN KEY (withdrawn_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.feedback_answers
    ADD CONSTRAINT feedback_answers_held_by_fkey FOREIGN KEY (held_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.feedback_answers
    ADD CONSTRAINT feedback_answers_presentation_id_giver_id_fkey FOREIGN KEY (presentation_id, giver_id) REFERENCES public.presentation_members(presentation_id, student_id);

ALTER TABLE ONLY public.feedback_answers
    ADD CONSTRAINT feedback_answers_presentation_id_presenter_id_fkey FOREIGN KEY (presentation_id, presenter_id) REFERENCES public.presentation_members(presentation_id, student_id);

ALTER TABLE ONLY public.feedback_said
    ADD CONSTRAINT feedback_said_answer_id_fkey FOREIGN KEY (answer_id) REFERENCES public.feedback_answers(id);

ALTER TABLE ONLY public.feedback_said
    ADD CONSTRAINT feedback_said_seat_id_fkey FOREIGN KEY (seat_id) REFERENCES public.presentation_seats(id);

ALTER TABLE ONLY public.follow_up_changes
    ADD CONSTRAINT follow_up_changes_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.follow_up_changes
    ADD CONSTRAINT follow_up_changes_follow_up_id_student_id_fkey FOREIGN KEY (follow_up_id, student_id) REFERENCES public.follow_ups(id, student_id);

ALTER TABLE ONLY public.follow_up_changes
    ADD CONSTRAINT follow_up_changes_for_person_fkey FOREIGN KEY (for_person) REFERENCES public.people(id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_comment_id_fkey FOREIGN KEY (comment_id) REFERENCES public.comments(id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_firing_id_student_id_fkey FOREIGN KEY (firing_id, student_id) REFERENCES public.rule_firings(id, student_id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_for_person_fkey FOREIGN KEY (for_person) REFERENCES public.people(id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.follow_ups
    ADD CONSTRAINT follow_ups_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.form_versions
    ADD CONSTRAINT form_versions_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.forms(id);

ALTER TABLE ONLY public.form_versions
    ADD CONSTRAINT form_versions_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.forms
    ADD CONSTRAINT forms_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.forms
    ADD CONSTRAINT forms_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.goal_bank
    ADD CONSTRAINT goal_bank_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.goal_bank
    ADD CONSTRAINT goal_bank_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.goal_decisions
    ADD CONSTRAINT goal_decisions_goal_id_fkey FOREIGN KEY (goal_id) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goal_locations
    ADD CONSTRAINT goal_locations_goal_id_fkey FOREIGN KEY (goal_id) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goal_locations
    ADD CONSTRAINT goal_locations_location_id_fkey FOREIGN KEY (location_id) REFERENCES public.locations(id);

ALTER TABLE ONLY public.goal_measures
    ADD CONSTRAINT goal_measures_goal_id_fkey FOREIGN KEY (goal_id) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goal_observers
    ADD CONSTRAINT goal_observers_goal_id_fkey FOREIGN KEY (goal_id) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goal_observers
    ADD CONSTRAINT goal_observers_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.goal_phases
    ADD CONSTRAINT goal_phases_goal_id_fkey FOREIGN KEY (goal_id) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goal_revisions
    ADD CONSTRAINT goal_revisions_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.goal_revisions
    ADD CONSTRAINT goal_revisions_goal_id_fkey FOREIGN KEY (goal_id) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_continues_fkey FOREIGN KEY (continues) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_measure FOREIGN KEY (id, measure_version) REFERENCES public.goal_measures(goal_id, version) DEFERRABLE INITIALLY DEFERRED;

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_plan_id_student_id_fkey FOREIGN KEY (plan_id, student_id) REFERENCES public.plans(id, student_id);

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_replaced_by_fkey FOREIGN KEY (replaced_by) REFERENCES public.goals(id);

ALTER TABLE ONLY public.goals
    ADD CONSTRAINT goals_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.half_sign_ins
    ADD CONSTRAINT half_sign_ins_device_id_fkey FOREIGN KEY (device_id) REFERENCES public.opened_devices(id);

ALTER TABLE ONLY public.half_sign_ins
    ADD CONSTRAINT half_sign_ins_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.import_mappings
    ADD CONSTRAINT import_mappings_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.import_parts
    ADD CONSTRAINT import_parts_import_id_fkey FOREIGN KEY (import_id) REFERENCES public.imports(id);

ALTER TABLE ONLY public.import_parts
    ADD CONSTRAINT import_parts_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.imports
    ADD CONSTRAINT imports_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.imports
    ADD CONSTRAINT imports_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.imports
    ADD CONSTRAINT imports_undone_by_fkey FOREIGN KEY (undone_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.incident_choices
    ADD CONSTRAINT incident_choices_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.incident_choices
    ADD CONSTRAINT incident_choices_option_id_student_id_facet_fkey FOREIGN KEY (option_id, student_id, facet) REFERENCES public.behavior_options(id, student_id, facet);

ALTER TABLE ONLY public.incident_choices
    ADD CONSTRAINT incident_choices_target_id_student_id_fkey FOREIGN KEY (target_id, student_id) REFERENCES public.behavior_targets(id, student_id);

ALTER TABLE ONLY public.invitation_tokens
    ADD CONSTRAINT invitation_tokens_invitation_id_fkey FOREIGN KEY (invitation_id) REFERENCES public.invitations(id);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_accepted_by_fkey FOREIGN KEY (accepted_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.issued_report_entries
    ADD CONSTRAINT issued_report_entries_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.issued_report_entries
    ADD CONSTRAINT issued_report_entries_report_id_student_id_fkey FOREIGN KEY (report_id, student_id) REFERENCES public.issued_reports(id, student_id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_issued_by_fkey FOREIGN KEY (issued_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_period_id_fkey FOREIGN KEY (period_id) REFERENCES public.reporting_periods(id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_replaces_fkey FOREIGN KEY (replaces) REFERENCES public.issued_reports(id);

ALTER TABLE ONLY public.issued_reports
    ADD CONSTRAINT issued_reports_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.kept_names
    ADD CONSTRAINT kept_names_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.kept_names
    ADD CONSTRAINT kept_names_kept_by_fkey FOREIGN KEY (kept_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.known_devices
    ADD CONSTRAINT known_devices_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.locations
    ADD CONSTRAINT locations_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.message_entries
    ADD CONSTRAINT message_entries_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.message_entries
    ADD CONSTRAINT message_entries_message_id_student_id_fkey FOREIGN KEY (message_id, student_id) REFERENCES public.messages(id, student_id);

ALTER TABLE ONLY public.message_stops
    ADD CONSTRAINT message_stops_message_id_fkey FOREIGN KEY (message_id) REFERENCES public.messages(id);

ALTER TABLE ONLY public.message_templates
    ADD CONSTRAINT message_templates_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.message_templates
    ADD CONSTRAINT message_templates_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_account_link_id_fkey FOREIGN KEY (account_link_id) REFERENCES public.account_links(id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_again_of_fkey FOREIGN KEY (again_of) REFERENCES public.messages(id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_invitation_id_fkey FOREIGN KEY (invitation_id) REFERENCES public.invitations(id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_link_id_student_id_fkey FOREIGN KEY (link_id, student_id) REFERENCES public.share_links(id, student_id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.opened_devices
    ADD CONSTRAINT opened_devices_group_id_fkey FOREIGN KEY (group_id) REFERENCES public.class_groups(id);

ALTER TABLE ONLY public.opened_devices
    ADD CONSTRAINT opened_devices_opened_by_fkey FOREIGN KEY (opened_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.opened_devices
    ADD CONSTRAINT opened_devices_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.presentation_members
    ADD CONSTRAINT presentation_members_presentation_id_fkey FOREIGN KEY (presentation_id) REFERENCES public.presentations(id);

ALTER TABLE ONLY public.presentation_members
    ADD CONSTRAINT presentation_members_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.presentation_seats
    ADD CONSTRAINT presentation_seats_presentation_id_student_id_fkey FOREIGN KEY (presentation_id, student_id) REFERENCES public.presentation_members(presentation_id, student_id);

ALTER TABLE ONLY public.presentations
    ADD CONSTRAINT presentations_form_id_form_version_fkey FOREIGN KEY (form_id, form_version) REFERENCES public.form_versions(form_id, version);

ALTER TABLE ONLY public.presentations
    ADD CONSTRAINT presentations_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.presentations
    ADD CONSTRAINT presentations_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.progress_report_drafts
    ADD CONSTRAINT progress_report_drafts_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.progress_report_drafts
    ADD CONSTRAINT progress_report_drafts_period_id_fkey FOREIGN KEY (period_id) REFERENCES public.reporting_periods(id);

ALTER TABLE ONLY public.progress_report_drafts
    ADD CONSTRAINT progress_report_drafts_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.rating_links
    ADD CONSTRAINT rating_links_work_sample_id_fkey FOREIGN KEY (work_sample_id) REFERENCES public.work_samples(id);

ALTER TABLE ONLY public.rating_revisions
    ADD CONSTRAINT rating_revisions_rating_id_fkey FOREIGN KEY (rating_id) REFERENCES public.work_sample_ratings(id);

ALTER TABLE ONLY public.record_arrivals
    ADD CONSTRAINT record_arrivals_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.record_arrivals
    ADD CONSTRAINT record_arrivals_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.record_arrivals
    ADD CONSTRAINT record_arrivals_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.record_requests
    ADD CONSTRAINT record_requests_answered_by_fkey FOREIGN KEY (answered_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.record_requests
    ADD CONSTRAINT record_requests_noted_by_fkey FOREIGN KEY (noted_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.record_requests
    ADD CONSTRAINT record_requests_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.recovery_codes
    ADD CONSTRAINT recovery_codes_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.reporting_periods
    ADD CONSTRAINT reporting_periods_plan_id_fkey FOREIGN KEY (plan_id) REFERENCES public.plans(id);

ALTER TABLE ONLY public.round_forms
    ADD CONSTRAINT round_forms_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.forms(id);

ALTER TABLE ONLY public.round_forms
    ADD CONSTRAINT round_forms_round_id_fkey FOREIGN KEY (round_id) REFERENCES public.rounds(id);

ALTER TABLE ONLY public.round_goals
    ADD CONSTRAINT round_goals_goal_id_student_id_fkey FOREIGN KEY (goal_id, student_id) REFERENCES public.goals(id, student_id);

ALTER TABLE ONLY public.round_goals
    ADD CONSTRAINT round_goals_round_id_fkey FOREIGN KEY (round_id) REFERENCES public.rounds(id);

ALTER TABLE ONLY public.rounds
    ADD CONSTRAINT rounds_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.rounds
    ADD CONSTRAINT rounds_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_goal_id_student_id_fkey FOREIGN KEY (goal_id, student_id) REFERENCES public.goals(id, student_id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_rule_id_version_fkey FOREIGN KEY (rule_id, version) REFERENCES public.rule_versions(rule_id, version);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.rule_firings
    ADD CONSTRAINT rule_firings_tell_fkey FOREIGN KEY (tell) REFERENCES public.people(id);

ALTER TABLE ONLY public.rule_looks
    ADD CONSTRAINT rule_looks_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.rule_looks
    ADD CONSTRAINT rule_looks_state_id_student_id_fkey FOREIGN KEY (state_id, student_id) REFERENCES public.work_states(id, student_id);

ALTER TABLE ONLY public.rule_nights
    ADD CONSTRAINT rule_nights_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.rule_versions
    ADD CONSTRAINT rule_versions_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.rule_versions
    ADD CONSTRAINT rule_versions_rule_id_fkey FOREIGN KEY (rule_id) REFERENCES public.rules(id);

ALTER TABLE ONLY public.rules
    ADD CONSTRAINT rules_group_id_school_id_fkey FOREIGN KEY (group_id, school_id) REFERENCES public.class_groups(id, school_id);

ALTER TABLE ONLY public.rules
    ADD CONSTRAINT rules_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.rules
    ADD CONSTRAINT rules_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.rules
    ADD CONSTRAINT rules_student_id_school_id_fkey FOREIGN KEY (student_id, school_id) REFERENCES public.students(id, school_id);

ALTER TABLE ONLY public.school_staff
    ADD CONSTRAINT school_staff_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.school_staff
    ADD CONSTRAINT school_staff_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.second_factors
    ADD CONSTRAINT second_factors_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.share_link_passes
    ADD CONSTRAINT share_link_passes_link_id_fkey FOREIGN KEY (link_id) REFERENCES public.share_links(id);

ALTER TABLE ONLY public.share_link_tokens
    ADD CONSTRAINT share_link_tokens_link_id_fkey FOREIGN KEY (link_id) REFERENCES public.share_links(id);

ALTER TABLE ONLY public.share_links
    ADD CONSTRAINT share_links_created_by_fkey FOREIGN KEY (created_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.share_links
    ADD CONSTRAINT share_links_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.share_links
    ADD CONSTRAINT share_links_withdrawn_by_fkey FOREIGN KEY (withdrawn_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.sign_in_sessions
    ADD CONSTRAINT sign_in_sessions_device_id_fkey FOREIGN KEY (device_id) REFERENCES public.opened_devices(id);

ALTER TABLE ONLY public.sign_in_sessions
    ADD CONSTRAINT sign_in_sessions_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.sign_in_sessions
    ADD CONSTRAINT sign_in_sessions_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_stack_id_fkey FOREIGN KEY (stack_id) REFERENCES public.stacks(id);

ALTER TABLE ONLY public.stack_raters
    ADD CONSTRAINT stack_raters_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.stack_turns
    ADD CONSTRAINT stack_turns_rater_id_stack_id_fkey FOREIGN KEY (rater_id, stack_id) REFERENCES public.stack_raters(id, stack_id);

ALTER TABLE ONLY public.stack_turns
    ADD CONSTRAINT stack_turns_work_sample_id_fkey FOREIGN KEY (work_sample_id) REFERENCES public.work_samples(id);

ALTER TABLE ONLY public.stacks
    ADD CONSTRAINT stacks_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.stacks
    ADD CONSTRAINT stacks_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.student_forms
    ADD CONSTRAINT student_forms_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.forms(id);

ALTER TABLE ONLY public.student_forms
    ADD CONSTRAINT student_forms_given_by_fkey FOREIGN KEY (given_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.student_forms
    ADD CONSTRAINT student_forms_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.student_groups
    ADD CONSTRAINT student_groups_group_id_school_id_fkey FOREIGN KEY (group_id, school_id) REFERENCES public.class_groups(id, school_id);

ALTER TABLE ONLY public.student_groups
    ADD CONSTRAINT student_groups_student_id_school_id_fkey FOREIGN KEY (student_id, school_id) REFERENCES public.students(id, school_id);

ALTER TABLE ONLY public.student_works
    ADD CONSTRAINT student_works_given_by_fkey FOREIGN KEY (given_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.student_works
    ADD CONSTRAINT student_works_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.student_works
    ADD CONSTRAINT student_works_work_id_fkey FOREIGN KEY (work_id) REFERENCES public.works(id);

ALTER TABLE ONLY public.students
    ADD CONSTRAINT students_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.team_members
    ADD CONSTRAINT team_members_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.team_members
    ADD CONSTRAINT team_members_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.team_members
    ADD CONSTRAINT team_members_student_id_fkey FOREIGN KEY (student_id) REFERENCES public.students(id);

ALTER TABLE ONLY public.timetable_blocks
    ADD CONSTRAINT timetable_blocks_group_id_school_id_fkey FOREIGN KEY (group_id, school_id) REFERENCES public.class_groups(id, school_id);

ALTER TABLE ONLY public.timetable_blocks
    ADD CONSTRAINT timetable_blocks_location_id_school_id_fkey FOREIGN KEY (location_id, school_id) REFERENCES public.locations(id, school_id);

ALTER TABLE ONLY public.timetable_blocks
    ADD CONSTRAINT timetable_blocks_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.timetable_blocks
    ADD CONSTRAINT timetable_blocks_student_id_school_id_fkey FOREIGN KEY (student_id, school_id) REFERENCES public.students(id, school_id);

ALTER TABLE ONLY public.visibility_rules
    ADD CONSTRAINT visibility_rules_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.visibility_rules
    ADD CONSTRAINT visibility_rules_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);

ALTER TABLE ONLY public.visibility_rules
    ADD CONSTRAINT visibility_rules_student_id_school_id_fkey FOREIGN KEY (student_id, school_id) REFERENCES public.students(id, school_id);

ALTER TABLE ONLY public.work_sample_files
    ADD CONSTRAINT work_sample_files_added_by_fkey FOREIGN KEY (added_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.work_sample_files
    ADD CONSTRAINT work_sample_files_work_sample_id_fkey FOREIGN KEY (work_sample_id) REFERENCES public.work_samples(id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_card_id_fkey FOREIGN KEY (card_id) REFERENCES public.cards(id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.people(id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_rating_link_id_fkey FOREIGN KEY (rating_link_id) REFERENCES public.rating_links(id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_stack_rater_id_fkey FOREIGN KEY (stack_rater_id) REFERENCES public.stack_raters(id);

ALTER TABLE ONLY public.work_sample_ratings
    ADD CONSTRAINT work_sample_ratings_work_sample_id_fkey FOREIGN KEY (work_sample_id) REFERENCES public.work_samples(id);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_entry_id_student_id_fkey FOREIGN KEY (entry_id, student_id) REFERENCES public.entries(id, student_id);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_goal_id_measure_version_fkey FOREIGN KEY (goal_id, measure_version) REFERENCES public.goal_measures(goal_id, version);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_goal_id_student_id_fkey FOREIGN KEY (goal_id, student_id) REFERENCES public.goals(id, student_id);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.work_samples
    ADD CONSTRAINT work_samples_stack_id_fkey FOREIGN KEY (stack_id) REFERENCES public.stacks(id);

ALTER TABLE ONLY public.work_state_seen
    ADD CONSTRAINT work_state_seen_seen_by_fkey FOREIGN KEY (seen_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.work_state_seen
    ADD CONSTRAINT work_state_seen_state_id_student_id_fkey FOREIGN KEY (state_id, student_id) REFERENCES public.work_states(id, student_id);

ALTER TABLE ONLY public.work_states
    ADD CONSTRAINT work_states_card_id_fkey FOREIGN KEY (card_id) REFERENCES public.cards(id);

ALTER TABLE ONLY public.work_states
    ADD CONSTRAINT work_states_student_id_work_id_fkey FOREIGN KEY (student_id, work_id) REFERENCES public.student_works(student_id, work_id);

ALTER TABLE ONLY public.work_states
    ADD CONSTRAINT work_states_work_id_step_id_fkey FOREIGN KEY (work_id, step_id) REFERENCES public.work_steps(work_id, id);

ALTER TABLE ONLY public.work_steps
    ADD CONSTRAINT work_steps_work_id_fkey FOREIGN KEY (work_id) REFERENCES public.works(id);

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.people(id);

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_school_id_fkey FOREIGN KEY (school_id) REFERENCES public.schools(id);
