-- Finding a client among ten thousand. A likeness of names may not use an index
-- beneath row security, so the names that are searched lie in a table of their own
-- that is reached through a function only, as logins and links are.
-- +goose Up
create table client_name (
    practice_id uuid    not null,
    client_id   uuid    not null,
    archived    boolean not null,
    name        text    not null,
    primary key (practice_id, client_id)
);
create index client_name_like on client_name using gin (name gin_trgm_ops);
-- What a search may begin with: each word of the name, and all of it either way round.
create table client_word (
    practice_id uuid    not null,
    client_id   uuid    not null,
    archived    boolean not null,
    word        text    collate "C" not null,
    primary key (practice_id, archived, word, client_id)
);
create index client_word_by_client on client_word (practice_id, client_id);
revoke all on client_name, client_word from public;

-- +goose StatementBegin
create function client_named() returns trigger
    language plpgsql security definer set search_path = public
as $$ begin
    if tg_op = 'UPDATE' and new.given_name = old.given_name and new.family_name = old.family_name
            and (new.archived_at is null) = (old.archived_at is null) then
        return null;
    end if;
    if tg_op <> 'INSERT' then
        delete from client_name where practice_id = old.practice_id and client_id = old.id;
        delete from client_word where practice_id = old.practice_id and client_id = old.id;
    end if;
    if tg_op <> 'DELETE' then
        insert into client_name values (new.practice_id, new.id, new.archived_at is not null,
            lower(new.given_name || ' ' || new.family_name));
        insert into client_word select distinct new.practice_id, new.id, new.archived_at is not null, w
            from unnest(string_to_array(lower(new.given_name || ' ' || new.family_name), ' ')
                || string_to_array(lower(new.family_name), '-')
                || lower(new.given_name || ' ' || new.family_name) || lower(new.family_name || ' ' || new.given_name)) w
            where w <> '';
    end if;
    return null;
end $$;
-- +goose StatementEnd
create trigger client_named after insert or update or delete on client
    for each row execute function client_named();

-- Those that begin so come first; only where they are few are like ones looked for.
-- +goose StatementBegin
create function client_search(wanted text, put_away boolean, most int)
    returns table (client_id uuid, likeness real)
    language plpgsql stable security definer rows 20
    set search_path = public set pg_trgm.word_similarity_threshold = 0.42
as $$
declare
    typed text := lower(wanted);
    n int;
begin
    -- A client has a few words: so many of them, in their order, are enough.
    return query select f.client_id, 2::real from (select w.client_id, w.word from client_word w
            where w.practice_id = here() and w.archived = put_away
                and w.word >= typed collate "C" and w.word < (typed || chr(1114109)) collate "C"
            order by w.word limit 3 * most) f
        group by f.client_id order by min(f.word), f.client_id limit most;
    get diagnostics n = row_count;
    if n < most then
        return query select c.client_id, word_similarity(typed, c.name) from client_name c
            where c.practice_id = here() and c.archived = put_away
                and (typed <% c.name or c.name like '%' || replace(replace(replace(typed, '\', '\\'), '%', '\%'), '_', '\_') || '%')
            order by 2 desc, 1 limit most;
    end if;
end $$;
-- +goose StatementEnd
revoke all on function client_search(text, boolean, int), client_named() from public;
grant execute on function client_search(text, boolean, int) to mokren_app;

alter table client no force row level security;
insert into client_name select practice_id, id, archived_at is not null, lower(given_name || ' ' || family_name) from client;
insert into client_word select distinct practice_id, id, archived_at is not null, w
    from client, unnest(string_to_array(lower(given_name || ' ' || family_name), ' ')
        || string_to_array(lower(family_name), '-')
        || lower(given_name || ' ' || family_name) || lower(family_name || ' ' || given_name)) w
    where w <> '';
alter table client force row level security;
create index client_by_name on client (practice_id, family_name, given_name, id);
create index client_by_birth on client (practice_id, born_on);
-- Which visits an older program wrote last.
create index visit_by_tables on visit (practice_id, tables_of) where version > 0;

-- +goose Down
drop index client_by_name, client_by_birth, visit_by_tables;
drop function client_search(text, boolean, int);
drop trigger client_named on client;
drop function client_named();
drop table client_word, client_name;
