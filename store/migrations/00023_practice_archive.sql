-- An archive may bring what a practice has set itself; what it brought is known by its
-- kind and key, and by what it said, so that only what nobody has changed since is taken
-- out again. The key may be missing: an older program beside this one writes none.
-- +goose Up
alter table imported add column key text;
alter table imported drop constraint imported_kind_check;
alter table imported add constraint imported_kind_check
    check (kind in ('person', 'client', 'visit', 'photo', 'weight', 'threshold', 'protocol', 'note', 'site'));
alter table imported drop constraint imported_pkey;
create unique index imported_once on imported (practice_id, import_id, kind, id, coalesce(key, ''));

-- +goose StatementBegin
create function set_version(of_kind text, of_key text) returns bigint
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
-- +goose StatementBegin
create function import_undo_set(of_practice uuid, of_import uuid) returns void
    language plpgsql security definer set search_path = public
as $$
begin
    if of_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'an import is undone only within its own practice';
    end if;
    delete from evidence_weight w using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'weight' and w.practice_id = of_practice and w.evidence = i.key;
    delete from posture_threshold t using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'threshold' and t.practice_id = of_practice and t.threshold = i.key;
    delete from own_protocol o using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'protocol' and o.practice_id = of_practice and o.id::text = i.key;
    delete from atlas_note n using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'note' and n.practice_id = of_practice and n.muscle = i.key;
    delete from atlas_site s using imported i where i.practice_id = of_practice and i.import_id = of_import
        and i.kind = 'site' and s.practice_id = of_practice and s.id::text = i.key;
end $$;
-- +goose StatementEnd
revoke all on function set_version(text, text), import_undo_set(uuid, uuid) from public;
grant execute on function set_version(text, text), import_undo_set(uuid, uuid) to mokren_app;

-- +goose Down
drop function import_undo_set(uuid, uuid), set_version(text, text);
delete from imported where key is not null;
drop index imported_once;
alter table imported add primary key (practice_id, import_id, kind, id);
alter table imported drop constraint imported_kind_check;
alter table imported add constraint imported_kind_check check (kind in ('person', 'client', 'visit', 'photo'));
alter table imported drop column key;
