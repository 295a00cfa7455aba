-- +goose Up
-- The therapist's own finger-width in cm, asked once.
alter table person add column finger_cm numeric(3, 1) check (finger_cm between 1 and 3);
grant update (finger_cm) on person to mokren_app;

-- What a practice adds to a muscle; the shipped atlas stays untouched.
create table atlas_note (
    practice_id uuid        not null references practice (id),
    muscle      text        not null,
    text        text        not null check (length(text) <= 10000),
    revision    bigint      not null default 1,
    person_id   uuid        not null,
    updated_at  timestamptz not null default now(),
    primary key (practice_id, muscle),
    foreign key (practice_id, person_id) references person (practice_id, id)
);

-- Removed sites stay, so that a removal can be undone.
create table atlas_site (
    practice_id uuid        not null references practice (id),
    id          uuid        not null,
    muscle      text        not null,
    name        text        not null check (name <> ''),
    fibre       int         not null,
    along_pct   double precision not null,
    across_mm   double precision not null,
    note        text        not null default '',
    person_id   uuid        not null,
    updated_at  timestamptz not null default now(),
    removed_at  timestamptz,
    primary key (practice_id, id),
    foreign key (practice_id, person_id) references person (practice_id, id)
);

-- The present state of a visit's pain drawing.
create table pain_drawing (
    practice_id uuid  not null,
    client_id   uuid  not null,
    visit_id    uuid  not null,
    figure      text  not null,
    cells       int   not null,
    strokes     jsonb not null,
    primary key (practice_id, visit_id),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);

-- What a client entered on an own device, until a therapist takes it in.
create table client_entry (
    practice_id uuid        not null,
    id          uuid        not null,
    client_id   uuid        not null,
    visit_id    uuid        not null,
    kind        text        not null check (kind in ('drawing')),
    body        jsonb       not null,
    received_at timestamptz not null default now(),
    taken_at    timestamptz,
    taken_by    uuid,
    primary key (practice_id, id),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
create index client_entry_by_visit on client_entry (practice_id, visit_id);

-- +goose StatementBegin
do $$
declare t text;
begin
    foreach t in array array['atlas_note', 'atlas_site', 'pain_drawing', 'client_entry'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format($p$create policy of_practice on %I
            using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
            with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)$p$, t);
    end loop;
end $$;
-- +goose StatementEnd

-- Links for a client's own device: a table without a practice's security,
-- since the code is all that is known when it is used. It holds a hash of the
-- code and is reached through the two functions below only.
create table link (
    code_hash   bytea       primary key,
    practice_id uuid        not null,
    person_id   uuid        not null,
    client_id   uuid        not null,
    visit_id    uuid        not null,
    purpose     text        not null check (purpose in ('drawing')),
    expires_at  timestamptz not null
);

-- +goose StatementBegin
create function link_put(new_hash bytea, new_practice uuid, new_person uuid, new_client uuid, new_visit uuid, new_purpose text, new_expiry timestamptz)
    returns void
    language plpgsql security definer set search_path = public
as $$ begin
    if new_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'a link is made only within its own practice';
    end if;
    delete from link where expires_at < now() - interval '1 day';
    insert into link (code_hash, practice_id, person_id, client_id, visit_id, purpose, expires_at)
    values (new_hash, new_practice, new_person, new_client, new_visit, new_purpose, new_expiry);
end $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function link_find(wanted bytea, at timestamptz)
    returns table (practice_id uuid, person_id uuid, client_id uuid, visit_id uuid, purpose text, expires_at timestamptz)
    language sql stable security definer set search_path = public
as $$ select practice_id, person_id, client_id, visit_id, purpose, expires_at from link where code_hash = wanted and expires_at > at $$;
-- +goose StatementEnd

revoke all on atlas_note, atlas_site, pain_drawing, client_entry, link from public;
revoke all on function link_put(bytea, uuid, uuid, uuid, uuid, text, timestamptz), link_find(bytea, timestamptz) from public;
grant select, insert, update, delete on atlas_note, pain_drawing to mokren_app;
grant select, insert, update on atlas_site, client_entry to mokren_app;
grant execute on function link_put(bytea, uuid, uuid, uuid, uuid, text, timestamptz), link_find(bytea, timestamptz) to mokren_app;

-- +goose Down
drop table link, client_entry, pain_drawing, atlas_site, atlas_note;
drop function link_put(bytea, uuid, uuid, uuid, uuid, text, timestamptz), link_find(bytea, timestamptz);
alter table person drop column finger_cm;
