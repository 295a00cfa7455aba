-- +goose Up
-- Every row of health data belongs to a practice. Keys are (practice_id, id),
-- also in foreign keys, because foreign keys look past row-level security.

create table practice (
    id         uuid primary key,
    name       text        not null check (name <> ''),
    time_zone  text        not null,
    created_at timestamptz not null default now()
);

create table person (
    practice_id uuid not null references practice (id),
    id          uuid not null,
    name        text not null check (name <> ''),
    role        text not null check (role in ('therapist', 'assistant')),
    primary key (practice_id, id)
);

create table client (
    practice_id uuid        not null references practice (id),
    id          uuid        not null,
    given_name  text        not null check (given_name <> ''),
    family_name text        not null check (family_name <> ''),
    born_on     date,
    height_cm   numeric(4, 1) check (height_cm between 50 and 250),
    work        text        not null default '',
    complaint   text        not null default '',
    cautions    text[]      not null default '{}',
    revision    bigint      not null default 1,
    created_at  timestamptz not null default now(),
    primary key (practice_id, id)
);

create table visit (
    practice_id  uuid        not null references practice (id),
    id           uuid        not null,
    client_id    uuid        not null,
    therapist_id uuid        not null,
    starts_at    timestamptz not null,
    minutes      int         not null default 60 check (minutes between 5 and 480),
    reason       text        not null default '',
    version      bigint      not null default 0,
    opened_at    timestamptz,
    closed_at    timestamptz,
    primary key (practice_id, id),
    unique (practice_id, client_id, id),
    foreign key (practice_id, client_id) references client (practice_id, id),
    foreign key (practice_id, therapist_id) references person (practice_id, id)
);
create index visit_by_time on visit (practice_id, starts_at);
create index visit_by_client on visit (practice_id, client_id, starts_at);

-- The log. Nothing is updated or deleted here; tables below are its present state.
create table visit_event (
    practice_id uuid        not null,
    id          uuid        not null,
    client_id   uuid        not null,
    visit_id    uuid        not null,
    author_id   uuid        not null,
    device_id   uuid        not null,
    seq         bigint      not null check (seq > 0),
    device_ms   bigint      not null check (device_ms >= 0),
    received_at timestamptz not null default now(),
    seen        bigint      not null,
    version     bigint      not null,
    schema      int         not null,
    type        text        not null,
    body        jsonb       not null,
    primary key (practice_id, id),
    unique (practice_id, visit_id, version),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id),
    foreign key (practice_id, author_id) references person (practice_id, id)
);

create table charted_point (
    practice_id uuid not null,
    id          uuid not null,
    client_id   uuid not null,
    visit_id    uuid not null,
    identity    uuid not null,
    muscle      text not null,
    side        text not null check (side in ('left', 'right')),
    site        text not null default '',
    figure      text not null,
    view        text not null,
    x           double precision not null,
    y           double precision not null,
    fibre       int  not null,
    along_pct   double precision not null,
    across_mm   double precision not null,
    grade       int  not null check (grade between 0 and 4),
    nprs        numeric(3, 1) check (nprs between 0 and 10),
    after_nprs  numeric(3, 1) check (after_nprs between 0 and 10),
    primary key (practice_id, visit_id, id),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
create index charted_point_by_identity on charted_point (practice_id, client_id, identity);

create table hold (
    practice_id   uuid   not null,
    id            uuid   not null,
    client_id     uuid   not null,
    visit_id      uuid   not null,
    point_id      uuid   not null,
    started_at    timestamptz not null,
    protocol      text   not null,
    rules_version text   not null,
    status        text   not null check (status in ('live', 'kept', 'aside')),
    why           text   not null default '',
    outcome       text   not null,
    pressure_ms   bigint not null check (pressure_ms between 0 and 120000),
    overrun_ms    bigint not null check (overrun_ms >= 0),
    stages        int    not null,
    summary       jsonb  not null,
    primary key (practice_id, visit_id, id),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);

create table range_reading (
    practice_id uuid not null,
    client_id   uuid not null,
    visit_id    uuid not null,
    movement    text not null,
    side        text not null,
    before_deg  double precision,
    after_deg   double precision,
    primary key (practice_id, visit_id, movement, side),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);

create table audit (
    practice_id uuid        not null,
    id          bigint      generated always as identity,
    at          timestamptz not null default now(),
    person_id   uuid        not null,
    verb        text        not null,
    kind        text        not null,
    subject     text        not null default '',
    client_id   uuid,
    primary key (practice_id, id)
);
create index audit_by_client on audit (practice_id, client_id, at);

-- Row-level security, forced, beneath every query.
-- +goose StatementBegin
do $$
declare t text;
begin
    foreach t in array array['person', 'client', 'visit', 'visit_event', 'charted_point', 'hold', 'range_reading', 'audit'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format($p$create policy of_practice on %I
            using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
            with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)$p$, t);
    end loop;
end $$;
-- +goose StatementEnd
alter table practice enable row level security;
alter table practice force row level security;
create policy own_practice on practice
    using (id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (id = nullif(current_setting('mokren.practice', true), '')::uuid);

-- Tables without a practice: login (who may sign in) and session. Login is
-- reached through the two functions below only.
create table login (
    email         text primary key check (email = lower(email)),
    practice_id   uuid not null,
    person_id     uuid not null,
    password_hash text not null
);

-- +goose StatementBegin
create function login_find(wanted text)
    returns table (practice_id uuid, person_id uuid, password_hash text)
    language sql stable security definer set search_path = public
as $$ select practice_id, person_id, password_hash from login where email = lower(wanted) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_put(new_email text, new_practice uuid, new_person uuid, new_hash text)
    returns void
    language plpgsql security definer set search_path = public
as $$ begin
    if new_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'a login is made only within its own practice';
    end if;
    insert into login (email, practice_id, person_id, password_hash) values (lower(new_email), new_practice, new_person, new_hash);
end $$;
-- +goose StatementEnd

create table session (
    token  text primary key,
    data   bytea       not null,
    expiry timestamptz not null
);
create index session_expiry on session (expiry);

revoke all on all tables in schema public from public;
revoke all on function login_find(text) from public;
revoke all on function login_put(text, uuid, uuid, text) from public;
grant usage on schema public to mokren_app;
grant select, insert on practice, person, audit, visit_event to mokren_app;
grant select, insert, update on client, visit to mokren_app;
grant select, insert, update, delete on charted_point, hold, range_reading, session to mokren_app;
grant execute on function login_find(text), login_put(text, uuid, uuid, text) to mokren_app;

-- +goose Down
drop table session, login, audit, range_reading, hold, charted_point, visit_event, visit, client, person, practice cascade;
drop function login_find(text), login_put(text, uuid, uuid, text);
