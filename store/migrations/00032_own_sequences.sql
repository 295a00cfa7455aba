-- A practice's own sequences: copies of shipped ones, changed, or of their own making. They go out
-- and come in with its archive.
-- +goose Up
create table own_sequence (
    practice_id uuid not null references practice (id),
    id          uuid not null,
    name        text not null check (length(name) between 1 and 120),
    body        jsonb not null,
    primary key (practice_id, id),
    unique (practice_id, name)
);
alter table own_sequence enable row level security;
alter table own_sequence force row level security;
create policy of_practice on own_sequence
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on own_sequence from public;
grant select, insert, update, delete on own_sequence to mokren_app;

alter table imported drop constraint imported_kind_check;
alter table imported add constraint imported_kind_check check (kind in
    ('person', 'client', 'visit', 'photo', 'weight', 'threshold', 'protocol', 'sequence', 'note', 'site'));
-- +goose StatementBegin
create or replace function set_version(of_kind text, of_key text) returns bigint
    language sql stable set search_path = public
as $$ select hashtextextended(case of_kind
    when 'weight' then (select plus || ' ' || minus from evidence_weight where evidence = of_key)
    when 'threshold' then (select value::text from posture_threshold where threshold = of_key)
    when 'protocol' then (select concat_ws(' ', protocol, name, numbers) from own_protocol where id::text = of_key)
    when 'sequence' then (select concat_ws(' ', name, body) from own_sequence where id::text = of_key)
    when 'note' then (select text from atlas_note where muscle = of_key)
    when 'site' then (select concat_ws(' ', name, figure, fibre, along_pct, across_mm, note, removed_at)
        from atlas_site where id::text = of_key)
    end, 0) $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function import_undo_sequences(of_practice uuid, of_import uuid) returns void
    language plpgsql security definer set search_path = public
as $$
begin
    if of_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'an import is undone only within its own practice';
    end if;
    delete from own_sequence o using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'sequence' and o.practice_id = of_practice and o.id::text = i.key;
end $$;
-- +goose StatementEnd
revoke all on function import_undo_sequences(uuid, uuid) from public;
grant execute on function import_undo_sequences(uuid, uuid) to mokren_app;

-- +goose Down
drop function import_undo_sequences(uuid, uuid);
-- +goose StatementBegin
create or replace function set_version(of_kind text, of_key text) returns bigint
    language sql stable set search_path = public
as $$ select hashtextextended(case of_kind
    when 'weight' then (select plus || ' ' || minus from evidence_weight where evidence = of_key)
    when 'threshold' then (select value::text from posture_threshold where threshold = of_key)
    when 'protocol' then (select concat_ws(' ', protocol, name, numbers) from own_protocol where id::text = of_key)
    when 'note' then (select text from atlas_note where muscle = of_key)
    when 'site' then (select concat_ws(' ', name, figure, fibre, along_pct, across_mm, note, removed_at)
        from atlas_site where id::text = of_key)
    end, 0) $$;
-- +goose StatementEnd
delete from imported where kind = 'sequence';
alter table imported drop constraint imported_kind_check;
alter table imported add constraint imported_kind_check check (kind in
    ('person', 'client', 'visit', 'photo', 'weight', 'threshold', 'protocol', 'note', 'site'));
drop table own_sequence;
