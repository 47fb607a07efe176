/**
 * Who asks is said once for a transaction: `app.person` and `app.today`, or `app.door`, the student to whom a link leads. What they
 * may see is looked up by functions of the owner, since a policy that read the table that it guards would ask itself.
 */
export const functions = `
  create or replace function asker() returns uuid language sql stable as
    $$ select nullif(current_setting('app.person', true), '')::uuid $$;
  create or replace function asked_on() returns date language sql stable as
    $$ select coalesce(nullif(current_setting('app.today', true), '')::date, current_date) $$;

  -- In plpgsql, which keeps its plans for the connection, and with every name in full, so that no path has to be set: these are asked by
  -- every query.
  create or replace function visible_students() returns uuid[] language plpgsql stable security definer as $$
    declare
      door text := nullif(current_setting('app.door', true), '');
    begin
      if door is not null then return array[door::uuid]; end if;
      return coalesce((select array_agg(student_id) from public.team_members
         where person_id = public.asker() and from_date <= public.asked_on() and coalesce(until_date, 'infinity') >= public.asked_on()), '{}');
    end
  $$;
  create or replace function administered_schools() returns uuid[] language plpgsql stable security definer as $$
    begin
      -- A PIN opens no page of the school.
      if current_setting('app.by_pin', true) = 'yes' then return '{}'; end if;
      return coalesce((select array_agg(school_id) from public.school_staff
         where person_id = public.asker() and is_admin and from_date <= public.asked_on() and coalesce(until_date, 'infinity') >= public.asked_on()), '{}');
    end
  $$;
  -- Where the one who asks works, or the student goes to whom their link leads.
  create or replace function asker_schools() returns uuid[] language plpgsql stable security definer as $$
    declare
      door text := nullif(current_setting('app.door', true), '');
    begin
      if door is not null then return array(select school_id from public.students where id = door::uuid); end if;
      return array(select school_id from public.school_staff
         where person_id = public.asker() and from_date <= public.asked_on() and coalesce(until_date, 'infinity') >= public.asked_on());
    end
  $$;
  create or replace function asker_email() returns text language plpgsql stable security definer as $$
    begin
      return (select lower(email) from public.people where id = public.asker() and email_proven_at is not null);
    end
  $$;

  -- Whether somebody shares reports of a school's students: asked where a school wants a code beside the password of whoever does.
  create or replace function shares_reports(of_person uuid, at_school uuid, on_day date) returns boolean
    language plpgsql stable security definer as $$
    begin
      return exists (select from public.team_members m join public.students s on s.id = m.student_id
        where m.person_id = of_person and s.school_id = at_school and (m.role = 'caseManager' or 'share' = any(m.rights))
              and m.from_date <= on_day and coalesce(m.until_date, 'infinity') >= on_day);
    end
  $$;

  -- To whom a link from outside leads; it tells no more than that.
  create or replace function student_behind(hash bytea) returns table (student_id uuid, school_id uuid)
    language sql stable security definer set search_path = public as $$
    select s.id, s.school_id
      from (select l.student_id from share_link_tokens t join share_links l on l.id = t.link_id where t.token_hash = hash
            union all
            select i.student_id from invitation_tokens t join invitations i on i.id = t.invitation_id where t.token_hash = hash
            union all
            select w.student_id from rating_links t join work_samples w on w.id = t.work_sample_id where t.token_hash = hash
            union all
            select m.student_id from message_stops t join messages m on m.id = t.message_id where t.token_hash = hash
            union all
            select k.student_id from cards k where hash in (k.token_hash, k.code_hash)) as door
      join students s on s.id = door.student_id
  $$;
  -- Whose desk a session is at: asked with every tap.
  create or replace function student_at_desk(hash bytea) returns uuid language plpgsql stable security definer as $$
    begin
      return (select student_id from public.desk_sessions where token_hash = hash);
    end
  $$;
  -- Who may sit down at a shared tablet that was opened with this token: those who have a card.
  create or replace function students_at_turn(hash bytea, at timestamptz)
    returns table (student_id uuid, first_name text, initials text, card_id uuid, is_demo boolean)
    language sql stable security definer set search_path = public as $$
    select s.id, s.first_name, s.initials, k.id, c.is_demo
      from desk_turns t join desk_turn_students m on m.turn_id = t.id
      join students s on s.id = m.student_id and s.archived_at is null
      join schools c on c.id = s.school_id
      join cards k on k.student_id = s.id and k.ended_at is null
     where t.token_hash = hash and t.ends_at > at
  $$;
  -- Who may answer for presenters on a device that was opened with this token, while it is not closed.
  create or replace function students_presenting(hash bytea)
    returns table (presentation_id uuid, student_id uuid, first_name text, initials text, is_demo boolean)
    language sql stable security definer set search_path = public as $$
    select p.id, s.id, s.first_name, s.initials, c.is_demo
      from presentations p join presentation_members m on m.presentation_id = p.id
      join students s on s.id = m.student_id and s.archived_at is null
      join schools c on c.id = s.school_id
     where p.token_hash = hash and p.closed_at is null
  $$;
  -- Which work samples the holder of a link rates, whose each is, and whether they have.
  drop function if exists stack_behind(bytea);
  create function stack_behind(hash bytea)
    returns table (stack_id uuid, rater_id uuid, title text, is_closed boolean, is_demo boolean, work_sample_id uuid, number int,
                   student_id uuid, is_rated boolean)
    language sql stable security definer set search_path = public as $$
    select k.id, r.id, k.title, k.closed_at is not null, c.is_demo, t.work_sample_id, w.number, w.student_id,
           exists (select from work_sample_ratings g where g.work_sample_id = w.id and g.stack_rater_id = r.id)
      from stack_raters r join stacks k on k.id = r.stack_id join schools c on c.id = k.school_id
      join stack_turns t on t.rater_id = r.id
      join work_samples w on w.id = t.work_sample_id and w.entry_id is null
      join students s on s.id = w.student_id and s.archived_at is null
     where r.token_hash = hash order by w.number
  $$;
  -- Takes away a goal of a student that the one who asks sees, of which nothing was ever recorded and which nothing else names; says whether.
  create or replace function delete_unused_goal(goal uuid) returns boolean language plpgsql security definer as $$
    begin
      perform from public.goals where id = goal and student_id = any(public.visible_students()) for update;
      if not found or exists (select from public.entries where goal_id = goal) then return false; end if;
      perform set_config('app.deletes_goal', goal::text, true);
      delete from public.goal_observers where goal_id = goal;
      delete from public.goal_locations where goal_id = goal;
      delete from public.goal_phases where goal_id = goal;
      delete from public.goal_revisions where goal_id = goal;
      delete from public.goal_decisions where goal_id = goal;
      delete from public.round_goals where goal_id = goal;
      set constraints goals_measure deferred;
      delete from public.goal_measures where goal_id = goal;
      delete from public.goals where id = goal;
      perform set_config('app.deletes_goal', '', true);
      return true;
    exception when foreign_key_violation then
      return false;
    end
  $$;
  -- Whose a device is on which somebody answers.
  create or replace function student_in_seat(hash bytea) returns uuid language plpgsql stable security definer as $$
    begin
      return (select student_id from public.presentation_seats where token_hash = hash);
    end
  $$;
  -- Who presents, by first name, to those who are in it with them.
  create or replace function presenters_of(presentation uuid) returns table (student_id uuid, first_name text, initials text, place int)
    language sql stable security definer set search_path = public as $$
    select s.id, s.first_name, s.initials, m.place
      from presentation_members m join students s on s.id = m.student_id
     where m.presentation_id = presentation and m.place is not null and s.archived_at is null
       and exists (select from presentation_members own
                    where own.presentation_id = presentation and own.student_id = any((select visible_students())::uuid[]))
  $$;
  -- What is to be carried over into a presenter's notes: what a classmate said to them last.
  create or replace function feedback_to_carry(answer uuid)
    returns table ("presenterId" uuid, "giverId" uuid, "formId" uuid, "formVersion" int, "madeBy" uuid, "isHeld" boolean, answers jsonb, "saidAt" timestamptz)
    language sql stable security definer set search_path = public as $$
    select a.presenter_id, a.giver_id, p.form_id, p.form_version, p.made_by, a.held_at is not null, s.answers, s.said_at
      from feedback_answers a join presentations p on p.id = a.presentation_id
      join lateral (select x.answers, x.said_at from feedback_said x where x.answer_id = a.id order by x.seq desc limit 1) s on true
     where a.id = answer and a.presenter_id = any((select visible_students())::uuid[])
  $$;
  -- First names of classmates who gave a student feedback, where it was said that they are told.
  create or replace function givers_of(presenter uuid) returns table (entry_id uuid, first_name text)
    language sql stable security definer set search_path = public as $$
    select a.id, s.first_name
      from feedback_answers a join presentations p on p.id = a.presentation_id and p.shows_names
      join students s on s.id = a.giver_id
     where a.presenter_id = presenter and a.presenter_id = any((select visible_students())::uuid[])
  $$;
  -- The students to whose teams the one who asks is invited, by name.
  create or replace function invited_students() returns table (id uuid, short_name text, archived_at timestamptz)
    language sql stable security definer set search_path = public as $$
    select s.id, s.short_name, s.archived_at from students s
     where s.id in (select i.student_id from invitations i where lower(i.email) = asker_email())
  $$;
  -- Opens the door to the student of an invitation to the one who asks, for this transaction; whether there is one.
  create or replace function open_invitation(invitation uuid) returns boolean
    language sql volatile security definer set search_path = public as $$
    select set_config('app.door', i.student_id::text, true) is not null from invitations i
     where i.id = invitation and lower(i.email) = asker_email()
  $$;
  -- The same for a student to whose team the roster has somebody who was asked to join the school.
  create or replace function open_awaited(student uuid) returns boolean
    language sql volatile security definer set search_path = public as $$
    select set_config('app.door', a.student_id::text, true) is not null from awaited_members a
     where a.student_id = student and lower(a.email) = asker_email()
  $$;
  -- Of some students of a school one administers those of whom anything was set up or recorded: whether, and not what.
  create or replace function students_begun(students uuid[]) returns setof uuid
    language sql stable security definer set search_path = public as $$
    select s.id from students s
     where s.id = any(students) and (current_setting('role') = 'none' or s.school_id = any(administered_schools()))
       and (exists (select from goals g where g.student_id = s.id) or exists (select from entries e where e.student_id = s.id))
  $$;
  -- The names on the roster of a student's school, for whoever hides other children's names from readers.
  create or replace function roster_names(of_student uuid)
    returns table (id uuid, school_id uuid, first_name text, last_name text, short_name text, initials text, grade text, archived_at timestamptz)
    language sql stable security definer set search_path = public as $$
    select s.id, s.school_id, s.first_name, s.last_name, s.short_name, s.initials, s.grade, s.archived_at
      from students o join students s on s.school_id = o.school_id where o.id = of_student
  $$;
  -- The same for whoever puts somebody on it: a namesake is asked about. For staff of that school.
  create or replace function names_at_school(of_school uuid)
    returns table (id uuid, first_name text, last_name text, grade text, archived_at timestamptz)
    language sql stable security definer set search_path = public as $$
    select s.id, s.first_name, s.last_name, s.grade, s.archived_at from students s
     where s.school_id = of_school and s.undone_at is null and (current_setting('role') = 'none' or exists (
       select from school_staff a where a.school_id = of_school and a.person_id = asker()))
  $$;
  -- Who a student is whose record is to be destroyed, or merged: how much is held of them and since when, and not what.
  create or replace function held_of(of_school uuid, students uuid[], since date)
    returns table (student_id uuid, entries int, recent int, goals int, first_year int, last_year int)
    language sql stable security definer set search_path = public as $$
    select s.id,
           (select count(*)::int from entries e where e.student_id = s.id and not e.withdrawn),
           (select count(*)::int from entries e where e.student_id = s.id and not e.withdrawn and e.observed_on > since),
           (select count(*)::int from goals g where g.student_id = s.id),
           extract(year from (select least((select min(starts_on) from plans p where p.student_id = s.id), (select min(observed_on) from entries e where e.student_id = s.id))))::int,
           extract(year from (select greatest((select max(ends_on) from plans p where p.student_id = s.id), (select max(observed_on) from entries e where e.student_id = s.id))))::int
      from students s
     where s.id = any(students) and s.school_id = of_school
       and (current_setting('role') = 'none' or of_school = any(administered_schools()))
  $$;
  -- At which school a student is, whoever asks: no more is told than that an id is taken.
  create or replace function school_of(student uuid) returns uuid language sql stable security definer set search_path = public as
    $$ select school_id from students where id = student $$;
  -- Whether any of the names on it has changed.
  create or replace function roster_state(of_student uuid) returns table (school_id uuid, state text)
    language sql stable security definer set search_path = public as $$
    select school_id, concat(count(*), ' ', sum(hashtextextended(
             concat_ws(e'\\n', id, first_name, last_name, short_name, initials, archived_at is null), 0)))
      from students where school_id = (select o.school_id from students o where o.id = of_student) group by school_id
  $$;
  -- Of some students those that the one who asks may know of while they write about another: of their teams, of the same class groups,
  -- and for an administrator all.
  create or replace function known_children(of_student uuid, children uuid[]) returns setof uuid
    language sql stable security definer set search_path = public as $$
    select s.id from students s
     where s.id = any(children)
       and (s.id = any(visible_students()) or s.school_id = any(administered_schools())
            or exists (select from student_groups a join student_groups b on b.group_id = a.group_id
                        where a.student_id = s.id and b.student_id = of_student))
  $$;
  -- What the people of the demo are to how many students: for its sign-in page only.
  create or replace function demo_roles() returns table (person_id uuid, role text, students int)
    language sql stable security definer set search_path = public as $$
    select m.person_id, m.role, count(*)::int
      from team_members m join students s on s.id = m.student_id join schools c on c.id = s.school_id
     where c.is_demo group by m.person_id, m.role
  $$;

  -- Whether a student's record is asked for and not shown yet, or an amendment is not decided: then nothing of it is destroyed.
  create or replace function record_is_asked_for(of_student uuid) returns boolean
    language sql stable security definer set search_path = public as $$
    select exists (select from record_requests r where r.student_id = of_student and r.answered_at is null)
        or exists (select from comments c where c.student_id = of_student and c.kind = 'amendment'
                    and not exists (select from comments d where d.answers = c.id and d.kind = 'decision'))
  $$;

  -- Plans of a school are not what its administrators see; how many reach over the end of a period that they have not, they may know.
  create or replace function plans_without_period(of_school uuid, days date[]) returns table (day date, plans int)
    language sql stable security definer set search_path = public as $$
    select d.day, count(p.id)::int
      from unnest(days) as d (day)
      left join (plans p join students s on s.id = p.student_id and s.school_id = of_school and s.archived_at is null)
        on d.day between p.starts_on and p.ends_on
           and not exists (select from reporting_periods r where r.plan_id = p.id and r.ends_on = d.day and r.removed_at is null)
     where current_setting('role') = 'none' or of_school = any(administered_schools())
     group by d.day
  $$;
  -- Lays a reporting period out in each of them, and writes that down.
  create or replace function lay_out_period(of_school uuid, called text, ends date, at timestamptz) returns int
    language sql volatile security definer set search_path = public as $$
    with laid as (
      insert into reporting_periods (plan_id, label, ends_on)
      select p.id, called, ends from plans p join students s on s.id = p.student_id
       where s.school_id = of_school and s.archived_at is null and ends between p.starts_on and p.ends_on
         and (current_setting('role') = 'none' or of_school = any(administered_schools()))
         and not exists (select from reporting_periods r where r.plan_id = p.id and r.ends_on = ends and r.removed_at is null)
      returning plan_id),
    told as (
      insert into changes (school_id, student_id, what, before, after, changed_by, changed_at)
      select of_school, p.student_id, 'plan', null, jsonb_build_object('period', called, 'endsOn', ends), asker(), at
        from laid join plans p on p.id = laid.plan_id
      returning 1)
    select count(*)::int from told
  $$;

  -- A school in numbers, by case manager, for those who set it up: when something was last observed, due and issued, and nothing of what.
  create or replace function school_in_numbers(of_school uuid, today date, since date)
    returns table (manager_id uuid, students int, goals jsonb, periods jsonb, plan_ends date[], without_plan int,
                   sessions int, paired int, supported int, told int)
    language sql stable security definer set search_path = public as $$
    with here as (
      select s.id, m.person_id as manager_id from students s
        left join team_members m on m.student_id = s.id and m.role = 'caseManager' and m.from_date <= today
              and coalesce(m.until_date, 'infinity') >= today
       where s.school_id = of_school and s.archived_at is null
         and (current_setting('role') = 'none' or of_school = any(administered_schools()))),
    worked as (
      select h.manager_id, jsonb_agg(jsonb_build_object('startsOn', g.starts_on, 'plannedGap', g.planned_gap, 'lastOn',
               (select max(e.observed_on) from entries e
                 where e.student_id = g.student_id and e.goal_id = g.id and e.kind = 'goal' and not e.withdrawn))) as goals
        from here h join goals g on g.student_id = h.id and g.retired_on is null and g.starts_on <= today
       group by h.manager_id),
    due as (
      select h.manager_id, jsonb_agg(jsonb_build_object('endsOn', r.ends_on, 'isIssued',
               exists (select from issued_reports i where i.period_id = r.id))) as periods
        -- Of the plan that holds, or held last: a report that nobody issued is late after its plan too.
        from here h join plans p on p.student_id = h.id
              and p.starts_on = (select max(l.starts_on) from plans l where l.student_id = h.id and l.starts_on <= today)
             join reporting_periods r on r.plan_id = p.id and r.removed_at is null
       group by h.manager_id),
    planned as (
      select h.manager_id, array_agg(l.ends_on order by l.ends_on) filter (where l.ends_on >= today) as ends,
             count(*) filter (where l.ends_on is null or l.ends_on < today)::int as without
        from here h left join lateral (select max(p.ends_on) as ends_on from plans p where p.student_id = h.id) l on true
       group by h.manager_id),
    seen as (
      select h.manager_id, count(*)::int as sessions,
             count(*) filter (where exists (select from entries x where x.pairs_with = e.id and not x.withdrawn))::int as paired,
             count(*) filter (where jsonb_array_length(f.steps) > 0)::int as supported,
             count(*) filter (where jsonb_array_length(f.steps) > 0 and e.fidelity is not null)::int as told
        from here h join entries e on e.student_id = h.id and e.kind = 'goal' and not e.withdrawn and e.data is not null
              and e.pairs_with is null and not e.self_recorded and e.observed_on between since and today
        left join lateral (select steps from goal_phases f where f.goal_id = e.goal_id and f.starts_on <= e.observed_on
                            order by f.starts_on desc limit 1) f on true
       group by h.manager_id)
    select k.manager_id, k.students, coalesce(w.goals, '[]'), coalesce(d.periods, '[]'), coalesce(l.ends, '{}'), l.without,
           coalesce(n.sessions, 0), coalesce(n.paired, 0), coalesce(n.supported, 0), coalesce(n.told, 0)
      from (select h.manager_id, count(*)::int as students from here h group by h.manager_id) k
           left join worked w on w.manager_id is not distinct from k.manager_id
           left join due d on d.manager_id is not distinct from k.manager_id
           join planned l on l.manager_id is not distinct from k.manager_id
           left join seen n on n.manager_id is not distinct from k.manager_id
  $$;
`;
