-- People, how they sign in, and limits that all copies share.
-- +goose Up
-- Activity as judged within the visit. Whatever is added to a table that is
-- written from the log may be null: an older copy beside a newer one writes none.
alter table charted_point add column activity text;

alter table person
    add column licence       text not null default '',
    add column licence_until date,
    add column supervisor_id uuid,
    add column left_at       timestamptz,
    add constraint person_supervisor foreign key (practice_id, supervisor_id) references person (practice_id, id);
grant update (name, role, licence, licence_until, supervisor_id, left_at) on person to mokren_app;

-- So long a device may lie idle before it signs itself out; 0 is never.
alter table practice add column idle_minutes int not null default 30 check (idle_minutes between 0 and 240);
grant update (idle_minutes) on practice to mokren_app;

-- A login closes for a while after too many wrong passwords, and may want a code
-- that changes. totp_step is the last one that was taken: none is taken twice.
alter table login
    add column failed      int         not null default 0,
    add column failed_at   timestamptz not null default 'epoch',
    add column totp_secret text        not null default '',
    add column totp_on     boolean     not null default false,
    add column totp_step   bigint      not null default 0;
create unique index login_by_person on login (practice_id, person_id);

-- +goose StatementBegin
create function login_look(wanted text)
    returns table (practice_id uuid, person_id uuid, password_hash text, failed int, failed_at timestamptz,
        totp_secret text, totp_on boolean)
    language sql stable security definer set search_path = public
as $$ select practice_id, person_id, password_hash, failed, failed_at, totp_secret, totp_on
    from login where email = lower(wanted) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_failed(of_email text, forget_s int) returns void
    language sql security definer set search_path = public
as $$ update login set failed = case when failed_at < now() - forget_s * interval '1 second' then 1 else failed + 1 end,
        failed_at = now()
    where email = lower(of_email) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_passed(of_email text) returns void
    language sql security definer set search_path = public
as $$ update login set failed = 0 where email = lower(of_email) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_step(of_email text, step bigint) returns boolean
    language sql security definer set search_path = public
as $$ with taken as (update login set totp_step = step where email = lower(of_email) and totp_step < step returning 1)
    select exists (select from taken) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function here() returns uuid language sql stable
as $$ select nullif(current_setting('mokren.practice', true), '')::uuid $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_list()
    returns table (person_id uuid, email text, password_hash text, totp_secret text, totp_on boolean)
    language sql stable security definer set search_path = public
as $$ select person_id, email, password_hash, totp_secret, totp_on from login where practice_id = here() $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_password(of_person uuid, new_hash text) returns boolean
    language sql security definer set search_path = public
as $$ with taken as (update login set password_hash = new_hash, failed = 0
        where practice_id = here() and person_id = of_person returning 1)
    select exists (select from taken) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_totp(of_person uuid, secret text, is_on boolean) returns void
    language sql security definer set search_path = public
as $$ update login set totp_secret = secret, totp_on = is_on, totp_step = 0
    where practice_id = here() and person_id = of_person $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_drop(of_person uuid) returns void
    language sql security definer set search_path = public
as $$ delete from login where practice_id = here() and person_id = of_person $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_taken(wanted text) returns boolean
    language sql stable security definer set search_path = public
as $$ select exists (select from login where email = lower(wanted)) $$;
-- +goose StatementEnd

-- Practices lie behind row security; without a login nobody has one.
-- +goose StatementBegin
create function practice_any() returns boolean
    language sql stable security definer set search_path = public
as $$ select exists (select from login) $$;
-- +goose StatementEnd

-- One-time links: to join, to choose a new password, to set up the first practice.
create table ticket (
    hash        bytea       primary key,
    kind        text        not null check (kind in ('join', 'reset', 'set-up')),
    practice_id uuid,
    person_id   uuid,
    email       text        not null default '',
    expires_at  timestamptz not null,
    used_at     timestamptz,
    check ((kind = 'set-up') = (practice_id is null))
);
-- +goose StatementBegin
create function ticket_put(new_hash bytea, new_kind text, new_person uuid, new_email text, new_expiry timestamptz)
    returns void
    language plpgsql security definer set search_path = public
as $$ begin
    if new_kind = 'set-up' then
        if practice_any() then
            raise exception 'there is a practice already';
        end if;
        insert into ticket (hash, kind, expires_at) values (new_hash, new_kind, new_expiry);
        return;
    end if;
    if here() is null then
        raise exception 'a link is made only within a practice';
    end if;
    delete from ticket where practice_id = here() and person_id = new_person and used_at is null;
    insert into ticket (hash, kind, practice_id, person_id, email, expires_at)
        values (new_hash, new_kind, here(), new_person, lower(new_email), new_expiry);
end $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function ticket_find(wanted bytea)
    returns table (kind text, practice_id uuid, person_id uuid, email text)
    language sql stable security definer set search_path = public
as $$ select kind, practice_id, person_id, email from ticket
    where hash = wanted and used_at is null and expires_at > now() $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function ticket_use(wanted bytea) returns boolean
    language sql security definer set search_path = public
as $$ with taken as (update ticket set used_at = now()
        where hash = wanted and used_at is null and expires_at > now() returning 1)
    select exists (select from taken) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function ticket_email(of_person uuid) returns text
    language sql stable security definer set search_path = public
as $$ select email from ticket where practice_id = here() and person_id = of_person and kind = 'join'
    order by expires_at desc limit 1 $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function ticket_list() returns table (person_id uuid, kind text, expires_at timestamptz)
    language sql stable security definer set search_path = public
as $$ select person_id, kind, expires_at from ticket
    where practice_id = here() and used_at is null and expires_at > now() $$;
-- +goose StatementEnd

-- Where someone is signed in: the session's hash and what the device says it is.
create table device (
    practice_id uuid        not null,
    person_id   uuid        not null,
    id          uuid        not null,
    session     bytea       not null unique,
    agent       text        not null,
    address     text        not null,
    at          timestamptz not null default now(),
    primary key (practice_id, id)
);
create index device_by_person on device (practice_id, person_id, at);
alter table device enable row level security;
alter table device force row level security;
create policy of_practice on device using (practice_id = here()) with check (practice_id = here());

-- Calls per window and caller, shared by all copies; worth nothing after a crash.
create unlogged table rate (
    caller    text        not null,
    window_at timestamptz not null,
    calls     int         not null,
    primary key (caller, window_at)
);

revoke all on ticket, device, rate from public;
grant select, insert, delete on device to mokren_app;
grant select, insert, update, delete on rate to mokren_app;
revoke all on function login_look(text), login_failed(text, int), login_passed(text), login_step(text, bigint),
    login_list(), login_password(uuid, text), login_totp(uuid, text, boolean), login_drop(uuid), login_taken(text),
    ticket_put(bytea, text, uuid, text, timestamptz), ticket_find(bytea), ticket_use(bytea), ticket_list(),
    ticket_email(uuid), practice_any() from public;
grant execute on function login_look(text), login_failed(text, int), login_passed(text), login_step(text, bigint),
    login_list(), login_password(uuid, text), login_totp(uuid, text, boolean), login_drop(uuid), login_taken(text),
    ticket_put(bytea, text, uuid, text, timestamptz), ticket_find(bytea), ticket_use(bytea), ticket_list(),
    ticket_email(uuid), practice_any(), here() to mokren_app;

-- +goose Down
drop table rate, device;
drop function ticket_email(uuid), ticket_list(), ticket_use(bytea), ticket_find(bytea),
    ticket_put(bytea, text, uuid, text, timestamptz);
drop table ticket;
drop function practice_any();
drop function login_taken(text), login_drop(uuid), login_totp(uuid, text, boolean), login_password(uuid, text),
    login_list(), here(), login_step(text, bigint), login_passed(text), login_failed(text, int), login_look(text);
drop index login_by_person;
alter table login drop column failed, drop column failed_at, drop column totp_secret, drop column totp_on,
    drop column totp_step;
alter table practice drop column idle_minutes;
alter table person drop constraint person_supervisor, drop column licence, drop column licence_until,
    drop column supervisor_id, drop column left_at;
alter table charted_point drop column activity;
