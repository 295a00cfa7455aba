-- +goose Up
-- Appointments: where, in which series, and what became of them; who waits for
-- one; and what was taken in from elsewhere, so that it can be undone.
alter table visit
    add column room   text not null default '' check (length(room) <= 60),
    add column status text not null default 'booked' check (status in ('booked', 'cancelled', 'no-show')),
    add column series uuid,
    add column revision bigint not null default 1;
alter table practice add column rooms text[] not null default '{}';
grant update (protocol, units, clock_hours, week_starts, rooms) on practice to mokren_app;

create table waiting (
    practice_id uuid        not null,
    id          uuid        not null,
    client_id   uuid        not null,
    minutes     int         not null default 60 check (minutes between 5 and 480),
    note        text        not null default '' check (length(note) <= 500),
    since       timestamptz not null default now(),
    done_at     timestamptz,
    primary key (practice_id, id),
    foreign key (practice_id, client_id) references client (practice_id, id)
);
alter table waiting enable row level security;
alter table waiting force row level security;
create policy of_practice on waiting
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on waiting from public;
grant select, insert, update on waiting to mokren_app;

-- A calendar is subscribed to by a secret; only its hash is kept.
create table calendar_link (
    hash        bytea       primary key,
    practice_id uuid        not null,
    person_id   uuid        not null,
    names       boolean     not null,
    made_at     timestamptz not null default now()
);
revoke all on calendar_link from public;
-- +goose StatementBegin
create function calendar_find(wanted bytea)
    returns table (practice_id uuid, person_id uuid, names boolean)
    language sql stable security definer set search_path = public
as $$ select practice_id, person_id, names from calendar_link where hash = wanted $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function calendar_put(new_hash bytea, new_practice uuid, new_person uuid, new_names boolean)
    returns void
    language plpgsql security definer set search_path = public
as $$ begin
    if new_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'a calendar link is made only within its own practice';
    end if;
    delete from calendar_link where practice_id = new_practice and person_id = new_person;
    if new_hash is not null then
        insert into calendar_link (hash, practice_id, person_id, names)
            values (new_hash, new_practice, new_person, new_names);
    end if;
end $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function calendar_known(of_practice uuid, of_person uuid)
    returns table (names boolean, made_at timestamptz)
    language sql stable security definer set search_path = public
as $$ select names, made_at from calendar_link where practice_id = of_practice and person_id = of_person
    and of_practice = nullif(current_setting('mokren.practice', true), '')::uuid $$;
-- +goose StatementEnd
revoke all on function calendar_find(bytea), calendar_put(bytea, uuid, uuid, boolean), calendar_known(uuid, uuid)
    from public;
grant execute on function calendar_find(bytea), calendar_put(bytea, uuid, uuid, boolean), calendar_known(uuid, uuid)
    to mokren_app;

-- What was taken in, with the versions that it had then: only what nobody has
-- worked on since is taken out again.
create table import (
    practice_id uuid        not null references practice (id),
    id          uuid        not null,
    at          timestamptz not null default now(),
    person_id   uuid        not null,
    kind        text        not null,
    file        text        not null default '',
    sha256      bytea       not null,
    summary     jsonb       not null,
    undone_at   timestamptz,
    primary key (practice_id, id)
);
create table imported (
    practice_id uuid   not null,
    import_id   uuid   not null,
    kind        text   not null check (kind in ('person', 'client', 'visit', 'photo')),
    id          uuid   not null,
    version     bigint not null,
    primary key (practice_id, import_id, kind, id),
    foreign key (practice_id, import_id) references import (practice_id, id)
);
alter table person add column elsewhere boolean not null default false;
-- +goose StatementBegin
do $$
declare t text;
begin
    foreach t in array array['import', 'imported'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format($p$create policy of_practice on %I
            using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
            with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)$p$, t);
        execute format('revoke all on %I from public', t);
        execute format('grant select, insert, update on %I to mokren_app', t);
    end loop;
end $$;
-- +goose StatementEnd

-- The log is only ever added to; what an import brought goes as a whole, and only
-- here.
-- +goose StatementBegin
create function import_undo(of_practice uuid, of_import uuid)
    returns void
    language plpgsql security definer set search_path = public
as $$
declare t text;
begin
    if of_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'an import is undone only within its own practice';
    end if;
    foreach t in array array['charted_point', 'hold', 'range_reading', 'screening', 'hold_sign', 'consent',
            'pain_drawing', 'suspicion', 'photo', 'visit_event'] loop
        execute format('delete from %I where practice_id = $1 and visit_id in (select id from imported
            where practice_id = $1 and import_id = $2 and kind = ''visit'')', t) using of_practice, of_import;
    end loop;
    delete from photo p using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'photo' and p.practice_id = of_practice and p.id = i.id;
    delete from visit v using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'visit' and v.practice_id = of_practice and v.id = i.id;
    delete from waiting w using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'client' and w.practice_id = of_practice and w.client_id = i.id;
    delete from client c using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'client' and c.practice_id = of_practice and c.id = i.id;
    delete from person p using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'person' and p.practice_id = of_practice and p.id = i.id
        and not exists (select 1 from visit_event e where e.practice_id = of_practice and e.author_id = p.id)
        and not exists (select 1 from visit v where v.practice_id = of_practice and v.therapist_id = p.id);
    update import set undone_at = now() where practice_id = of_practice and id = of_import;
end $$;
-- +goose StatementEnd
revoke all on function import_undo(uuid, uuid) from public;
grant execute on function import_undo(uuid, uuid) to mokren_app;

-- +goose Down
drop function import_undo(uuid, uuid);
alter table person drop column elsewhere;
drop table imported, import;
drop function calendar_find(bytea), calendar_put(bytea, uuid, uuid, boolean), calendar_known(uuid, uuid);
drop table calendar_link, waiting;
alter table practice drop column rooms;
alter table visit drop column room, drop column status, drop column series, drop column revision;
