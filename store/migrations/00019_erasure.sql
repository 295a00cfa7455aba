-- A client's record is erased as an owner's act; what stays is a tombstone without
-- a name.
-- +goose Up
alter table client add column legal_hold text not null default '';

create table erasure (
    practice_id uuid        not null,
    client_id   uuid        not null,
    at          timestamptz not null default now(),
    person_id   uuid        not null,
    reason      text        not null check (reason <> ''),
    visits      int         not null,
    events      int         not null,
    primary key (practice_id, client_id)
);
alter table erasure enable row level security;
alter table erasure force row level security;
create policy of_practice on erasure using (practice_id = here()) with check (practice_id = here());
revoke all on erasure from public;
grant select on erasure to mokren_app;

-- What was searched for may be a name: the audit says that clients were listed.
alter table audit no force row level security;
update audit set subject = '' where verb = 'list' and kind = 'client' and subject <> 'alike';
alter table audit force row level security;

-- +goose StatementBegin
create function client_erase(of_client uuid, why text) returns void
    language plpgsql security definer set search_path = public
as $$
declare
    t text;
    visits_gone int;
    events_gone int;
begin
    if current_setting('mokren.role', true) is distinct from 'owner' then
        raise exception 'only an owner erases';
    end if;
    perform from client where practice_id = here() and id = of_client and legal_hold = '' for update;
    if not found then
        raise exception 'no such client, or held by law';
    end if;
    select count(*) into visits_gone from visit where practice_id = here() and client_id = of_client;
    select count(*) into events_gone from visit_event where practice_id = here() and client_id = of_client;
    update import i set file = '' from imported x
        where i.practice_id = here() and x.practice_id = here() and x.import_id = i.id and x.id = of_client;
    delete from imported x using visit v where x.practice_id = here() and v.practice_id = here()
        and v.client_id = of_client and x.id = v.id;
    delete from imported x using photo p where x.practice_id = here() and p.practice_id = here()
        and p.client_id = of_client and x.id = p.id;
    delete from imported where practice_id = here() and id = of_client;
    -- Every table that names a client, the ones that point at a visit first.
    for t in select c.table_name from information_schema.columns c
            join information_schema.tables b on b.table_schema = c.table_schema and b.table_name = c.table_name
            where c.table_schema = 'public' and c.column_name = 'client_id' and b.table_type = 'BASE TABLE'
                and c.table_name not in ('visit', 'audit', 'erasure') loop
        execute format('delete from %I where practice_id = $1 and client_id = $2', t) using here(), of_client;
    end loop;
    delete from visit where practice_id = here() and client_id = of_client;
    delete from client where practice_id = here() and id = of_client;
    insert into erasure (practice_id, client_id, person_id, reason, visits, events)
        values (here(), of_client, current_setting('mokren.person')::uuid, why, visits_gone, events_gone);
end $$;
-- +goose StatementEnd
revoke all on function client_erase(uuid, text) from public;
grant execute on function client_erase(uuid, text) to mokren_app;

-- +goose Down
drop function client_erase(uuid, text);
drop table erasure;
alter table client drop column legal_hold;
