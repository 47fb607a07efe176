/** What a school has: its locations, groups, closures and timetable. */
export const school = `
  create table locations (
    id uuid primary key,
    school_id uuid not null references schools,
    name text not null check (name <> ''),
    position int not null,
    unique (id, school_id)
  );
  create unique index locations_name on locations (school_id, lower(name));
  create table class_groups (
    id uuid primary key,
    school_id uuid not null references schools,
    name text not null check (name <> ''),
    position int not null,
    unique (id, school_id)
  );
  create unique index class_groups_name on class_groups (school_id, lower(name));
  create table closures (
    school_id uuid not null references schools,
    first_day date not null,
    last_day date not null check (last_day >= first_day),
    label text not null check (label <> ''),
    primary key (school_id, first_day, label)
  );
`;
